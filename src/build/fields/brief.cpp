// What is wanted.
#include "build/fields/maker.h"

#include "build/brief.h"

namespace mavrel::build {

static void fields(TableMaker& v, HeightWish& wish) {
  v.choice("as", wish.as, words("wanted as"));
  v.number("value_m", wish.value, {Kind::length, -0.5, 1.5, words("height")});
  v.extra(wish.extra);
}

static void fields(TableMaker& v, Preset& preset) {
  v.text("name", preset.name, words("name"), 40);
  v.choice("use", preset.use, words("use"));
  v.choice("parked", preset.parked, words("how it is parked"));
  v.later();
  v.wish("front", preset.wish[0], words("front height"));
  v.wish("rear", preset.wish[1], words("rear height"));
  v.extra(preset.extra);
}

static void fields(TableMaker& v, Rooms& rooms) {
  v.number("tyre_m", rooms.tyre, {Kind::length, 0, 0.1, words("room round the tyre")});
  v.number("metal_m", rooms.metal, {Kind::length, 0, 0.1, words("room between metal parts")});
  v.number("hose_m", rooms.hose, {Kind::length, 0, 0.1, words("room to a hose")});
  v.number("brake_line_m", rooms.brake_line, {Kind::length, 0, 0.1, words("room to a brake line")});
  v.number("exhaust_m", rooms.exhaust, {Kind::length, 0, 0.3, words("room to a bare exhaust")});
  v.number("shielded_exhaust_m", rooms.shielded_exhaust, {Kind::length, 0, 0.3, words("room to a shielded exhaust")});
  v.number("tyre_growth_m", rooms.tyre_growth, {Kind::length, 0, 0.03, words("tyre grows by")});
  v.extra(rooms.extra);
}

static void fields(TableMaker& v, ProfilePoint& p) {
  v.number("x_m", p.x, {Kind::length, -200, 200, words("place along the way")});
  v.number("z_m", p.z, {Kind::length, -20, 20, words("height of the ground")});
  v.extra(p.extra);
}

static void fields(TableMaker& v, Ground& g) {
  v.text("name", g.name, words("name"), 40);
  v.choice("over", g.over, words("got over at"));
  v.number("margin_m", g.margin, {Kind::length, 0, 0.2, words("kept under the car")});
  v.list("points", g.points, words("point of the ground"), 0, most_profile_points);
  v.extra(g.extra);
}

static void fields(TableMaker& v, Brief& brief) {
  v.list("presets", brief.presets, words("preset"), 0, 24);
  v.number("bump_travel_m", brief.bump_travel, {Kind::length, 0, 0.3, words("bump travel kept")});
  v.number("rebound_reserve_m", brief.rebound_reserve, {Kind::length, 0, 0.3, words("rebound reserve")});
  v.number("bag_margin_m", brief.bag_margin, {Kind::length, 0, 0.1, words("margin above the collapsed bag")});
  v.number("bag_clearance_m", brief.bag_clearance, {Kind::length, 0, 0.1, words("clearance around the bag")});
  v.number("road_pressure_share", brief.road_pressure_share,
           {Kind::share, 0.1, 1, words("road pressure, share of the bag's maximum")});
  v.number("frequency_low_hz", brief.frequency_low, {Kind::frequency, 0.3, 5, words("lowest body frequency wanted")});
  v.number("frequency_high_hz", brief.frequency_high,
           {Kind::frequency, 0.3, 5, words("highest body frequency wanted")});
  v.number("rear_quicker_low", brief.rear_quicker_low, {Kind::share, -0.5, 1, words("rear quicker by at least")});
  v.number("rear_quicker_high", brief.rear_quicker_high, {Kind::share, -0.5, 1, words("rear quicker by at most")});
  v.number("exponent", brief.exponent, {Kind::plain, 1, 1.4, words("exponent of quick movement")});
  v.number("braking_g", brief.braking, {Kind::plain, 0.05, 1.5, words("braking that dive is told at, of g")});
  v.later();
  v.number("settle_speed_m_per_s", brief.settle_speed, {Kind::road_speed, 2, 70, words("speed to settle flat at")});
  v.number("gauge_error_pa", brief.gauge_error, {Kind::pressure, 0, 2e5, words("gauge error, either way")});
  v.number("load_doubt_kg", brief.load_doubt, {Kind::mass, 0, 200, words("load known to, a corner, either way")});
  v.number("lean_wanted_rad", brief.lean_wanted, {Kind::angle, 0.002, 0.3, words("most lean at 0.3 g")});
  v.text("notes", brief.notes, words("wishes in words"), 4000);
  v.object("rooms", brief.rooms, "");
  v.list("grounds", brief.grounds, words("obstacle on the ground"), 0, most_grounds);
  v.object("air", brief.air, "");
  v.extra(brief.extra);
}

template <>
const Table& table_of<HeightWish>() {
  return made_table<HeightWish>();
}
template <>
const Table& table_of<Preset>() {
  return made_table<Preset>();
}
template <>
const Table& table_of<Rooms>() {
  return made_table<Rooms>();
}
template <>
const Table& table_of<ProfilePoint>() {
  return made_table<ProfilePoint>();
}
template <>
const Table& table_of<Ground>() {
  return made_table<Ground>();
}
template <>
const Table& table_of<Brief>() {
  return made_table<Brief>();
}

} // namespace mavrel::build
