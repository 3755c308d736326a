// Fit-up in the document: the shop, what it says of the plan's jobs and checks, what is cut and bought, the plates, and
// the ways that lines take.
#pragma once

#include "build/air_kit.h"
#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_people = 12, most_days_off = 60, most_habits = 30, most_stock = 80, most_learned = 120;
constexpr std::size_t most_often = 80;
constexpr std::size_t most_job_notes = 240, most_hold_checks = 120, most_check_figures = 40;
constexpr std::size_t most_routes = 24, most_way_points = 24, most_part_notes = 120;

// ---- the shop

/// Where a job is done. `usual`: where the rule says.
enum class WorkPlace { usual, none, lift, floor, bench, weld_bay, paint };
/// What somebody must be able to do.
enum class Skill { none, welding, wiring, paint };

struct ShopPerson {
  std::string name;
  YesNo welds = YesNo::no, wires = YesNo::no, paints = YesNo::no;
  Extra extra;
  friend bool operator==(const ShopPerson&, const ShopPerson&) = default;
};

/// Days that are not worked, both included: `2026-12-24`.
struct DaysOff {
  std::string who; // a person's name; empty: the whole shop
  std::string from, to;
  std::string why;
  Extra extra;
  friend bool operator==(const DaysOff&, const DaysOff&) = default;
};

/// What of a design asks for a job; `always` nothing in particular.
enum class Feature {
  always,
  strut,
  apart,         // a spring by itself
  beside_damper, // welded brackets, the damper away from the spring
  welded,        // brackets are welded at this end
  bolted,        // nothing is
  links,         // links are made
  notch,         // a rail is notched
  thin_plate,    // a thin upper plate
  thick_mount,   // a thicker upper mount
  axle_swap,     // an axle that was on leaves
  solid_axle,
  drop_spindle, // another upright
  seat_moved,   // the spring's seat on the damper's body
  other_damper,
  added_volume,
  arch_rolled,
  other_wheel,
  sensors,     // heights are read
  steers,      // the front end
  bag,         // a bag is chosen
  near_things, // something lies near that is listed
  hot,         // something hot is
  kit,         // an air kit
  hand_valves,
  controller, // valves are worked by one
  by_height,  // heights are kept by sensors
  two_compressors,
  shown_kit,
  kit_first,  // the kit goes in before the suspension
  unmeasured, // the car's heights are not known yet
};

/// A habit of the shop: a job it does wherever the design has something.
struct ShopHabit {
  std::string name;
  Feature when = Feature::always;
  double hours = 1800; // s
  double people = 1;
  Skill skill = Skill::none;
  WorkPlace place = WorkPlace::none;
  double wait = 0;    // s
  std::string after;  // keys of rules, with commas: `cycle`
  std::string before; // the same
  std::string why;
  Extra extra;
  friend bool operator==(const ShopHabit&, const ShopHabit&) = default;
};

/// What is left of bars, tubes, lines: for this car or the next.
struct StockPiece {
  std::string what;  // as the cut list calls its stock
  double length = 1; // m
  double count = 1;
  std::string from; // which car it is left of
  Extra extra;
  friend bool operator==(const StockPiece&, const StockPiece&) = default;
};

/// How long a rule's job takes in this shop, by what it took.
struct LearnedHours {
  std::string rule;    // key of a rule: `tack`
  double hours = 3600; // s, mean
  double times = 1;    // that it was taken from
  Extra extra;
  friend bool operator==(const LearnedHours&, const LearnedHours&) = default;
};

/// How often a fault is in this shop: instead of what is usual, and counted on top.
struct FaultOften {
  std::string cause;           // `pinched`
  std::optional<double> often; // parts of all faults; the usual when absent
  double found = 0;            // times that the shop found it
  Extra extra;
  friend bool operator==(const FaultOften&, const FaultOften&) = default;
};

