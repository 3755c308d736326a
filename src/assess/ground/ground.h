// The car over what lies on the ground: what touches, the least heights that clear, and which heights of both ends
// together do not.
#pragma once

#include "assess/end/end_answer.h"
#include "space/ground.h"

#include <stop_token>

namespace mavrel::assess {

struct PresetHeights {
  build::PresetUse use = build::PresetUse::other;
  std::array<std::optional<double>, 2> H; // m, front and rear; none where it is not wished or can't be worked out
  [[nodiscard]] auto parts() const { return std::tie(use, H); }
  friend bool operator==(const PresetHeights&, const PresetHeights&) = default;
};

/// What a load case squashes the tyres by.
struct LoadSquash {
  std::string name;
  std::array<double, 2> sinks{}; // m that the hubs of each end stand lower than as surveyed; below 0: higher
  [[nodiscard]] auto parts() const { return std::tie(name, sinks); }
  friend bool operator==(const LoadSquash&, const LoadSquash&) = default;
};

/// All that the ground is worked out from.
struct GroundGiven {
  std::optional<double> wheelbase; // m
  List<build::LowPoint> underside;
  std::array<std::optional<double>, 2> surveyed;     // m, H, front and rear
  std::array<std::optional<double>, 2> radius;       // m, of the design's tyres
  std::array<std::optional<double>, 2> first_radius; // m, of those it stood on when it was measured
  std::vector<PresetHeights> presets;                // as in the brief
  List<build::Ground> grounds;
  std::vector<LoadSquash> loads; // one a load case that is known
  [[nodiscard]] auto parts() const {
    return std::tie(wheelbase, underside, surveyed, radius, first_radius, presets, grounds, loads);
  }
  friend bool operator==(const GroundGiven&, const GroundGiven&) = default;
};
[[nodiscard]] GroundGiven ground_given(const build::Build& build, const AnsweredEnds& ends);

/// The car at these heights as it drives. @returns none while the wheelbase, a height, a tyre or the underside is
/// missing
/// @param sinks  m that the loads squash the tyres of each end by more than they were as surveyed
[[nodiscard]] std::optional<space::Underside> underside_at(const GroundGiven& given, double front, double rear,
                                                           const std::array<double, 2>& sinks = {});
/// Of all load cases those that no other one lowers both ends as much or more than; at least none aboard.
[[nodiscard]] std::vector<LoadSquash> lowest_loads(const GroundGiven& given);
/// Names of its points in the order they lie in, front to rear.
[[nodiscard]] std::vector<std::string> names_of_underside(const GroundGiven& given);
/// The profile as it is driven over. @returns none of fewer than two points, or where x does not rise
[[nodiscard]] std::optional<space::Profile> profile_of(const build::Ground& ground);

/// The car on one thing, as it stands there.
struct OnTheGround {
  space::Underside car;
  space::Profile profile;              // empty: the floor
  std::optional<space::Stance> stance; // none: it can't stand there
  std::optional<space::GroundGap> here;
};
/// @param ground       which of those given; none, or one whose profile can't be driven over: the floor
/// @param front, rear  m, H  @param at  m, where its front hubs are along the profile
/// @returns none where `underside_at` has none
[[nodiscard]] std::optional<OnTheGround> stand_on(const GroundGiven& given, std::optional<std::size_t> ground,
                                                  double front, double rear, double at);
/// Where its front hubs are when least is under it, m; 0 on the floor, or where it can't stand.
[[nodiscard]] double worst_place(const OnTheGround& car);

/// One thing on the ground at one preset that is meant to get over it.
struct Crossing {
  std::size_t ground = 0, preset = 0;
  std::optional<space::GroundGap> gap; // none: the car can't stand on it
  std::string point;                   // what is nearest
  double front = 0, rear = 0;          // m, H
  std::string load;                    // the load case it is least in
  [[nodiscard]] bool clears(double margin) const { return gap && gap->gap >= margin; }
};
/// The car at a preset on flat ground, in the load case that lays it lowest.
struct OnFlat {
  std::size_t preset = 0;
  double gap = 0;    // m under its lowest place; below 0 the ground would have to give way
  std::string point; // which that is
  std::string load;
  double front = 0, rear = 0; // m, H
};
struct GroundAnswer {
  bool known = false;                                     // enough is, to drive the car over things
  std::vector<Crossing> crossings;                        // of those whose heights are known
  std::vector<OnFlat> flat;                               // the same
  std::vector<std::optional<space::GroundAngles>> angles; // one a preset
};
/// Source: docs/models.md, "Ground".
[[nodiscard]] GroundAnswer cross_ground(const GroundGiven& given);

struct GroundQuestion {
  using Given = GroundGiven;
  using Answer = GroundAnswer;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return cross_ground(given); }
};

/// The least heights that get over one thing with its margin: the other end left where it is, or both so much higher.
struct LeastHeights {
  std::optional<double> front_alone, rear_alone; // m, H; none: not by this end alone
  std::optional<double> both;                    // m that both rise by
};
/// @param front, rear  m, H that it starts from
/// @param most         m, H that each end can be lifted to
[[nodiscard]] LeastHeights least_heights(const GroundGiven& given, const build::Ground& ground, double front,
                                         double rear, const std::array<double, 2>& most);

/// Front against rear height: where one thing is not got over.
struct GroundPlane {
  std::vector<double> front, rear; // m, H, rising
  std::vector<double> gap;         // m, row by row: front, then rear; least gap less the margin
  [[nodiscard]] double at(std::size_t f, std::size_t r) const { return gap[f * rear.size() + r]; }
};
/// @param stop  set from elsewhere: give up
[[nodiscard]] std::optional<GroundPlane> ground_plane(const GroundGiven& given, const build::Ground& ground,
                                                      const std::array<double, 2>& low,
                                                      const std::array<double, 2>& high, std::size_t steps,
                                                      const std::stop_token& stop = {});

/// How the car goes from one pair of heights to another.
enum class Order { together, front_first, rear_first };
/// Does the underside keep clear of flat ground, and of one thing it stands over, on the way?
/// @param at  m, of the front wheel on the profile; the profile empty: flat ground
struct WayGap {
  double gap = 0;             // m, the least on the way
  double front = 0, rear = 0; // m, H where that is
  std::size_t point = 0;
};
[[nodiscard]] std::optional<WayGap> least_on_the_way(const GroundGiven& given, const space::Profile& profile, double at,
                                                     const std::array<double, 2>& from, const std::array<double, 2>& to,
                                                     Order order);

/// Usual things on the ground to start from, each of made-up but usual measures.
[[nodiscard]] std::vector<build::Ground> usual_grounds();

} // namespace mavrel::assess
