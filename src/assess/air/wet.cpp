#include "assess/air/wet.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr double tank_warmer = 5;      // K that air in a tank stays above the air around after a fill
constexpr double water_density = 1000; // kg/m³
constexpr double drain_at = 0.01;      // of the tank's volume
constexpr double usual_trap = 0.7;     // of the liquid that comes by
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

WaterOfAir water_of_air(const AirGiven& given, double temperature, double humidity) {
  const auto cut = cut_pressures(given.parts);
  const auto balance = air::water_in_tank({given.surroundings.altitude, temperature}, humidity, cut ? cut->second : 0,
                                          temperature + tank_warmer);
  const shelf::Part* trap = given.parts[KitRole::trap];
  return {balance.taken_in, balance.liquid, trap ? trap->water_share.value_or(usual_trap) * balance.liquid : 0};
}

double water_to_drain(const AirGiven& given) {
  return drain_at * tank_volume(given.parts) * water_density;
}

std::vector<Wet> wet_in(const AirGiven& given, double air_a_day) {
  const double week = 7 * air_a_day;
  std::vector<Wet> out;
  const auto add = [&](Message name, double temperature, double humidity, bool frost) {
    const WaterOfAir water = water_of_air(given, temperature, humidity);
    Wet wet;
    wet.name = std::move(name), wet.temperature = temperature, wet.humidity = humidity;
    wet.taken_in = water.taken_in * week, wet.liquid = water.liquid * week, wet.trapped = water.trapped * week;
    wet.in_tank = water.past_trap() * week;
    if (const shelf::Part* dryer = given.parts[KitRole::dryer]; dryer && wet.in_tank > 0) {
      wet.dried = wet.in_tank;
      wet.dryer_days = *dryer->holds / wet.in_tank * 7;
    }
    if (const double full = water_to_drain(given); full > 0 && wet.in_tank > 0) wet.drain_days = full / wet.in_tank * 7;
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
