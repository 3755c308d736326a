// One end of the car as it was measured: its suspension, how it moves, and what lies near its wheel.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_cycle_rows = 60, most_cycle_gaps = 8, most_gap_name = 40;
constexpr std::size_t most_points = 40, most_obstacles = 40;
constexpr NumberSpec cycle_height{Kind::length, 0.05, 1.2, words("height")};
constexpr NumberSpec cycle_spring{Kind::length, 0.03, 1.0, words("spring seat distance")};
constexpr NumberSpec cycle_damper{Kind::length, 0.05, 1.5, words("damper length")};
constexpr NumberSpec cycle_angle{Kind::angle, -0.35, 0.35, words("angle")};
constexpr NumberSpec cycle_gap{Kind::length, -0.2, 1.0, words("gap")};
constexpr NumberSpec point_along{Kind::length, -2.5, 2.5, words("place along the car")};
constexpr NumberSpec point_across{Kind::length, -1.5, 1.5, words("place across the car")};
constexpr NumberSpec point_up{Kind::length, -0.3, 1.8, words("place above the ground")};
constexpr NumberSpec turn_allowed{Kind::angle, 0.01, 1.6, words("angle the joint bears")};
constexpr NumberSpec obstacle_size{Kind::length, 0, 2.0, words("side of the box")};

enum class Layout {
  strut,
  double_wishbone,
  multi_link,
  trailing_arm,
  semi_trailing_arm,
  twin_trailing_arms,
  twin_beam,
  torsion_beam,
  axle_parallel_links,
  axle_triangulated_links,
  axle_was_leaves,
};

enum class SpringPlace { around_damper, apart };

enum class SpringSeat { upright, arm, axle };

enum class StopPlace { damper, wheel };

/// What an obstacle is made of, and so how much room it asks for.
enum class ObstacleKind { metal, liner, hose, brake_line, exhaust, shielded_exhaust };

/// How its place is known: a gap that was taped at one height, or a simple solid.
enum class ObstacleShape { gap, plane, box, rod, edge };

/// What a taped gap was held to, where the obstacle lies from it, and how the wheels stood. `tyre_to_bag`: between
/// those two, and the obstacle is its name only.
enum class GapFrom { tyre, bag, tyre_to_bag };

enum class GapWay { above, inboard, outboard, ahead, behind };

enum class GapAt { straight, lock };

/// What an obstacle is bolted to, so that both may touch: what of the end's own it is never looked at against.
enum class BoltedTo { nothing, damper, arms, axle };

/// Was it on the car when that was surveyed? What came since is never excused for overlapping.
enum class OnCar { as_surveyed, since };

struct Corner {
  Readings mass;               // kg on the scale
  Readings height;             // m, hub centre to arch lip
  std::optional<double> floor; // m, floor under this wheel above any common datum
  Extra extra;
  friend bool operator==(const Corner&, const Corner&) = default;
};

/// A gap that somebody wants followed through the travel, at one step of it.
struct CycleGap {
  std::string name; // `tyre to liner`
  double value = 0; // m; negative where things overlap
  Extra extra;
  friend bool operator==(const CycleGap&, const CycleGap&) = default;
};

/// One step of jacking a wheel through its travel with the spring out.
struct CycleRow {
  double height = 0.35;                 // m, H
  std::optional<double> spring, damper; // m, seat to seat and eye to eye
  std::optional<double> camber, toe;    // rad, top outward and toe-in positive
  std::vector<CycleGap> gaps;
  Extra extra;
  friend bool operator==(const CycleRow&, const CycleRow&) = default;
};

/// The place of one joint: m, x forward, y left, z up, from the middle of the axle on the ground, with the car as
/// surveyed.
struct HardPoint {
  std::string name; // `lower_front`; which there are is the layout's
  double x = 0, y = 0, z = 0;
  std::optional<double> turn_allowed; // rad, what the joint bears either way from where it stands
  Extra extra;
  friend bool operator==(const HardPoint&, const HardPoint&) = default;
};

/// What carries an end of a spring or damper. `usual`: what the layout and the spring's seat say.
enum class Carrier { usual, body, upright, lower_arm, upper_arm, arm, link1, link2, link3, link4, link5, axle };

/// The joints of one end.
struct HardPoints {
  List<HardPoint> left;  // empty: not taken
  List<HardPoint> right; // only those that are no mirror image of the left; y negative
  Carrier spring_top = Carrier::usual, spring_foot = Carrier::usual;
  Carrier damper_top = Carrier::usual, damper_foot = Carrier::usual;
  std::optional<double> camber, toe; // rad as it stands, top outward and toe-in positive
  std::optional<double> lock;        // rad, how far the wheels are steered either way
  Extra extra;
  friend bool operator==(const HardPoints&, const HardPoints&) = default;
};

/// The link between the anti-roll bar's arm and what moves with the wheel, as it stands.
struct BarLink {
  std::optional<double> arm;          // m, bar's axis to the link's joint
  std::optional<double> arm_angle;    // rad, that joint above the bar's axis positive
  std::optional<double> length;       // m, joint to joint
  double pickup_ratio = 1;            // m that its lower joint drops for a metre of H
  std::optional<double> turn_allowed; // rad, what its joints bear either way from square
  Extra extra;
  friend bool operator==(const BarLink&, const BarLink&) = default;
};

/// A brake hose from the body to the upright, as it stands.
struct BrakeHose {
  std::optional<double> length;       // m, free between its ends
  std::optional<double> across, down; // m, from the body's end to the wheel's: level, and downwards
  double lock_adds = 0;               // m further apart at full lock
  Extra extra;
  friend bool operator==(const BrakeHose&, const BrakeHose&) = default;
};

