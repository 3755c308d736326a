#include "assess/air/wet.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr double tank_warmer = 5;      // K that air in a tank stays above the air around after a fill
constexpr double water_density = 1000; // kg/m³
constexpr Climate table[] = {
    {words("damp autumn"), 273.15 + 12, 0.90},
    {words("thundery summer"), 273.15 + 28, 0.75},
    {words("dry summer"), 273.15 + 30, 0.35},
    {words("frosty winter"), 273.15 - 3, 0.85},
};

} // namespace

std::span<const Climate> climates() {
  return table;
}

std::vector<Wet> wet_in(const AirGiven& given, double air_a_day) {
  const auto cut = cut_pressures(given.parts);
  const double pressure = cut ? cut->second : 0;
  const double week = 7 * air_a_day;
  std::vector<Wet> out;
  const auto add = [&](Message name, double temperature, double humidity, bool frost) {
    const auto balance =
        air::water_in_tank({given.surroundings.altitude, temperature}, humidity, pressure, temperature + tank_warmer);
    Wet wet{
        std::move(name), temperature, humidity, balance.taken_in * week, balance.liquid * week, 0, 0, 0, {}, {}, false};
    if (const shelf::Part* trap = given.parts[KitRole::trap])
      wet.trapped = trap->water_share.value_or(0.7) * wet.liquid;
    wet.in_tank = wet.liquid - wet.trapped;
    if (const shelf::Part* dryer = given.parts[KitRole::dryer]; dryer && wet.in_tank > 0) {
      wet.dried = wet.in_tank;
      wet.dryer_days = *dryer->holds / wet.in_tank * 7;
    }
    if (const double V = tank_volume(given.parts); V > 0 && wet.in_tank > 0)
      wet.drain_days = drain_at * V * water_density / wet.in_tank * 7;
    wet.freezes = frost && wet.in_tank > 0;
    out.push_back(std::move(wet));
  };
  const build::Surroundings& here = given.surroundings;
  add({words("as set"), {}}, here.temperature, here.humidity, here.night_temperature < air::ice_point);
  for (const Climate& climate : table)
    add({climate.name, {}}, climate.temperature, climate.humidity, climate.temperature < air::ice_point + 5);
  return out;
}

} // namespace mavrel::assess
