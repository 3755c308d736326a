// What is fitted at one end in one design, and how.
#pragma once

#include "build/table.h"

namespace mavrel::build {

/// Can air pass between a bag and its added volume?
enum class LineState { open, shut };

/// Has each side its own air, or do both share it through a tee?
enum class Sides { separate, joined };

/// One point of a damper's curve.
struct DamperPoint {
  double speed = 0.1;       // m/s, of the rod
  double bump_force = 0;    // N
  double rebound_force = 0; // N
  Extra extra;
  friend bool operator==(const DamperPoint&, const DamperPoint&) = default;
};

/// One plate that the bag stands between. Its angles are what a gauge laid on it shows with the car as surveyed.
struct Seat {
  std::optional<double> across_angle; // rad from level seen from the front, outer edge up positive
  std::optional<double> along_angle;  // rad from level seen from the side, front edge up positive
  double outward = 0, forward = 0;    // m from the surveyed spring seat
  Extra extra;
  friend bool operator==(const Seat&, const Seat&) = default;
};

/// The height at which the builder's school wants the bag straight.
enum class StraightAt { parked, road };

/// Which of the bag's ends are bolted to their plates.
enum class Held { both, lower_only, upper_only };

/// How the bag is mounted. An angle that is absent is one that stands the bag straight where the school wants it.
struct Mounting {
  StraightAt straight_at = StraightAt::road;
  Held held = Held::both;
  Seat upper, lower;
  double seat_raised = 0;   // m, the lower spring seat higher on the damper's body than surveyed
  double damper_longer = 0; // m, a threaded body set longer than surveyed, the seat going with it
  double mount_thicker = 0; // m, another upper mount than the surveyed one; negative: a thin plate
  double mount_outward = 0; // m, the upper mount's middle from the surveyed place
  double pocket_offset = 0; // m, the bag's axis off the middle of its room
  double drop_spindle = 0;  // m, the hub higher on another upright than surveyed: the same arms, the car so much lower
  Extra extra;
  friend bool operator==(const Mounting&, const Mounting&) = default;
};

/// Sums of the bench for one end: what is wanted, and what the tape says for it. Nothing else is worked out from them.
struct Workshop {
  std::optional<double> caster;                            // rad wanted
  std::optional<double> shims;                             // at each arm of a kingpin beam
  std::optional<double> shim_thickness, arms_offset, pins; // m; the arms' offset, and the pins' distance
  std::optional<double> camber;                            // rad wanted of the shims
  std::optional<double> wedge, bolt_circle;                // rad a flange is turned by, m across its bolts
  std::optional<double> left_right, right_left;            // m, an axle's diagonals from the frame
  std::optional<double> frame_width, axle_width;           // m between the points they are taken from
  std::optional<double> link_length, end_a, end_b;         // m, joint to joint, and each end's take-up
  std::optional<double> thread_length, thread_diameter;    // m
  std::optional<double> rail_gap, rail_reserve;            // m over the axle's tube, and what stays free
  Extra extra;
  friend bool operator==(const Workshop&, const Workshop&) = default;
};

/// A clearance that somebody has looked at on the car, and what it was worked out from then.
struct Check {
  std::string what;   // code of the check
  std::string digest; // of what its figure read
  double figure = 0;  // m it said
  Extra extra;
  friend bool operator==(const Check&, const Check&) = default;
};

/// What is fitted at one end in one design.
struct EndFit {
  std::string bag;                                // name of a card; empty: none chosen
  double upper_stack = 0.010;                     // m of plates and mounts above the bag, between spring seat and bag
  double lower_stack = 0.010;                     // m below it
  std::optional<double> damper_open, damper_shut; // m, another damper than the surveyed one
  double damper_gas = 0;                          // N along the rod of each damper, its gas pushing it out
  double added_volume = 0;                        // m³ beside each bag; 0: none
  double line_bore = 0.010;                       // m, of the line or valve to it
  double line_length = 0.4;                       // m
  LineState line = LineState::open;
  Sides sides = Sides::separate;
  std::vector<DamperPoint> damper_curve; // a few points, any order
  Mounting mounting;
  Workshop workshop;
  std::string wheel;                // another tyre and wheel than the surveyed one
  std::optional<double> tyre_width; // m across it as mounted; by its code when absent
  double lip_rolled = 0;            // m that the arch's lip stands further outward than surveyed
  std::vector<Check> checks;
  // What was learned of this car by measuring it; absent: nothing.
  std::optional<double> learned_ratio;    // its motion ratio over what survey or joints say
  std::optional<double> learned_area;     // its bag's effective area over its card's
  std::optional<double> learned_friction; // N at the wheel, instead of the survey's
  Extra extra;
  friend bool operator==(const EndFit&, const EndFit&) = default;
};

template <>
const Table& table_of<DamperPoint>();
template <>
const Table& table_of<Seat>();
template <>
const Table& table_of<Mounting>();
template <>
const Table& table_of<Workshop>();
template <>
const Table& table_of<Check>();
template <>
const Table& table_of<EndFit>();

} // namespace mavrel::build
