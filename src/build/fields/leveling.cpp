// The drive, and keeping the height.
#include "build/fields/maker.h"

#include "build/leveling.h"

namespace mavrel::build {

static void fields(TableMaker& v, ControlSetUp& set_up) {
  v.text("name", set_up.name, words("name"), 40);
  v.choice("fitted", set_up.fitted, words("the one the car gets"));
  auto& s = set_up.rules;
  v.choice("method", s.method, words("corrects by"));
  v.choice("sensors", s.sensors, words("height sensors"));
  v.choice("by", s.by, words("corrected as one"));
  v.choice("order", s.order, words("order of ends"));
  v.number("average_s", s.average, {Kind::time, 0.02, 60, words("averaged over")});
  v.number("band_m", s.band, {Kind::length, 0.0005, 0.1, words("band, either way")});
  v.number("pressure_band_pa", s.pressure_band, {Kind::pressure, 500, 2e5, words("pressure band, either way")});
  v.number("wait_s", s.wait, {Kind::time, 0, 120, words("wait after a correction")});
  v.number("gain_s_per_m", s.gain, {Kind::burst_gain, 0.01, 1000, words("gain")});
  v.number("pressure_gain_s_per_pa", s.pressure_gain, {Kind::pressure_gain, 1e-8, 1e-2, words("gain on pressure")});
  v.number("least_burst_s", s.least_burst, {Kind::time, 0.005, 5, words("least burst")});
  v.number("most_burst_s", s.most_burst, {Kind::time, 0.01, 30, words("most burst")});
  v.number("samples_per_s", s.samples, {Kind::frequency, 1, 200, words("samples a second")});
  v.number("watch_s", s.watch, {Kind::time, 0.02, 10, words("averaged over while open")});
  v.number("valve_delay_s", s.valve_delay, {Kind::time, 0, 0.5, words("valve moves after")});
  v.number("look_every_s", s.look_every, {Kind::minutes, 10, 36000, words("gauges looked at every")});
  v.choice("braking", s.braking, words("still while braking"));
  v.choice("cornering", s.cornering, words("still while cornering"));
  v.choice("doors", s.doors, words("still while doors are open"));
  v.number("hold_from_m_per_s2", s.hold_from, {Kind::acceleration, 0.1, 12, words("still from")});
  v.extra(set_up.extra);
}

static void fields(TableMaker& v, SensorFit& s) {
  v.number("pivot_y_m", s.pivot_y, {Kind::length, 0, 1.2, words("sensor's shaft left of the middle")});
  v.number("pivot_z_m", s.pivot_z, {Kind::length, 0.02, 1.5, words("sensor's shaft above the floor")});
  v.number("lever_m", s.lever, {Kind::length, 0.01, 0.5, words("lever")});
  v.number("rod_m", s.rod, {Kind::length, 0.01, 0.8, words("rod")});
  v.number("pickup_y_m", s.pickup_y, {Kind::length, 0, 1.2, words("pickup left of the middle")});
  v.number("pickup_z_m", s.pickup_z, {Kind::length, 0.02, 1.5, words("pickup above the floor")});
  v.number("ahead_m", s.ahead, {Kind::length, -0.8, 0.8, words("ahead of the axle")});
  v.number("pickup_ratio", s.pickup_ratio, {Kind::plain, 0.05, 1.5, words("pickup's travel for the wheel's")});
  v.choice("crossing", s.crossing, words("lever and rod meet"));
  v.number("range_rad", s.range, {Kind::angle, 0.1, 6.3, words("sensor reads over")});
  v.number("counts", s.counts, {Kind::plain, 16, 1048576, words("counts over that")});
  v.number("noise_counts", s.noise, {Kind::plain, 0, 1000, words("scatter, counts")});
  v.choice("mirrored", s.mirrored, words("right one mirrored"));
  v.extra(s.extra);
}

static void fields(TableMaker& v, Leveling& l) {
  v.list("set_ups", l.set_ups, words("method of keeping the height"), 1, most_set_ups);
  v.object("front_sensor", l.sensors[0], words("front sensor"));
  v.object("rear_sensor", l.sensors[1], words("rear sensor"));
  v.extra(l.extra);
}

static void fields(TableMaker& v, DriveEvent& e) {
  v.text("name", e.name, words("what happens"), 40);
  v.choice("kind", e.kind, words("what changes"));
  v.number("at_s", e.at, {Kind::minutes, 0, 43200, words("happens at")});
  v.number("over_s", e.over, {Kind::minutes, 0.1, 43200, words("takes")});
  v.number("until_s", e.until, {Kind::minutes, 0, 43200, words("goes back at")});
  v.number("mass_kg", e.mass, {Kind::mass, -1500, 1500, words("mass that gets in")});
  v.number("x_m", e.x, {Kind::length, -3, 9, words("behind the front axle")});
  v.number("y_m", e.y, {Kind::length, -1.5, 1.5, words("left of the middle")});
  v.number("warmer_k", e.warmer, {Kind::temperature_step, -60, 60, words("air warmer by")});
  v.number("altitude_m", e.altitude, {Kind::altitude, -3000, 6000, words("higher by")});
  v.extra(e.extra);
}

static void fields(TableMaker& v, Drive& d) {
  v.choice("road", d.road, words("road"));
  v.number("seed", d.seed, {Kind::plain, 0, 999999, words("seed")});
  v.choice("profile", d.profile, words("drive"));
  v.number("speed_m_per_s", d.speed, {Kind::road_speed, 0, 70, words("speed")});
  v.number("duration_s", d.duration, {Kind::minutes, 10, 43200, words("how long")});
  v.list("events", d.events, words("event"), 0, most_drive_events);
  v.extra(d.extra);
}

template <>
const Table& table_of<ControlSetUp>() {
  return made_table<ControlSetUp>();
}
template <>
const Table& table_of<SensorFit>() {
  return made_table<SensorFit>();
}
template <>
const Table& table_of<Leveling>() {
  return made_table<Leveling>();
}
template <>
const Table& table_of<DriveEvent>() {
  return made_table<DriveEvent>();
}
template <>
const Table& table_of<Drive>() {
  return made_table<Drive>();
}

} // namespace mavrel::build