/// A drive shaft, or the propeller shaft of a solid axle, as it stands.
struct Shaft {
  std::optional<double> across, down;          // m, from the inner (gearbox) joint to the outer: level, and downwards
  std::optional<double> turn_allowed;          // rad, what its joints bear
  std::optional<double> plunge_in, plunge_out; // m, what it may shorten and lengthen by
  double flange_angle = 0;           // rad, the outer flange's own axis, nose up positive: a solid axle's pinion
  std::optional<double> inner_angle; // rad, the inner (gearbox) flange's own axis, nose up positive; level when absent
  Extra extra;
  friend bool operator==(const Shaft&, const Shaft&) = default;
};

/// Something near the left wheel, bag, damper or arms that they must not meet. Places as for joints, with the car as
/// surveyed.
struct Obstacle {
  std::string name;
  ObstacleKind kind = ObstacleKind::metal;
  ObstacleShape shape = ObstacleShape::gap;
  Carrier fixed_to = Carrier::usual; // moves as this does; `usual`: the body
  BoltedTo bolted_to = BoltedTo::nothing;
  OnCar on_car = OnCar::as_surveyed;
  // A taped gap:
  GapFrom gap_from = GapFrom::tyre;
  GapWay gap_way = GapWay::above;
  GapAt gap_at = GapAt::straight;
  std::optional<double> gap, gap_height; // m; H it was taped at, the surveyed one when absent
  // A solid:
  double x = 0, y = 0.6, z = 0.4;          // m, a place of the plane, the box's middle, one end of a rod or edge
  double to_x = 0, to_y = 0.7, to_z = 0.4; // m, a place in free space square off the plane; the other end
  double size_x = 0.05, size_y = 0.05, size_z = 0.05; // m, of a box
  double turn = 0;                                    // rad, of a box about z, left positive
  double radius = 0.01;                               // m, of a rod
  std::optional<double> room;                         // m wanted; what its kind asks for when absent
  Extra extra;
  friend bool operator==(const Obstacle&, const Obstacle&) = default;
};

/// The wheel arch's lip over the left hub, as surveyed.
struct Arch {
  std::optional<double> lip_outward; // m, its inner edge outboard of the hub face
  Extra extra;
  friend bool operator==(const Arch&, const Arch&) = default;
};

/// How thick the parts are that the joints are the middle of.
struct Thickness {
  double damper = 0.050; // m across its body
  double arms = 0.035;   // m across arms, links and rods
  double axle = 0.076;   // m across a solid axle's tube
  Extra extra;
  friend bool operator==(const Thickness&, const Thickness&) = default;
};

/// One axle as it was found. Entered once, it holds for both sides.
struct EndSurvey {
  Layout layout = Layout::strut;
  SpringPlace spring_place = SpringPlace::around_damper;
  SpringSeat spring_seat = SpringSeat::upright;
  std::array<Corner, 2> corners;       // left, right
  std::optional<double> unsprung_mass; // kg a corner; estimated from the layout when absent
  std::optional<double> track;         // m
  std::optional<double> rating;        // kg, the axle's
  std::string wheel;                   // tyre and wheel code
  Readings motion_ratio;               // d(spring length)/dH
  Readings damper_ratio;  // d(damper length)/dH; the spring's when absent and the spring is around the damper
  Readings spring_length; // m seat to seat at the surveyed height
  Readings damper_length; // m eye to eye at the surveyed height
  Readings damper_open, damper_shut; // m, fully out and fully in
  Readings bump_stop_gap;            // m free before the stop meets, at the surveyed height
  StopPlace bump_stop_place = StopPlace::damper;
  double bump_stop_give = 0.015;            // m at the wheel from where the stop meets to where it gives no more
  std::optional<double> bag_room;           // m, free diameter around the bag's axis
  std::optional<double> other_spring_rate;  // N/m at the wheel, springs that stay in place
  std::optional<double> other_spring_slack; // m, height H at which they go slack
  std::optional<double> tyre_rate;          // N/m, one tyre against the road; a usual one when absent
  double friction = 120;                    // N at the wheel, bushes and seals together
  std::optional<double> bar_rate;           // N·m/rad, the anti-roll bar at the axle; none when absent
  std::optional<double> roll_centre;        // m above the road; estimated from the layout when absent
  std::optional<double> spring_base;        // m between left and right spring of a solid axle; estimated when absent
  List<CycleRow> cycle;                     // in any order, heights may repeat; empty: no sheet was taken
  List<CycleRow> cycle_right;               // the right side's own, where it differs
  Shared<HardPoints> points;
  BarLink bar_link;
  BrakeHose hose;
  Shaft shaft;
  std::optional<double> tyre_width; // m across the tyre as mounted; by its code when absent
  List<Obstacle> obstacles;
  Arch arch;
  Thickness thickness;
  std::optional<double> legal_height; // m, H below which the law lets nobody drive it
  Extra extra;
  friend bool operator==(const EndSurvey&, const EndSurvey&) = default;
};

template <>
const Table& table_of<Corner>();
template <>
const Table& table_of<CycleGap>();
template <>
const Table& table_of<CycleRow>();
template <>
const Table& table_of<HardPoint>();
template <>
const Table& table_of<HardPoints>();
template <>
const Table& table_of<BarLink>();
template <>
const Table& table_of<BrakeHose>();
template <>
const Table& table_of<Shaft>();
template <>
const Table& table_of<Obstacle>();
template <>
const Table& table_of<Arch>();
template <>
const Table& table_of<Thickness>();
template <>
const Table& table_of<EndSurvey>();

} // namespace mavrel::build
