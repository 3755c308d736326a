// One end as surveyed.
#include "build/fields/maker.h"

#include "build/end_survey.h"

namespace mavrel::build {

static void fields(TableMaker& v, Corner& corner) {
  v.readings("mass_kg", corner.mass, {Kind::mass, 20, 3000, words("weight")});
  v.readings("height_m", corner.height, {Kind::length, 0.05, 1.2, words("height")});
  v.number("floor_m", corner.floor, {Kind::length, -0.2, 0.2, words("floor")});
  v.extra(corner.extra);
}

static void fields(TableMaker& v, CycleGap& gap) {
  v.text("name", gap.name, words("name"), most_gap_name);
  v.number("value_m", gap.value, cycle_gap);
  v.extra(gap.extra);
}

static void fields(TableMaker& v, CycleRow& row) {
  v.number("height_m", row.height, cycle_height);
  v.number("spring_m", row.spring, cycle_spring);
  v.number("damper_m", row.damper, cycle_damper);
  v.number("camber_rad", row.camber, cycle_angle);
  v.number("toe_rad", row.toe, cycle_angle);
  v.list("gaps", row.gaps, words("gap"), 0, most_cycle_gaps);
  v.extra(row.extra);
}

static void fields(TableMaker& v, HardPoint& point) {
  v.text("name", point.name, words("joint"), 24);
  v.number("x_m", point.x, point_along);
  v.number("y_m", point.y, point_across);
  v.number("z_m", point.z, point_up);
  v.number("turn_allowed_rad", point.turn_allowed, turn_allowed);
  v.extra(point.extra);
}

static void fields(TableMaker& v, HardPoints& points) {
  v.list("left", points.left, words("joint"), 0, most_points);
  v.list("right", points.right, words("right joint"), 0, most_points);
  v.choice("spring_top", points.spring_top, words("upper spring seat"));
  v.choice("spring_foot", points.spring_foot, words("lower spring seat"));
  v.choice("damper_top", points.damper_top, words("upper damper eye"));
  v.choice("damper_foot", points.damper_foot, words("lower damper eye"));
  v.number("camber_rad", points.camber, {Kind::angle, -0.35, 0.35, words("camber as it stands")});
  v.number("toe_rad", points.toe, {Kind::angle, -0.35, 0.35, words("toe as it stands")});
  v.number("lock_rad", points.lock, {Kind::angle, 0.02, 1.0, words("steering lock")});
  v.extra(points.extra);
}

static void fields(TableMaker& v, BarLink& link) {
  v.number("arm_m", link.arm, {Kind::length, 0.03, 0.8, words("bar's arm")});
  v.number("arm_angle_rad", link.arm_angle, {Kind::angle, -1.3, 1.3, words("bar arm's angle")});
  v.number("length_m", link.length, {Kind::length, 0.02, 0.6, words("bar link")});
  v.number("pickup_ratio", link.pickup_ratio, {Kind::plain, 0.1, 1.5, words("bar link's motion ratio")});
  v.number("turn_allowed_rad", link.turn_allowed, turn_allowed);
  v.extra(link.extra);
}

static void fields(TableMaker& v, BrakeHose& hose) {
  v.number("length_m", hose.length, {Kind::length, 0.05, 1.5, words("brake hose")});
  v.number("across_m", hose.across, {Kind::length, 0, 1.2, words("hose ends apart, level")});
  v.number("down_m", hose.down, {Kind::length, -0.8, 0.8, words("hose's wheel end below")});
  v.number("lock_adds_m", hose.lock_adds, {Kind::length, 0, 0.3, words("hose at full lock, further apart")});
  v.extra(hose.extra);
}

static void fields(TableMaker& v, Shaft& shaft) {
  v.number("across_m", shaft.across, {Kind::length, 0.1, 3.5, words("shaft's joints apart, level")});
  v.number("down_m", shaft.down, {Kind::length, -0.6, 0.6, words("shaft's outer joint below")});
  v.number("turn_allowed_rad", shaft.turn_allowed, turn_allowed);
  v.number("plunge_in_m", shaft.plunge_in, {Kind::length, 0, 0.2, words("shaft may shorten by")});
  v.number("plunge_out_m", shaft.plunge_out, {Kind::length, 0, 0.2, words("shaft may lengthen by")});
  v.number("flange_angle_rad", shaft.flange_angle, {Kind::angle, -0.5, 0.5, words("flange's angle, nose up")});
  v.number("inner_angle_rad", shaft.inner_angle, {Kind::angle, -0.5, 0.5, words("gearbox flange's angle, nose up")});
  v.extra(shaft.extra);
}

static void fields(TableMaker& v, Obstacle& o) {
  v.text("name", o.name, words("name"), most_gap_name);
  v.choice("kind", o.kind, words("kind"));
  v.choice("shape", o.shape, words("shape"));
  v.choice("fixed_to", o.fixed_to, words("fixed"));
  v.choice("bolted_to", o.bolted_to, words("bolted to"));
  v.later();
  v.choice("on_car", o.on_car, words("on the car"));
  v.later();
  v.choice("gap_from", o.gap_from, words("taped"));
  v.choice("gap_way", o.gap_way, words("where it lies"));
  v.choice("gap_at", o.gap_at, words("wheels"));
  v.number("gap_m", o.gap, cycle_gap);
  v.number("gap_height_m", o.gap_height, {Kind::length, 0.05, 1.2, words("height it was taped at")});
  v.number("x_m", o.x, point_along);
  v.number("y_m", o.y, point_across);
  v.number("z_m", o.z, point_up);
  v.number("to_x_m", o.to_x, point_along);
  v.number("to_y_m", o.to_y, point_across);
  v.number("to_z_m", o.to_z, point_up);
  v.number("size_x_m", o.size_x, obstacle_size);
  v.number("size_y_m", o.size_y, obstacle_size);
  v.number("size_z_m", o.size_z, obstacle_size);
  v.number("turn_rad", o.turn, {Kind::angle, -3.2, 3.2, words("turned")});
  v.number("radius_m", o.radius, {Kind::length, 0, 0.3, words("radius")});
  v.number("room_m", o.room, {Kind::length, 0, 0.3, words("room wanted")});
  v.extra(o.extra);
}

static void fields(TableMaker& v, Arch& arch) {
  v.number("lip_outward_m", arch.lip_outward, {Kind::length, -0.3, 0.4, words("arch lip outboard of the hub face")});
  v.extra(arch.extra);
}

static void fields(TableMaker& v, Thickness& t) {
  v.number("damper_m", t.damper, {Kind::length, 0.005, 0.15, words("damper body across")});
  v.number("arms_m", t.arms, {Kind::length, 0.005, 0.15, words("arms and links across")});
  v.number("axle_m", t.axle, {Kind::length, 0.01, 0.3, words("axle tube across")});
  v.extra(t.extra);
}

static void fields(TableMaker& v, EndSurvey& end) {
  v.choice("layout", end.layout, words("suspension"));
  v.choice("spring_place", end.spring_place, words("spring place"));
  v.choice("spring_seat", end.spring_seat, words("spring seat"));
  v.object("left", end.corners[0], words("left"));
  v.object("right", end.corners[1], words("right"));
  v.number("unsprung_kg", end.unsprung_mass, {Kind::mass, 5, 400, words("unsprung mass a corner")});
  v.number("track_m", end.track, {Kind::length, 0.8, 2.6, words("track")});
  v.number("rating_kg", end.rating, {Kind::mass, 100, 6000, words("axle rating")});
  v.text("wheel", end.wheel, words("tyre and wheel"), 60);
  v.readings("motion_ratio", end.motion_ratio, {Kind::plain, 0.1, 2.0, words("spring motion ratio")});
  v.readings("damper_ratio", end.damper_ratio, {Kind::plain, 0.1, 2.0, words("damper motion ratio")});
  v.readings("spring_length_m", end.spring_length, {Kind::length, 0.03, 1.0, words("spring seat distance")});
  v.readings("damper_length_m", end.damper_length, {Kind::length, 0.05, 1.5, words("damper length")});
  v.readings("damper_open_m", end.damper_open, {Kind::length, 0.05, 1.5, words("damper open")});
  v.readings("damper_shut_m", end.damper_shut, {Kind::length, 0.05, 1.5, words("damper shut")});
  v.readings("bump_stop_gap_m", end.bump_stop_gap, {Kind::length, 0, 0.4, words("bump stop gap")});
  v.choice("bump_stop_place", end.bump_stop_place, words("bump stop place"));
  v.number("bump_stop_give_m", end.bump_stop_give, {Kind::length, 0, 0.1, words("what the bump stop gives")});
  v.number("bag_room_m", end.bag_room, {Kind::length, 0.03, 0.8, words("room for the bag")});
  v.number("other_spring_rate_n_per_m", end.other_spring_rate,
           {Kind::stiffness, 0, 2e5, words("other springs' rate at the wheel")});
  v.number("other_spring_slack_m", end.other_spring_slack,
           {Kind::length, 0.05, 1.2, words("height where other springs go slack")});
  v.number("tyre_rate_n_per_m", end.tyre_rate, {Kind::stiffness, 5e4, 1e6, words("tyre's rate")});
  v.number("friction_n", end.friction, {Kind::force, 0, 2000, words("friction at the wheel")});
  v.number("bar_rate_n_m_per_rad", end.bar_rate, {Kind::turning, 0, 3e5, words("anti-roll bar")});
  v.number("roll_centre_m", end.roll_centre, {Kind::length, -0.4, 0.8, words("roll centre above the road")});
  v.number("spring_base_m", end.spring_base, {Kind::length, 0.3, 2.2, words("spring base")});
  v.list("cycle", end.cycle, words("cycle reading"), 0, most_cycle_rows);
  v.list("cycle_right", end.cycle_right, words("right cycle reading"), 0, most_cycle_rows);
  v.object("points", end.points, "");
  v.object("bar_link", end.bar_link, words("bar link"));
  v.object("hose", end.hose, words("brake hose"));
  v.object("shaft", end.shaft, words("shaft"));
  v.number("tyre_width_m", end.tyre_width, {Kind::length, 0.1, 0.6, words("tyre as mounted, across")});
  v.list("obstacles", end.obstacles, words("obstacle"), 0, most_obstacles);
  v.object("arch", end.arch, "");
  v.object("thickness", end.thickness, "");
  v.number("legal_height_m", end.legal_height, {Kind::length, 0.05, 1.2, words("legal least height")});
  v.extra(end.extra);
}

template <>
const Table& table_of<Corner>() {
  return made_table<Corner>();
}
template <>
const Table& table_of<CycleGap>() {
  return made_table<CycleGap>();
}
template <>
const Table& table_of<CycleRow>() {
  return made_table<CycleRow>();
}
template <>
const Table& table_of<HardPoint>() {
  return made_table<HardPoint>();
}
template <>
const Table& table_of<HardPoints>() {
  return made_table<HardPoints>();
}
template <>
const Table& table_of<BarLink>() {
  return made_table<BarLink>();
}
template <>
const Table& table_of<BrakeHose>() {
  return made_table<BrakeHose>();
}
template <>
const Table& table_of<Shaft>() {
  return made_table<Shaft>();
}
template <>
const Table& table_of<Obstacle>() {
  return made_table<Obstacle>();
}
template <>
const Table& table_of<Arch>() {
  return made_table<Arch>();
}
template <>
const Table& table_of<Thickness>() {
  return made_table<Thickness>();
}
template <>
const Table& table_of<EndSurvey>() {
  return made_table<EndSurvey>();
}

} // namespace mavrel::build
