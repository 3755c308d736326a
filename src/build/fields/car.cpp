// The car as it came, and its loads.
#include "build/fields/maker.h"

#include "build/car.h"

namespace mavrel::build {

static void fields(TableMaker& v, Job& job) {
  v.text("car", job.car, words("car"), 80);
  v.text("number", job.number, words("job number"), 40);
  v.text("owner", job.owner, words("owner"), 80);
  v.text("shop", job.shop, words("shop"), 80);
  v.text("notes", job.notes, words("notes"), 4000);
  v.text("platform", job.platform, words("platform"), 80);
  v.text("put_off", job.put_off, words("steps put off"), 4000);
  v.extra(job.extra);
}

static void fields(TableMaker& v, LowPoint& p) {
  v.text("name", p.name, words("name"), 40);
  v.number("x_m", p.x, {Kind::length, -3, 9, words("distance behind the front axle")});
  v.number("z_m", p.z, {Kind::length, 0, 1.5, words("height above the floor")});
  v.extra(p.extra);
}

static void fields(TableMaker& v, Boot& boot) {
  v.number("from_m", boot.from, {Kind::length, 0, 7, words("boot from, behind the front axle")});
  v.number("floor_m", boot.floor, {Kind::length, 0.05, 1.5, words("boot floor above the road")});
  v.number("length_m", boot.length, {Kind::length, 0.1, 4, words("boot length")});
  v.number("width_m", boot.width, {Kind::length, 0.2, 2.4, words("boot width")});
  v.number("height_m", boot.height, {Kind::length, 0.05, 2, words("boot height")});
  v.extra(boot.extra);
}

static void fields(TableMaker& v, Well& well) {
  v.number("x_m", well.x, {Kind::length, 0, 7, words("well's middle behind the front axle")});
  v.number("y_m", well.y, {Kind::length, -1.2, 1.2, words("well's middle left")});
  v.number("bottom_m", well.bottom, {Kind::length, 0.05, 1.5, words("well's bottom above the road")});
  v.number("diameter_m", well.diameter, {Kind::length, 0.1, 1.2, words("well's diameter")});
  v.number("depth_m", well.depth, {Kind::length, 0.02, 0.6, words("well's depth")});
  v.extra(well.extra);
}

static void fields(TableMaker& v, HotPart& hot) {
  v.text("name", hot.name, words("name"), 40);
  v.number("x_m", hot.x, {Kind::length, -2, 7, words("behind the front axle")});
  v.number("y_m", hot.y, {Kind::length, -1.2, 1.2, words("left of the middle")});
  v.number("z_m", hot.z, {Kind::length, 0, 2, words("above the road")});
  v.number("to_x_m", hot.to_x, {Kind::length, -2, 7, words("other end behind the front axle")});
  v.number("to_y_m", hot.to_y, {Kind::length, -1.2, 1.2, words("other end left of the middle")});
  v.number("to_z_m", hot.to_z, {Kind::length, 0, 2, words("other end above the road")});
  v.number("radius_m", hot.radius, {Kind::length, 0.002, 0.3, words("radius")});
  v.choice("shielded", hot.shielded, words("shield"));
  v.extra(hot.extra);
}

static void fields(TableMaker& v, Body& body) {
  v.choice("style", body.style, words("body style"));
  v.number("wheelbase_m", body.wheelbase, {Kind::length, 1.2, 6.5, words("wheelbase")});
  v.number("front_overhang_m", body.front_overhang, {Kind::length, 0.1, 2.0, words("front overhang")});
  v.number("rear_overhang_m", body.rear_overhang, {Kind::length, 0.1, 3.0, words("rear overhang")});
  v.number("overall_height_m", body.overall_height, {Kind::length, 0.8, 3.5, words("overall height")});
  v.number("sill_height_m", body.sill_height, {Kind::length, 0.02, 1.0, words("sill height")});
  v.number("rating_kg", body.rating, {Kind::mass, 200, 9000, words("whole car's rating")});
  v.number("gravity_height_m", body.gravity_height, {Kind::length, 0.2, 1.6, words("height of gravity")});
  v.list("underside", body.underside, words("low point"), 0, most_low_points);
  v.object("boot", body.boot, "");
  v.object("well", body.well, "");
  v.list("hot", body.hot, words("hot part"), 0, most_hot_parts);
  v.extra(body.extra);
}

static void fields(TableMaker& v, LoadMass& mass) {
  v.text("name", mass.name, words("name"), 60);
  v.number("mass_kg", mass.mass, {Kind::mass, -1500, 3000, words("mass")});
  v.number("behind_front_axle_m", mass.x, {Kind::length, -3, 9, words("distance behind the front axle")});
  v.number("left_of_middle_m", mass.y, {Kind::length, -1.5, 1.5, words("distance left of the middle")});
  v.number("above_road_m", mass.z, {Kind::length, 0, 3, words("height above the road")});
  v.extra(mass.extra);
}

static void fields(TableMaker& v, LoadCase& load) {
  v.text("name", load.name, words("name"), 60);
  v.list("masses", load.masses, words("mass"), 0, 40);
  v.extra(load.extra);
}

static void fields(TableMaker& v, Surroundings& s) {
  v.number("altitude_m", s.altitude, {Kind::altitude, -450, 6000, words("altitude")});
  v.number("temperature_k", s.temperature, {Kind::temperature, 213.15, 343.15, words("air temperature")});
  v.number("night_temperature_k", s.night_temperature, {Kind::temperature, 213.15, 343.15, words("cold night")});
  v.number("shut_off_above_k", s.shut_off_above, {Kind::temperature_step, 0, 80, words("bags warmer when shut off")});
  v.number("pass_altitude_m", s.pass_altitude, {Kind::altitude, -450, 6000, words("mountain pass")});
  v.number("worked_temperature_k", s.worked_temperature,
           {Kind::temperature, 213.15, 393.15, words("air in a worked bag")});
  v.number("humidity", s.humidity, {Kind::share, 0, 1, words("humidity")});
  v.extra(s.extra);
}

template <>
const Table& table_of<Job>() {
  return made_table<Job>();
}
template <>
const Table& table_of<LowPoint>() {
  return made_table<LowPoint>();
}
template <>
const Table& table_of<Boot>() {
  return made_table<Boot>();
}
template <>
const Table& table_of<Well>() {
  return made_table<Well>();
}
template <>
const Table& table_of<HotPart>() {
  return made_table<HotPart>();
}
template <>
const Table& table_of<Body>() {
  return made_table<Body>();
}
template <>
const Table& table_of<LoadMass>() {
  return made_table<LoadMass>();
}
template <>
const Table& table_of<LoadCase>() {
  return made_table<LoadCase>();
}
template <>
const Table& table_of<Surroundings>() {
  return made_table<Surroundings>();
}

} // namespace mavrel::build
