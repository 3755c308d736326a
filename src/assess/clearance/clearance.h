// What one end keeps clear of: gaps of tyre, bag, damper and arms to everything near them, over height and lock.
#pragma once

#include "assess/clearance/end_space.h"
#include "assess/height/track.h"
#include "motion/travel_map.h"
#include "shelf/shelf.h"

#include <functional>
#include <string>

namespace mavrel::assess {

/// What keeps clear.
enum class Mover { tyre, bag, damper, arms, axle };
[[nodiscard]] const char* name_of(Mover mover); // for people: `tyre`
[[nodiscard]] const char* key_of(Mover mover);

/// How a gap is known.
enum class GapSource {
  solid, // worked out between two bodies
  sheet, // read on the cycle sheet at several heights
  taped, // taped at one height, moved on by the map
};

/// All that gaps without the bag are worked out from; the obstacles come with the motion's survey.
struct ClearanceGiven {
  Answered<MotionQuestion> motion;
  std::string wheel;                // code of the design's; the surveyed one's where it has no other
  std::optional<double> tyre_width; // m, measured
  double lip_rolled = 0;            // m
  build::Rooms rooms;
  double bag_room = 0;                            // m round the bag
  std::optional<double> damper_open, damper_shut; // m, another damper of the design's
  [[nodiscard]] auto parts() const {
    return std::tie(motion, wheel, tyre_width, lip_rolled, rooms, bag_room, damper_open, damper_shut);
  }
  friend bool operator==(const ClearanceGiven&, const ClearanceGiven&) = default;
};
[[nodiscard]] ClearanceGiven clearance_given(const build::Build& build, Answered<MotionQuestion> motion);

constexpr std::size_t not_listed = static_cast<std::size_t>(-1);

/// What a gap is taken to.
struct Near {
  std::string name; // as somebody typed it; empty: `own` says it
  OwnPart own = OwnPart::none;
  std::size_t obstacle = not_listed; // index in the survey's list
  double room = 0;                   // m wanted
  bool right = false;                // on the right side, where that is not the left's mirror image
  [[nodiscard]] Message told() const;
  friend bool operator==(const Near&, const Near&) = default;
};

/// Two bodies that overlap with the car as it was surveyed.
struct Overlap {
  double depth = 0;        // m that the one that moves would have to be thinner by, all over, to be free
  bool at_least = false;   // it can't be made that much thinner
  bool was_on_car = false; // both were on the car then: where it stood is excused, what is worse is not
  bool everywhere = false; // no height frees it: nothing can be excused
  bool at_lock = false;    // only with the wheels fully steered
};

/// What two parts of the end itself had between them when it was surveyed, m, below 0 so deep in one another: parts
/// that were on the car are asked for no more than that. How thick they are is known coarsely, and the car did steer.
struct HadBetween {
  double straight = 0, least = 0;
};

/// One gap over height. Where there is no answer there is no piece.
struct GapCurve {
  Mover mover = Mover::tyre;
  Near near;
  GapSource source = GapSource::solid;
  std::optional<double> taped_at;            // m, H, of a taped one
  std::optional<TrackPiece> straight, least; // m; least: of straight ahead and both locks. 0 where they overlap
  std::optional<Overlap> as_surveyed;        // with the car as it was surveyed; none: they are apart there
  std::optional<HadBetween> had;             // of two parts of the end itself that both were on the car
  /// @returns m; none outside what is known
  [[nodiscard]] std::optional<double> at(double H, bool locked) const;
};

/// Heights that a gap forbids.
struct Block {
  Mover mover = Mover::tyre;
  Near near;
  double from = 0, to = 0;    // m, H
  bool touches = false;       // it meets straight ahead; else it is nearer than wanted, at some lock or straight ahead
  std::optional<double> gain; // m of height for a metre more of room there
};

struct Clearances {
  std::optional<EndSpace> space;          // none while heights or the track are missing
  std::optional<EndSpace> right;          // of the right side, mirrored, where that differs
  std::optional<space::WheelSolid> wheel; // none: no code that can be read
  std::optional<space::Rod> lip;          // the arch's inner edge over the hub
  std::vector<GapCurve> gaps;             // those of the bag are not among them
  std::vector<Block> blocks;
  [[nodiscard]] bool any() const { return !gaps.empty(); }
  /// Whose stands a gap is taken at. Only with a space.
  [[nodiscard]] const EndSpace& space_of(const Near& near) const { return near.right && right ? *right : *space; }
  /// What the wheels' angle is seen as from that side: the right one is mirrored.
  [[nodiscard]] static double angle_seen(const Near& near, double angle) { return near.right ? -angle : angle; }
};

/// m that the tyre's outer shoulder stands outside the arch's inner edge at H; below 0 it is tucked in.
/// @returns none while wheel or arch is unknown
[[nodiscard]] std::optional<double> poke_at(const Clearances& clear, double H);

/// Source: docs/models.md, "Clearance".
[[nodiscard]] Clearances clearances(const ClearanceGiven& given);

struct ClearanceQuestion {
  using Given = ClearanceGiven;
  using Answer = Clearances;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return clearances(given); }
};

