// What is fitted at one end.
#include "build/fields/maker.h"

#include "build/end_fit.h"

namespace mavrel::build {

static void fields(TableMaker& v, DamperPoint& point) {
  v.number("speed_m_per_s", point.speed, {Kind::speed, 0.001, 5, words("rod speed")});
  v.number("bump_n", point.bump_force, {Kind::force, 0, 2e4, words("bump force")});
  v.number("rebound_n", point.rebound_force, {Kind::force, 0, 2e4, words("rebound force")});
  v.extra(point.extra);
}

static void fields(TableMaker& v, Seat& seat) {
  v.number("across_angle_rad", seat.across_angle, {Kind::angle, -0.8, 0.8, words("plate's angle from the front")});
  v.number("along_angle_rad", seat.along_angle, {Kind::angle, -0.8, 0.8, words("plate's angle from the side")});
  v.number("outward_m", seat.outward, {Kind::length, -0.4, 0.4, words("seat moved outward")});
  v.number("forward_m", seat.forward, {Kind::length, -0.4, 0.4, words("seat moved forward")});
  v.extra(seat.extra);
}

static void fields(TableMaker& v, Mounting& mounting) {
  v.choice("straight_at", mounting.straight_at, words("bag straight"));
  v.choice("held", mounting.held, words("bag's ends"));
  v.object("upper", mounting.upper, words("upper"));
  v.object("lower", mounting.lower, words("lower"));
  v.number("seat_raised_m", mounting.seat_raised, {Kind::length, -0.2, 0.2, words("spring seat raised")});
  v.number("damper_longer_m", mounting.damper_longer, {Kind::length, -0.15, 0.15, words("damper body set longer")});
  v.number("mount_thicker_m", mounting.mount_thicker, {Kind::length, -0.08, 0.08, words("upper mount thicker")});
  v.number("mount_outward_m", mounting.mount_outward, {Kind::length, -0.05, 0.05, words("upper mount moved outward")});
  v.number("pocket_offset_m", mounting.pocket_offset, {Kind::length, 0, 0.1, words("bag off the middle of its room")});
  v.number("drop_spindle_m", mounting.drop_spindle, {Kind::length, 0, 0.12, words("drop spindle")});
  v.extra(mounting.extra);
}

static void fields(TableMaker& v, Workshop& w) {
  v.number("caster_rad", w.caster, {Kind::angle, -0.3, 0.4, words("caster wanted")});
  v.number("shims", w.shims, {Kind::plain, 0, 40, words("shims at each arm")});
  v.number("shim_thickness_m", w.shim_thickness, {Kind::length, 0.0002, 0.02, words("one shim")});
  v.number("arms_offset_m", w.arms_offset, {Kind::length, -0.2, 0.2, words("arms' offset")});
  v.number("pins_m", w.pins, {Kind::length, 0.02, 0.6, words("pins' distance")});
  v.number("camber_rad", w.camber, {Kind::angle, -0.35, 0.35, words("camber wanted")});
  v.number("wedge_rad", w.wedge, {Kind::angle, -0.1, 0.1, words("flange turned by")});
  v.number("bolt_circle_m", w.bolt_circle, {Kind::length, 0.03, 0.4, words("flange's bolt circle")});
  v.number("left_right_m", w.left_right, {Kind::length, 0.2, 6, words("diagonal, frame left to axle right")});
  v.number("right_left_m", w.right_left, {Kind::length, 0.2, 6, words("diagonal, frame right to axle left")});
  v.number("frame_width_m", w.frame_width, {Kind::length, 0.2, 2.5, words("between the frame's points")});
  v.number("axle_width_m", w.axle_width, {Kind::length, 0.2, 2.5, words("between the axle's ends")});
  v.number("link_length_m", w.link_length, {Kind::length, 0.05, 2, words("link, joint to joint")});
  v.number("end_a_m", w.end_a, {Kind::length, 0, 0.3, words("first end's take-up")});
  v.number("end_b_m", w.end_b, {Kind::length, 0, 0.3, words("second end's take-up")});
  v.number("thread_length_m", w.thread_length, {Kind::length, 0.005, 0.3, words("thread of one end")});
  v.number("thread_diameter_m", w.thread_diameter, {Kind::length, 0.004, 0.06, words("thread's diameter")});
  v.number("rail_gap_m", w.rail_gap, {Kind::length, 0, 0.6, words("axle tube to rail")});
  v.number("rail_reserve_m", w.rail_reserve, {Kind::length, 0, 0.2, words("kept free over the tube")});
  v.extra(w.extra);
}

static void fields(TableMaker& v, Check& c) {
  v.text("what", c.what, words("check"), 80);
  v.text("digest", c.digest, words("what it was made on"), 40);
  v.number("figure_m", c.figure, {Kind::length, -1, 2, words("gap")});
  v.extra(c.extra);
}

static void fields(TableMaker& v, EndFit& fit) {
  v.text("bag", fit.bag, words("bag"), 80);
  v.number("upper_stack_m", fit.upper_stack, {Kind::length, 0, 0.4, words("upper stack")});
  v.number("lower_stack_m", fit.lower_stack, {Kind::length, 0, 0.4, words("lower stack")});
  v.number("damper_open_m", fit.damper_open, {Kind::length, 0.05, 1.5, words("fitted damper open")});
  v.number("damper_shut_m", fit.damper_shut, {Kind::length, 0.05, 1.5, words("fitted damper shut")});
  v.number("damper_gas_n", fit.damper_gas, {Kind::force, 0, 2000, words("gas force of the damper")});
  v.number("added_volume_m3", fit.added_volume, {Kind::volume, 0, 0.1, words("added volume")});
  v.number("line_bore_m", fit.line_bore, {Kind::length, 0.001, 0.08, words("line's bore")});
  v.number("line_length_m", fit.line_length, {Kind::length, 0, 10, words("line's length")});
  v.choice("line", fit.line, words("line"));
  v.choice("sides", fit.sides, words("left and right"));
  v.list("damper_curve", fit.damper_curve, words("damper point"), 0, 24);
  v.object("mounting", fit.mounting, "");
  v.object("workshop", fit.workshop, "");
  v.text("wheel", fit.wheel, words("other tyre and wheel"), 60);
  v.number("tyre_width_m", fit.tyre_width, {Kind::length, 0.1, 0.6, words("its tyre as mounted, across")});
  v.number("lip_rolled_m", fit.lip_rolled, {Kind::length, -0.02, 0.06, words("arch lip rolled out by")});
  v.list("checks", fit.checks, words("check"), 0, 80);
  v.number("learned_ratio", fit.learned_ratio, {Kind::share, 0.7, 1.4, words("learned: motion ratio")});
  v.number("learned_area", fit.learned_area, {Kind::share, 0.7, 1.4, words("learned: bag's area")});
  v.number("learned_friction_n", fit.learned_friction, {Kind::force, 0, 2000, words("learned: friction at the wheel")});
  v.extra(fit.extra);
}

template <>
const Table& table_of<DamperPoint>() {
  return made_table<DamperPoint>();
}
template <>
const Table& table_of<Seat>() {
  return made_table<Seat>();
}
template <>
const Table& table_of<Mounting>() {
  return made_table<Mounting>();
}
template <>
const Table& table_of<Workshop>() {
  return made_table<Workshop>();
}
template <>
const Table& table_of<Check>() {
  return made_table<Check>();
}
template <>
const Table& table_of<EndFit>() {
  return made_table<EndFit>();
}

} // namespace mavrel::build
