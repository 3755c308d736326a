// Every figure of an air part's card, listed once: reading, writing, checking and digests go by this list.
#include "build/fields/maker.h"

#include "shelf/part.h"
#include "shelf/part_names.h"

namespace mavrel::shelf {

using build::most_part_name, build::TableMaker;

static void fields(TableMaker& v, CompressorPoint& p) {
  v.number("pressure_pa", p.pressure, {Kind::pressure, 0, 4e6, words("pressure")});
  v.number("air_m3_per_s", p.air, {Kind::air_flow, 0, 0.1, words("free air")});
  v.number("current_a", p.current, {Kind::current, 0, 500, words("current")});
  v.extra(p.extra);
}

static void fields(TableMaker& v, PartPort& port) {
  v.text("thread", port.thread, words("thread"), 40);
  v.number("count", port.count, {Kind::plain, 1, 24, words("how many")});
  v.extra(port.extra);
}

static void fields(TableMaker& v, Part& part) {
  v.choice("kind", part.kind, words("kind"));
  v.text("name", part.name, words("name"), most_part_name);
  v.text("maker", part.maker, words("maker"), 80);
  v.aside();
  v.text("notes", part.notes, words("notes"), 1000);
  v.aside();
  v.number("mass_kg", part.mass, {Kind::mass, 0, 200, words("mass")});
  v.number("length_m", part.length, {Kind::length, 0.001, 3, words("length")});
  v.number("width_m", part.width, {Kind::length, 0.001, 2, words("width")});
  v.number("height_m", part.height, {Kind::length, 0.001, 2, words("height")});
  v.number("price", part.price, {Kind::plain, 0, 1e6, words("price")});
  v.aside();
  v.number("c_m3_per_s_pa", part.conductance, {Kind::conductance, 1e-10, 1e-5, words("sonic conductance")});
  v.number("b", part.ratio, {Kind::plain, 0, 0.9, words("critical ratio")});
  v.number("vent_c_m3_per_s_pa", part.vent_conductance, {Kind::conductance, 1e-10, 1e-5, words("vent's conductance")});
  v.number("vent_b", part.vent_ratio, {Kind::plain, 0, 0.9, words("vent's critical ratio")});
  v.number("bore_m", part.bore, {Kind::length, 0.001, 0.05, words("bore")});
  v.number("outer_m", part.outer, {Kind::length, 0.002, 0.08, words("outer diameter")});
  v.number("least_bend_m", part.least_bend, {Kind::length, 0.001, 1, words("least bend radius")});
  v.number("rated_pressure_pa", part.rated_pressure, {Kind::pressure, 1e4, 1e8, words("rated pressure")});
  v.list("ports", part.ports, words("port"), 0, 16);
  v.number("voltage_v", part.voltage, {Kind::voltage, 5, 60, words("voltage of its curve")});
  v.list("curve", part.curve, words("point"), 0, 60);
  v.number("start_current_a", part.start_current, {Kind::current, 0.1, 1000, words("starting current")});
  v.number("outlet_k", part.outlet, {Kind::temperature, 250, 600, words("air at its outlet")});
  v.number("longest_run_s", part.longest_run, {Kind::minutes, 10, 1e6, words("runs at most")});
  v.number("cools_in_s", part.cools_in, {Kind::minutes, 10, 1e5, words("warms and cools in")});
  v.number("sound_db", part.sound, {Kind::sound, 20, 130, words("noise at 1 m")});
  v.number("volume_m3", part.volume, {Kind::volume, 1e-5, 1, words("volume")});
  v.number("wall_w_per_k", part.wall, {Kind::heat_flow, 0, 500, words("heat through its wall")});
  v.number("ways", part.ways, {Kind::plain, 1, 16, words("ways")});
  v.number("exhausts", part.exhausts, {Kind::plain, 1, 16, words("exhausts")});
  v.number("cut_in_pa", part.cut_in, {Kind::pressure, 1e4, 4e6, words("cut-in")});
  v.number("cut_out_pa", part.cut_out, {Kind::pressure, 1e4, 4e6, words("cut-out")});
  v.number("rated_current_a", part.rated_current, {Kind::current, 0.1, 500, words("rated current")});
  v.number("opens_at_pa", part.opens_at, {Kind::pressure, 1e4, 5e6, words("opens at")});
  v.number("water_share", part.water_share, {Kind::share, 0, 1, words("share of the water")});
  v.number("holds_kg", part.holds, {Kind::mass, 0.0001, 10, words("holds")});
  v.number("error_pa", part.error, {Kind::pressure, 0, 2e5, words("error")});
  v.extra(part.extra);
}

} // namespace mavrel::shelf

namespace mavrel::build {

template <>
const Table& table_of<shelf::CompressorPoint>() {
  return made_table<shelf::CompressorPoint>();
}
template <>
const Table& table_of<shelf::PartPort>() {
  return made_table<shelf::PartPort>();
}
template <>
const Table& table_of<shelf::Part>() {
  return made_table<shelf::Part>();
}

} // namespace mavrel::build
