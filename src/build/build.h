// The document: one car, what is wanted of it, and the designs tried for it. A plain value; copying is cheap
// (its large parts are shared until changed), undo keeps old values. All numbers SI; its file form is promised in
// docs/formats/build.md.
#pragma once

#include "build/air_kit.h"
#include "build/care.h"
#include "build/doubts.h"
#include "build/faults.h"
#include "build/fit_up.h"
#include "build/leveling.h"
#include "build/proving.h"

namespace mavrel::build {

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
/// What a taped gap was held to, where the obstacle lies from it, and how the wheels stood.
enum class GapFrom { tyre, bag };
enum class GapWay { above, inboard, outboard, ahead, behind };
enum class GapAt { straight, lock };
enum class BodyStyle { estate, hatchback, saloon, coupe, van, pickup };

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
  double flange_angle = 0; // rad, the outer flange's own axis, nose up positive: a solid axle's pinion
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

/// A low place of the underside, with the car as surveyed.
struct LowPoint {
  std::string name;       // `pan front`
  double x = 0, z = 0.15; // m behind the front axle, m above the floor
  Extra extra;
  friend bool operator==(const LowPoint&, const LowPoint&) = default;
};

/// The space behind the seats, as a box; its middle is the car's.
struct Boot {
  std::optional<double> from, floor;           // m: its front behind the front axle, its floor above the road
  std::optional<double> length, width, height; // m
  Extra extra;
  friend bool operator==(const Boot&, const Boot&) = default;
};

/// The spare wheel's well, a round one.
struct Well {
  std::optional<double> x, y, bottom;    // m: its middle behind the front axle and left; its bottom above the road
  std::optional<double> diameter, depth; // m
  Extra extra;
  friend bool operator==(const Well&, const Well&) = default;
};

enum class Shielded { no, yes };

/// Something hot under the car, as a round rod.
struct HotPart {
  std::string name;                         // `silencer`
  double x = 2.5, y = 0, z = 0.25;          // m behind the front axle, left, above the road: one end
  double to_x = 3.2, to_y = 0, to_z = 0.25; // the other
  double radius = 0.03;                     // m
  Shielded shielded = Shielded::no;
  Extra extra;
  friend bool operator==(const HotPart&, const HotPart&) = default;
};

struct Body {
  BodyStyle style = BodyStyle::estate;
  std::optional<double> wheelbase, front_overhang, rear_overhang, overall_height, sill_height; // m
  std::optional<double> rating;                                                                // kg, the whole car's
  std::optional<double> gravity_height; // m above the road, of the sprung body; estimated when absent
  List<LowPoint> underside;             // from front to rear, or in any order
  Boot boot;
  Well well;
  List<HotPart> hot;
  Extra extra;
  friend bool operator==(const Body&, const Body&) = default;
};

struct LoadMass {
  std::string name;
  double mass = 0; // kg, added to the surveyed car; negative for what comes off
  double x = 0;    // m behind the front axle
  double y = 0;    // m left of the middle
  Extra extra;
  std::optional<double> z = std::nullopt; // m above the road; at the body's own height of gravity when absent
  friend bool operator==(const LoadMass&, const LoadMass&) = default;
};

struct LoadCase {
  std::string name;
  std::vector<LoadMass> masses;
  Extra extra;
  friend bool operator==(const LoadCase&, const LoadCase&) = default;
};

/// A height somebody wants, in the words they want it in.
struct HeightWish {
  enum class As { height, gap, drop };
  As as = As::height;
  double value = 0; // m: H itself, top of tyre to arch, or below the surveyed height
  Extra extra;
  friend bool operator==(const HeightWish&, const HeightWish&) = default;
};

/// What a preset is for decides the window it must lie in.
enum class PresetUse { parked, road, ramp, other };

struct Preset {
  std::string name;
  PresetUse use = PresetUse::other;
  std::array<std::optional<HeightWish>, 2> wish; // front, rear
  Extra extra;
  friend bool operator==(const Preset&, const Preset&) = default;
};

/// Room that each kind of thing asks for, m.
struct Rooms {
  double tyre = 0.006, metal = 0.005, hose = 0.010, brake_line = 0.010; // the bag's own is `bag_clearance`
  double exhaust = 0.060, shielded_exhaust = 0.030;                     // for everything near, not only the bag
  double tyre_growth = 0.003;                                           // m that a tyre grows and squirms by all over
  Extra extra;
  friend bool operator==(const Rooms&, const Rooms&) = default;
};

struct ProfilePoint {
  double x = 0, z = 0; // m along the way and above the road before it
  Extra extra;
  friend bool operator==(const ProfilePoint&, const ProfilePoint&) = default;
};

/// Something on the ground that the car must get over.
struct Ground {
  std::string name;                 // `harbour ramp`
  PresetUse over = PresetUse::ramp; // at which heights
  double margin = 0.010;            // m kept under the car
  std::vector<ProfilePoint> points; // rising in x; flat beyond
  Extra extra;
  friend bool operator==(const Ground&, const Ground&) = default;
};

struct Brief {
  std::vector<Preset> presets;
  double bump_travel = 0.045;        // m kept below road height
  double rebound_reserve = 0.030;    // m kept above it
  double bag_margin = 0.006;         // m above the collapsed bag when the outside stop meets
  double bag_clearance = 0.012;      // m around the bag
  double road_pressure_share = 0.70; // of the bag's maximum, on the road
  double frequency_low = 1.0;        // Hz, body frequency wanted
  double frequency_high = 1.5;       // Hz
  double rear_quicker_low = 0.10;    // rear over front body frequency, less 1
  double rear_quicker_high = 0.20;
  double exponent = 1.38;                   // n for a wheel over a bump
  double settle_speed = 25;                 // m/s, at which the car is to settle flat after a bump
  double gauge_error = 1e4;                 // Pa, either way
  double load_doubt = 10;                   // kg a corner, either way
  double lean_wanted = 0.05235987755982988; // rad, most lean at 0.3 g
  std::string notes;
  Rooms rooms;
  List<Ground> grounds;
  AirWishes air;
  Extra extra;
  friend bool operator==(const Brief&, const Brief&) = default;
};

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

struct Variant {
  std::string name;
  std::array<EndFit, 2> fit; // front, rear
  Brief brief;
  AirKit air;
  Leveling leveling;
  Extra extra;
  Shared<FitUp> fit_up = {};
  Shared<Proving> proving = {};
  friend bool operator==(const Variant&, const Variant&) = default;
};

struct Job {
  std::string car, number, owner, shop, notes;
  std::string platform; // what cars alike are found by: `Sorrel Wayfare`
  Extra extra;
  friend bool operator==(const Job&, const Job&) = default;
};

struct Surroundings {
  double altitude = 0;                // m
  double temperature = 293.15;        // K
  double night_temperature = 269.15;  // K, of a frosty morning
  double shut_off_above = 15;         // K, a worked bag's air above the air around when the valves are shut
  double pass_altitude = 1800;        // m, of the highest road
  double worked_temperature = 323.15; // K, of the air in a bag after a hard hour
  double humidity = 0.65;             // relative, of the air that is taken in
  Extra extra;
  friend bool operator==(const Surroundings&, const Surroundings&) = default;
};

struct Build {
  Job job;
  Body body;
  PerEnd<EndSurvey> ends;
  List<LoadCase> load_cases;
  List<Variant> variants{Variant{"A", {}, {}, {}, {}, {}}}; // never empty
  std::size_t active_variant = 0;                           // inside `variants`
  Surroundings surroundings;
  Drive drive;
  Shared<Shop> shop;
  Shared<Care> care;
  Shared<Origin> origin;
  Shared<Faults> faults;
  Doubts doubts;
  Extra extra;

  [[nodiscard]] const EndSurvey& end(End e) const { return ends[e]; }
  [[nodiscard]] EndSurvey& end(End e) { return ends[e]; }
  [[nodiscard]] const Variant& variant() const { return variants[active_variant]; }
  [[nodiscard]] Variant& variant() { return variants[active_variant]; }
  friend bool operator==(const Build&, const Build&) = default;
};

/// A build with nothing measured: one load case as surveyed, parked, road and ramp still to be wished for.
[[nodiscard]] Build empty_build();

} // namespace mavrel::build