struct Shop {
  std::string first_day;                              // `2026-11-30`; empty: the plan counts days
  double day_from = 8 * 3600.0, day_to = 17 * 3600.0; // s after midnight
  YesNo saturdays = YesNo::no, sundays = YesNo::no;
  std::vector<ShopPerson> people{{"Builder", YesNo::yes, YesNo::yes, YesNo::yes, {}},
                                 {"Helper", YesNo::no, YesNo::no, YesNo::no, {}}};
  double lifts = 1, floors = 1, benches = 1, weld_bays = 1, paint_places = 1; // jobs at once
  std::vector<DaysOff> days_off;
  std::vector<ShopHabit> habits;
  std::vector<LearnedHours> learned;
  std::vector<FaultOften> faults;
  double hour_price = 0;                         // in the shop's money
  std::string money = "";                        // how that is called
  double kerf = 0.003;                           // m that the saw takes
  double tube_bar = 6, strip_bar = 3, coil = 20; // m: new tube, new flat strip, new line or cable
  std::vector<StockPiece> stock;
  Extra extra;
  friend bool operator==(const Shop&, const Shop&) = default;
};

// ---- the plan of one design

enum class JobState { open, running, done, skipped };

/// What the shop says of one job: of one that the design asks for by its id, else a job of its own.
struct JobNote {
  std::string id;   // `rear.tack`; of own jobs `own.3`
  std::string name; // of an own job
  JobState state = JobState::open;
  std::optional<double> hours, wait; // s, instead of the rule's
  std::optional<double> people;
  WorkPlace place = WorkPlace::usual;
  std::string after;          // ids, with commas, instead of the rule's; `-`: after nothing
  std::string not_before;     // day
  std::string began, ended;   // `2026-11-30 10:30`
  std::optional<double> took; // s of work
  std::string who;            // one of the shop, with commas
  std::string reason;         // why it is skipped, or what held it
  std::string taken_by;       // who went on although something before it was missing; empty: nobody had to
  std::string taken_why;      // and why
  Extra extra;
  friend bool operator==(const JobNote&, const JobNote&) = default;
};

/// A figure of a check: measured on the car, and what the design said when it was signed.
struct CheckFigure {
  std::string what;
  std::optional<double> length, angle, pressure, number, time;                     // measured: m, rad, Pa, 1, s
  std::optional<double> was_length, was_angle, was_pressure, was_number, was_time; // said by the design
  std::optional<double> was_least, was_most; // what was right then, in the figure's own SI unit
  Extra extra;
  friend bool operator==(const CheckFigure&, const CheckFigure&) = default;
};
enum class CheckResult { open, passed, failed };
/// A hold point as it was checked. Its digest is of all that its figures were worked out from.
struct HoldCheck {
  std::string check; // `rear.angles`
  CheckResult result = CheckResult::open;
  std::string by, day;             // who signed it, and when: `2026-12-01 15:20`
  std::string taken_by, taken_why; // who signed it although something before it was missing, and why
  std::string digest;
  double formula = 1; // of the arithmetic then
  std::string notes;
  std::vector<CheckFigure> figures;
  Extra extra;
  friend bool operator==(const HoldCheck&, const HoldCheck&) = default;
};

// ---- plates and brackets of one end

/// How a plate is held. `usual`: as the layout has it.
enum class Fixing { usual, bolted, welded };

