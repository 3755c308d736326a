// Comfort of the whole car: both ends' body frequency and damping in every load case, and how it settles after a bump.
#pragma once

#include "assess/bags/judge.h"
#include "motion/bounce_pitch.h"

namespace mavrel::assess {

struct RideEnd {
  double frequency = 0;          // Hz, at road height, on the suspension alone
  double ride_frequency = 0;     // Hz, tyre and all: what is felt, and what ends are compared by
  double wheel_rate = 0;         // N/m a corner
  std::optional<double> damping; // share of critical, of the damper described; none without its curve
  double line_damping = 0;       // share of critical that the line to an added volume gives
  /// What a simulation goes by: the two together, or a usual damper's while none is described.
  [[nodiscard]] double damping_taken() const { return damping.value_or(usual_damping) + line_damping; }
  static constexpr double usual_damping = 0.28;
};

struct RideCase {
  std::string name;
  std::array<std::optional<RideEnd>, 2> ends; // front, rear
  std::optional<double> rear_quicker;         // rear over front ride frequency, less 1
};

/// How the car settles in one load case.
struct Settling {
  motion::PitchRun now, best;
  double rear_now = 0, rear_best = 0; // Hz, ride frequency
  std::string best_bag;               // at the rear; empty: none on the shelf does better than the one there
  bool damper_assumed = false;        // a usual damper stands in where none was described
};

struct Ride {
  std::vector<RideCase> cases;
  std::optional<Settling> settling; // none where an end or the wheelbase is missing
};

struct RideGiven {
  AnsweredEnds ends;
  std::array<std::vector<build::DamperPoint>, 2> damper_curves;
  JudgeGiven rear_shelf; // its bags are tried at the rear, as they fit there, for the best settling that can be reached
  double settle_speed = 0;         // m/s
  std::optional<double> wheelbase; // m
  std::size_t load_case = 0;       // the one whose settling is shown
  [[nodiscard]] auto parts() const {
    return std::tie(ends, damper_curves, rear_shelf, settle_speed, wheelbase, load_case);
  }
  friend bool operator==(const RideGiven&, const RideGiven&) = default;
};
[[nodiscard]] RideGiven ride_given(const build::Build& build, const shelf::Shelf& shelf, const AnsweredEnds& ends,
                                   std::size_t load_case);

/// Every load case at road height; the settling at the brief's speed in one of them.
/// Source: docs/models.md, "Bounce and pitch", "Damping".
[[nodiscard]] Ride ride(const RideGiven& given);

struct RideQuestion {
  using Given = RideGiven;
  using Answer = Ride;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return ride(given); }
};

/// Damping coefficient of a damper from a few points of its curve, N·s/m along the rod: mean of bump and rebound at
/// `damper_speed`, linear between the points, through the origin below the first; none without points.
[[nodiscard]] std::optional<double> damper_coefficient(const std::vector<build::DamperPoint>& curve);
constexpr double damper_speed = 0.10; // m/s, usual while the body bounces

} // namespace mavrel::assess
