// The air: what is wanted of it, and the kit.
#include "build/fields/maker.h"

#include "build/air_kit.h"
#include "build/air_wishes.h"

namespace mavrel::build {

static void fields(TableMaker& v, DayMove& move) {
  v.text("from", move.from, words("from preset"), 40);
  v.text("to", move.to, words("to preset"), 40);
  v.number("times", move.times, {Kind::plain, 0, 200, words("times a day")});
  v.extra(move.extra);
}

static void fields(TableMaker& v, AirWishes& air) {
  v.number("rise_s", air.rise, {Kind::time, 0.2, 600, words("rise at most")});
  v.number("lifts", air.lifts, {Kind::plain, 0, 50, words("lifts per tank")});
  v.number("ready_s", air.ready, {Kind::minutes, 1, 36000, words("ready again after")});
  v.number("current_a", air.current, {Kind::current, 1, 400, words("current at most")});
  v.number("sound_db", air.sound, {Kind::sound, 20, 130, words("noise at most")});
  v.number("room_m3", air.room, {Kind::volume, 0.001, 1, words("room for the kit")});
  v.number("drive_s", air.drive, {Kind::minutes, 0, 86400, words("engine runs a day")});
  v.list("day", air.day, words("move of the day"), 0, most_day_moves);
  v.extra(air.extra);
}

static void fields(TableMaker& v, PartPlace& place) {
  v.number("x_m", place.x, {Kind::length, -2, 7, words("behind the front axle")});
  v.number("y_m", place.y, {Kind::length, -1.2, 1.2, words("left of the middle")});
  v.number("z_m", place.z, {Kind::length, 0, 2.5, words("above the road")});
  v.choice("room", place.room, words("where"));
  v.choice("held", place.held, words("held"));
  v.choice("lies", place.lies, words("lies"));
  v.extra(place.extra);
}

static void fields(TableMaker& v, AirKit& kit) {
  v.choice("circuits", kit.circuits, words("circuits"));
  v.choice("school", kit.school, words("valves worked by"));
  v.choice("order", kit.order, words("order of corners"));
  v.text("compressor", kit.compressor, words("compressor"), most_part_name);
  v.text("second_compressor", kit.second_compressor, words("second compressor"), most_part_name);
  v.text("check_valve", kit.check_valve, words("check valve"), most_part_name);
  v.text("trap", kit.trap, words("water trap"), most_part_name);
  v.text("dryer", kit.dryer, words("dryer"), most_part_name);
  v.text("tank", kit.tank, words("tank"), most_part_name);
  v.text("second_tank", kit.second_tank, words("second tank"), most_part_name);
  v.text("drain", kit.drain, words("drain"), most_part_name);
  v.text("relief", kit.relief, words("relief valve"), most_part_name);
  v.text("pressure_switch", kit.pressure_switch, words("pressure switch"), most_part_name);
  v.text("valves", kit.valves, words("valves"), most_part_name);
  v.text("feed_line", kit.feed_line, words("line to the valves"), most_part_name);
  v.text("front_line", kit.front_line, words("front lines"), most_part_name);
  v.text("rear_line", kit.rear_line, words("rear lines"), most_part_name);
  v.text("feed_fitting", kit.feed_fitting, words("fittings to the valves"), most_part_name);
  v.text("front_fitting", kit.front_fitting, words("front fittings"), most_part_name);
  v.text("rear_fitting", kit.rear_fitting, words("rear fittings"), most_part_name);
  v.number("elbows", kit.elbows, {Kind::plain, 0, 12, words("elbows a line")});
  v.text("silencer", kit.silencer, words("silencer"), most_part_name);
  v.text("gauge", kit.gauge, words("gauge"), most_part_name);
  v.text("sensor", kit.sensor, words("sensors"), most_part_name);
  v.text("switches", kit.switches, words("hand switches"), most_part_name);
  v.choice("shop_inlet", kit.shop_inlet, words("inlet for shop air"));
  v.choice("tyre_outlet", kit.tyre_outlet, words("outlet for tyres"));
  v.number("stagger_s", kit.stagger, {Kind::time, 0, 60, words("second starts later by")});
  v.choice("feeds", kit.feeds, words("feeds"));
  v.number("volts", kit.volts, {Kind::voltage, 5, 32, words("voltage at the battery")});
  v.number("drop_allowed", kit.drop_allowed, {Kind::share, 0.002, 0.3, words("voltage drop at most")});
  v.number("battery_as", kit.battery, {Kind::charge, 3600, 3.6e6, words("battery when new")});
  v.later();
  v.number("battery_age_s", kit.battery_age, {Kind::days, 0, 6.4e8, words("battery’s age")});
  v.later();
  v.number("battery_cut_v", kit.battery_cut, {Kind::voltage, 5, 32, words("kit off below")});
  v.number("line_slack", kit.line_slack, {Kind::share, 0, 2, words("lines longer than the way by")});
  v.choice("weighed", kit.weighed, words("car weighed"));
  v.object("compressor_at", kit.compressor_at, words("compressor"));
  v.object("tank_at", kit.tank_at, words("tank"));
  v.object("second_tank_at", kit.second_tank_at, words("second tank"));
  v.object("valves_at", kit.valves_at, words("valves"));
  v.object("battery_at", kit.battery_at, words("battery"));
  v.number("learned_flow_fl", kit.learned_flow[0],
           {Kind::share, 0.05, 5, words("learned: flow to the front left bag")});
  v.number("learned_flow_fr", kit.learned_flow[1],
           {Kind::share, 0.05, 5, words("learned: flow to the front right bag")});
  v.number("learned_flow_rl", kit.learned_flow[2], {Kind::share, 0.05, 5, words("learned: flow to the rear left bag")});
  v.number("learned_flow_rr", kit.learned_flow[3],
           {Kind::share, 0.05, 5, words("learned: flow to the rear right bag")});
  v.extra(kit.extra);
}

template <>
const Table& table_of<DayMove>() {
  return made_table<DayMove>();
}
template <>
const Table& table_of<AirWishes>() {
  return made_table<AirWishes>();
}
template <>
const Table& table_of<PartPlace>() {
  return made_table<PartPlace>();
}
template <>
const Table& table_of<AirKit>() {
  return made_table<AirKit>();
}

} // namespace mavrel::build
