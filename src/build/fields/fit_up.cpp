// The shop and Fit-up.
#include "build/fields/maker.h"

#include "build/fit_up.h"
#include "build/names_fit_up.h"

namespace mavrel::build {

static void fields(TableMaker& v, ShopPerson& p) {
  v.text("name", p.name, words("name"), 40);
  v.choice("welds", p.welds, words("welds"));
  v.choice("wires", p.wires, words("wires"));
  v.choice("paints", p.paints, words("paints"));
  v.extra(p.extra);
}

static void fields(TableMaker& v, DaysOff& d) {
  v.text("who", d.who, words("who is off"), 40);
  v.text("from", d.from, words("off from"), 10);
  v.text("to", d.to, words("off to"), 10);
  v.text("why", d.why, words("why"), 80);
  v.extra(d.extra);
}

static void fields(TableMaker& v, ShopHabit& h) {
  v.text("name", h.name, words("job"), 80);
  v.choice("when", h.when, words("wherever there is"));
  v.number("hours_s", h.hours, {Kind::hours, 0, 3.6e6, words("takes")});
  v.number("people", h.people, {Kind::plain, 0, 12, words("people")});
  v.choice("skill", h.skill, words("skill"));
  v.choice("place", h.place, words("place"));
  v.number("wait_s", h.wait, {Kind::hours, 0, 3.6e6, words("wait after it")});
  v.text("after", h.after, words("after"), 200);
  v.text("before", h.before, words("before"), 200);
  v.text("why", h.why, words("why"), 200);
  v.extra(h.extra);
}

static void fields(TableMaker& v, StockPiece& s) {
  v.text("what", s.what, words("stock"), 80);
  v.number("length_m", s.length, {Kind::length, 0.001, 100, words("length")});
  v.number("count", s.count, {Kind::plain, 1, 500, words("how many")});
  v.text("from", s.from, words("left of"), 80);
  v.extra(s.extra);
}

static void fields(TableMaker& v, LearnedHours& l) {
  v.text("rule", l.rule, words("job"), 60);
  v.number("hours_s", l.hours, {Kind::hours, 0, 3.6e6, words("takes")});
  v.number("times", l.times, {Kind::plain, 1, 1e4, words("times taken")});
  v.extra(l.extra);
}

static void fields(TableMaker& v, FaultOften& f) {
  v.text("cause", f.cause, words("fault"), 40);
  v.number("often", f.often, {Kind::plain, 0, 1000, words("how often")});
  v.number("found", f.found, {Kind::plain, 0, 1e5, words("times found")});
  v.extra(f.extra);
}

static void fields(TableMaker& v, Shop& s) {
  v.text("first_day", s.first_day, words("first day"), 10);
  v.number("day_from_s", s.day_from, {Kind::hours, 0, 82800, words("work begins at")});
  v.number("day_to_s", s.day_to, {Kind::hours, 3600, 86400, words("work ends at")});
  v.choice("saturdays", s.saturdays, words("Saturdays"));
  v.choice("sundays", s.sundays, words("Sundays"));
  v.list("people", s.people, words("person"), 1, most_people);
  v.number("lifts", s.lifts, {Kind::plain, 0, 12, words("jobs at once on the lift")});
  v.number("floors", s.floors, {Kind::plain, 0, 12, words("jobs at once on the floor")});
  v.number("benches", s.benches, {Kind::plain, 0, 12, words("jobs at once at the bench")});
  v.number("weld_bays", s.weld_bays, {Kind::plain, 0, 12, words("jobs at once at the welder")});
  v.number("paint_places", s.paint_places, {Kind::plain, 0, 12, words("jobs at once in paint")});
  v.list("days_off", s.days_off, words("day off"), 0, most_days_off);
  v.list("habits", s.habits, words("habit"), 0, most_habits);
  v.list("learned", s.learned, words("learned time"), 0, most_learned);
  v.list("faults", s.faults, words("fault of the shop"), 0, most_often);
  v.number("hour_price", s.hour_price, {Kind::plain, 0, 1e5, words("price per hour")});
  v.text("money", s.money, words("money"), 12);
  v.number("kerf_m", s.kerf, {Kind::length, 0, 0.02, words("saw's kerf")});
  v.number("tube_bar_m", s.tube_bar, {Kind::length, 0.3, 20, words("bar of tube")});
  v.number("strip_bar_m", s.strip_bar, {Kind::length, 0.3, 20, words("bar of flat")});
  v.number("coil_m", s.coil, {Kind::length, 1, 500, words("coil of line or cable")});
  v.list("stock", s.stock, words("leftover"), 0, most_stock);
  v.extra(s.extra);
}

static void fields(TableMaker& v, JobNote& j) {
  v.text("id", j.id, words("job"), 60);
  v.text("name", j.name, words("job"), 80);
  v.choice("state", j.state, words("state"));
  v.number("hours_s", j.hours, {Kind::hours, 0, 3.6e6, words("takes")});
  v.number("wait_s", j.wait, {Kind::hours, 0, 3.6e6, words("wait after it")});
  v.number("people", j.people, {Kind::plain, 0, 12, words("people")});
  v.choice("place", j.place, words("place"));
  v.text("after", j.after, words("after"), 400);
  v.text("not_before", j.not_before, words("not before"), 10);
  v.text("began", j.began, words("began"), 16);
  v.text("ended", j.ended, words("ended"), 16);
  v.number("took_s", j.took, {Kind::hours, 0, 3.6e6, words("took")});
  v.text("who", j.who, words("who"), 120);
  v.text("reason", j.reason, words("reason"), 200);
  v.text("taken_by", j.taken_by, words("taken on by"), 40);
  v.text("taken_why", j.taken_why, words("taken on because"), 200);
  v.extra(j.extra);
}

static void fields(TableMaker& v, CheckFigure& f) {
  v.text("what", f.what, words("figure"), 80);
  v.number("length_m", f.length, {Kind::length, -3, 10, words("measured")});
  v.number("angle_rad", f.angle, {Kind::angle, -3.15, 3.15, words("measured")});
  v.number("pressure_pa", f.pressure, {Kind::pressure, -1e5, 4e6, words("measured")});
  v.number("number", f.number, {Kind::plain, -1e6, 1e6, words("measured")});
  v.number("time_s", f.time, {Kind::time, 0, 1e6, words("measured")});
  v.number("was_length_m", f.was_length, {Kind::length, -3, 10, words("designed")});
  v.number("was_angle_rad", f.was_angle, {Kind::angle, -3.15, 3.15, words("designed")});
  v.number("was_pressure_pa", f.was_pressure, {Kind::pressure, -1e5, 4e6, words("designed")});
  v.number("was_number", f.was_number, {Kind::plain, -1e6, 1e6, words("designed")});
  v.number("was_time_s", f.was_time, {Kind::time, 0, 1e6, words("designed")});
  v.number("was_least_si", f.was_least, {Kind::plain, -1e7, 1e7, words("least that was right")});
  v.number("was_most_si", f.was_most, {Kind::plain, -1e7, 1e7, words("most that was right")});
  v.extra(f.extra);
}

static void fields(TableMaker& v, HoldCheck& c) {
  v.text("check", c.check, words("check"), 60);
  v.choice("result", c.result, words("result"));
  v.text("by", c.by, words("signed by"), 40);
  v.text("day", c.day, words("signed on"), 16);
  v.text("taken_by", c.taken_by, words("taken on by"), 40);
  v.text("taken_why", c.taken_why, words("taken on because"), 200);
  v.text("digest", c.digest, words("what it was made on"), 40);
  v.number("formula", c.formula, {Kind::plain, 1, 1000, words("arithmetic")});
  v.text("notes", c.notes, words("notes"), 400);
  v.list("figures", c.figures, words("figure"), 0, most_check_figures);
  v.extra(c.extra);
}

static void fields(TableMaker& v, PlateFit& p) {
  v.choice("upper", p.upper, words("upper plate is"));
  v.choice("lower", p.lower, words("lower plate is"));
  v.number("thickness_m", p.thickness, {Kind::length, 0.001, 0.04, words("plate's thickness")});
  v.number("diameter_m", p.diameter, {Kind::length, 0.03, 0.5, words("plate's diameter")});
  v.number("bolts", p.bolts, {Kind::plain, 0, 16, words("bag's bolts")});
  v.number("bolt_circle_m", p.bolt_circle, {Kind::length, 0.01, 0.4, words("bag's bolt circle")});
  v.number("bolt_hole_m", p.bolt_hole, {Kind::length, 0.002, 0.05, words("bolt hole")});
  v.number("port_hole_m", p.port_hole, {Kind::length, 0, 0.08, words("port's hole")});
  v.number("port_out_m", p.port_out, {Kind::length, 0, 0.2, words("port from the axis")});
  v.number("port_turn_rad", p.port_turn, {Kind::angle, -3.15, 3.15, words("port's direction from outboard")});
  v.number("gusset_height_m", p.gusset_height, {Kind::length, 0, 0.4, words("gusset's height")});
  v.number("gusset_length_m", p.gusset_length, {Kind::length, 0.005, 0.4, words("gusset's length")});
  v.number("gusset_thickness_m", p.gusset_thickness, {Kind::length, 0.001, 0.02, words("gusset's thickness")});
  v.number("gussets", p.gussets, {Kind::plain, 0, 8, words("gussets a bracket")});
  v.number("bracket_leg_m", p.bracket_leg, {Kind::length, 0.01, 0.4, words("bracket's leg")});
  v.number("bracket_width_m", p.bracket_width, {Kind::length, 0.01, 0.4, words("bracket's width")});
  v.number("bend_radius_m", p.bend_radius, {Kind::length, 0, 0.05, words("inner bend radius")});
  v.number("studs", p.studs, {Kind::plain, 1, 8, words("mount's studs")});
  v.number("stud_circle_m", p.stud_circle, {Kind::length, 0.03, 0.4, words("studs' circle")});
  v.number("stud_hole_m", p.stud_hole, {Kind::length, 0.002, 0.05, words("stud hole")});
  v.number("bearing_hole_m", p.bearing_hole, {Kind::length, 0.005, 0.2, words("bearing's hole")});
  v.number("rail_height_m", p.rail_height, {Kind::length, 0.02, 0.4, words("rail's height")});
  v.number("links", p.links, {Kind::plain, 0, 4, words("links a side")});
  v.number("tube_outer_m", p.tube_outer, {Kind::length, 0.01, 0.12, words("links' tube")});
  v.number("tube_wall_m", p.tube_wall, {Kind::length, 0.001, 0.02, words("its wall")});
  v.number("weld_gap_m", p.weld_gap, {Kind::length, 0, 0.01, words("root gap")});
  v.extra(p.extra);
}

static void fields(TableMaker& v, WayPoint& p) {
  v.text("name", p.name, words("point"), 40);
  v.choice("kind", p.kind, words("held by"));
  v.number("x_m", p.x, {Kind::length, -3, 9, words("behind the front axle")});
  v.number("y_m", p.y, {Kind::length, -1.5, 1.5, words("left of the middle")});
  v.number("z_m", p.z, {Kind::length, 0, 2.5, words("above the road")});
  v.number("bend_m", p.bend, {Kind::length, 0, 1, words("bent round")});
  v.extra(p.extra);
}

static void fields(TableMaker& v, Route& r) {
  v.text("line", r.line, words("line"), 40);
  v.choice("runs", r.runs, words("runs"));
  v.list("points", r.points, words("point"), 0, most_way_points);
  v.number("slack_m", r.slack, {Kind::length, 0, 3, words("slack")});
  v.extra(r.extra);
}

static void fields(TableMaker& v, PartNote& p) {
  v.text("part", p.part, words("part"), 120);
  v.number("on_shelf", p.on_shelf, {Kind::plain, 0, 1e4, words("on the shelf")});
  v.number("price", p.price, {Kind::plain, 0, 1e6, words("price")});
  v.number("lead_s", p.lead, {Kind::hours, 0, 3.6e7, words("comes after")});
  v.text("ordered", p.ordered, words("ordered on"), 10);
  v.number("ordered_count", p.ordered_count, {Kind::plain, 0, 1e4, words("how many were ordered")});
  v.text("supplier", p.supplier, words("supplier"), 80);
  v.extra(p.extra);
}

static void fields(TableMaker& v, FitUp& f) {
  v.choice("order", f.order, words("what goes in first"));
  v.choice("shown", f.shown, words("kit"));
  v.choice("handset", f.handset, words("handset by"));
  v.object("controller_at", f.controller_at, words("controller"));
  v.object("handset_at", f.handset_at, words("handset"));
  v.choice("metal_box", f.metal_box, words("controller behind sheet metal"));
  v.object("front_plates", f.plates[0], words("front plates"));
  v.object("rear_plates", f.plates[1], words("rear plates"));
  v.list("jobs", f.jobs, words("job"), 0, most_job_notes);
  v.list("checks", f.checks, words("check"), 0, most_hold_checks);
  v.list("routes", f.routes, words("route"), 0, most_routes);
  v.list("parts", f.parts, words("part's note"), 0, most_part_notes);
  v.extra(f.extra);
}

template <>
const Table& table_of<ShopPerson>() {
  return made_table<ShopPerson>();
}
template <>
const Table& table_of<DaysOff>() {
  return made_table<DaysOff>();
}
template <>
const Table& table_of<ShopHabit>() {
  return made_table<ShopHabit>();
}
template <>
const Table& table_of<StockPiece>() {
  return made_table<StockPiece>();
}
template <>
const Table& table_of<LearnedHours>() {
  return made_table<LearnedHours>();
}
template <>
const Table& table_of<FaultOften>() {
  return made_table<FaultOften>();
}
template <>
const Table& table_of<Shop>() {
  return made_table<Shop>();
}
template <>
const Table& table_of<JobNote>() {
  return made_table<JobNote>();
}
template <>
const Table& table_of<CheckFigure>() {
  return made_table<CheckFigure>();
}
template <>
const Table& table_of<HoldCheck>() {
  return made_table<HoldCheck>();
}
template <>
const Table& table_of<PlateFit>() {
  return made_table<PlateFit>();
}
template <>
const Table& table_of<WayPoint>() {
  return made_table<WayPoint>();
}
template <>
const Table& table_of<Route>() {
  return made_table<Route>();
}
template <>
const Table& table_of<PartNote>() {
  return made_table<PartNote>();
}
template <>
const Table& table_of<FitUp>() {
  return made_table<FitUp>();
}

} // namespace mavrel::build