/// A bag between its seats.
struct BagBody {
  const air::BagCurve* curve = nullptr;    // its card's; must outlive the call
  double upper_stack = 0, lower_stack = 0; // m, with what the mounting brings the seats nearer
  const motion::TravelMap* map = nullptr;  // the end's, for a bag whose seats have no place; must outlive the call
};
/// The bag at a stand. @returns none where its seats have no place or it would have no height
[[nodiscard]] std::optional<space::Cylinder> bag_at(const BagBody& bag, const Stand& stand);
/// Its gaps to obstacles and to the end's own parts, and what they forbid.
void add_bag_gaps(const ClearanceGiven& given, const Clearances& clear, const BagBody& bag, std::vector<GapCurve>& gaps,
                  std::vector<Block>& blocks);

/// One obstacle as a solid, with the part that carries it, as it lies to the left wheel; for the right wheel mirrored.
struct Placement {
  space::Solid solid;
  motion::Part on = motion::Part::body;
};
/// @returns none of a taped gap, and of one without a size
[[nodiscard]] std::optional<Placement> placement_of(const build::Obstacle& obstacle, bool right = false);
/// The sides on which an obstacle is looked at: left of the middle it stands for both, right of it only for the right.
/// @param differ  the sides are no mirror images
[[nodiscard]] std::vector<bool> rights_of(const build::Obstacle& obstacle, bool differ);
/// Is one bolted to the other, so that both may touch?
[[nodiscard]] bool bolted(Mover mover, const build::Obstacle& obstacle);
/// m of room wanted between a mover and a kind of thing.
[[nodiscard]] double room_for(Mover mover, build::ObstacleKind kind, const build::Rooms& rooms, double bag_room);

/// m that a mover can be made thinner by at a stand; 0 where it is not known.
[[nodiscard]] double half_thickness(Mover mover, const Stand& stand, const Clearances& clear, const BagBody* bag);

/// What a gap is taken in: whose stands, with which bag, and how much thinner the mover is made all over, m.
struct GapIn {
  const Clearances& clear;
  const EndSpace& space;
  const BagBody* bag = nullptr;
  double thinner = 0;
};
/// Gap of one mover to a placed solid; of arms the least of those that are not the part that carries it.
[[nodiscard]] std::optional<space::Gap> gap_to(Mover mover, const Placement& near, const Stand& stand, const GapIn& in);

/// Gap of one mover to a part of the end itself; `solid` is that part where it is a rod.
struct OwnGap {
  space::Gap gap;
  std::optional<space::Rod> solid;
};
[[nodiscard]] std::optional<OwnGap> gap_to_own(Mover mover, OwnPart own, const Stand& stand, const GapIn& in);
/// The parts of the end itself that a mover is looked at against: all but what it is bolted to.
/// Source: docs/models.md, "Clearance".
[[nodiscard]] std::vector<OwnPart> own_parts(Mover mover, const EndSpace& space, const build::EndSurvey& survey);

} // namespace mavrel::assess