struct PlateFit {
  Fixing upper = Fixing::usual, lower = Fixing::usual;
  double thickness = 0.008;       // m
  std::optional<double> diameter; // m of the round plate; by the bag's when absent
  // By the bag's card when absent.
  std::optional<double> bolts;               // on the bag's own circle
  std::optional<double> bolt_circle;         // m
  std::optional<double> bolt_hole;           // m
  std::optional<double> port_hole;           // m; 0: none
  std::optional<double> port_out, port_turn; // m from the bag's axis; rad from outboard, towards the front positive
  double gusset_height = 0.060, gusset_length = 0.050, gusset_thickness = 0.005; // m; height 0: none
  double gussets = 2;                                                            // a bracket
  double bracket_leg = 0.070;                                // m from the bag's plate to what it is welded to
  double bracket_width = 0.080;                              // m
  double bend_radius = 0.008;                                // m inside, of a folded bracket
  double studs = 3, stud_circle = 0.110, stud_hole = 0.0105; // of a strut's upper mount
  double bearing_hole = 0.062;                               // m, of its middle
  std::optional<double> rail_height;                         // m, of a rail that is notched
  double links = 0;                                          // how many a side are made; 0: none
  double tube_outer = 0.038, tube_wall = 0.004;              // m, of the links' tube
  double weld_gap = 0.002;                                   // m at each end of a tube
  Extra extra;
  friend bool operator==(const PlateFit&, const PlateFit&) = default;
};

// ---- routes

enum class WayKind { clip, grommet, bulkhead, free };
struct WayPoint {
  std::string name;
  WayKind kind = WayKind::clip;
  double x = 1, y = 0, z = 0.3; // m behind the front axle, left of the middle, above the road
  double bend = 0;              // m, radius it is laid round with there; 0: as the line bends at least
  Extra extra;
  friend bool operator==(const WayPoint&, const WayPoint&) = default;
};
enum class RouteRuns { inside, under };
/// The way of one line or cable, from its first end to its second by the points between.
struct Route {
  std::string line; // `feed`, `front_left`, `power`
  RouteRuns runs = RouteRuns::under;
  std::vector<WayPoint> points;
  std::optional<double> slack; // m for travel, lock and making the ends; usual when absent
  Extra extra;
  friend bool operator==(const Route&, const Route&) = default;
};

// ---- buying

/// What the shop knows of a part on the parts list.
struct PartNote {
  std::string part;                    // as the list calls it
  double on_shelf = 0;                 // how many, or m of what comes by length
  std::optional<double> price;         // each, in the shop's money; the card's when absent
  std::optional<double> lead;          // s from ordering until it is there
  std::string ordered;                 // day it was ordered; empty: not yet
  std::optional<double> ordered_count; // how many were, or m of it; as many as are needed and not there when absent
  std::string supplier;
  Extra extra;
  friend bool operator==(const PartNote&, const PartNote&) = default;
};

enum class OrderSchool { suspension_first, kit_first };
enum class KitShown { hidden, shown };
enum class HandsetBy { cable, radio };

struct FitUp {
  OrderSchool order = OrderSchool::suspension_first;
  KitShown shown = KitShown::hidden;
  HandsetBy handset = HandsetBy::cable;
  PartPlace controller_at{2.2, 0.3, 0.55, PartRoom::cabin, PartHeld::hard, PartLies::across, {}};
  PartPlace handset_at{1.6, 0.3, 0.80, PartRoom::cabin, PartHeld::hard, PartLies::across, {}};
  YesNo metal_box = YesNo::no;    // is the controller behind sheet metal?
  std::array<PlateFit, 2> plates; // front, rear
  std::vector<JobNote> jobs;
  std::vector<HoldCheck> checks;
  std::vector<Route> routes;
  std::vector<PartNote> parts;
  Extra extra;
  friend bool operator==(const FitUp&, const FitUp&) = default;
};

template <>
const Table& table_of<ShopPerson>();
template <>
const Table& table_of<DaysOff>();
template <>
const Table& table_of<ShopHabit>();
template <>
const Table& table_of<StockPiece>();
template <>
const Table& table_of<LearnedHours>();
template <>
const Table& table_of<FaultOften>();
template <>
const Table& table_of<Shop>();
template <>
const Table& table_of<JobNote>();
template <>
const Table& table_of<CheckFigure>();
template <>
const Table& table_of<HoldCheck>();
template <>
const Table& table_of<PlateFit>();
template <>
const Table& table_of<WayPoint>();
template <>
const Table& table_of<Route>();
template <>
const Table& table_of<PartNote>();
template <>
const Table& table_of<FitUp>();

} // namespace mavrel::build
