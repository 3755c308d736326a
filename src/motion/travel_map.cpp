#include "motion/travel_map.h"

#include "curve/root.h"

namespace mavrel::motion {

TravelMap TravelMap::linear(double surveyed_height, double spring_length, double motion_ratio,
                            std::optional<double> damper_length, double damper_ratio, double reach) {
  TravelMap map;
  map.spring_ = {surveyed_height, {spring_length, motion_ratio}};
  if (damper_length) map.damper_ = {surveyed_height, {*damper_length, damper_ratio}};
  map.lowest_ = surveyed_height - reach;
  map.highest_ = surveyed_height + reach;
  return map;
}

MapPoint TravelMap::at(double H) const {
  const auto spring = spring_.read(H);
  return {spring.value, spring.slope, spring_.curvature(H)};
}

std::optional<double> TravelMap::height_for_spring(double length) const {
  return curve::crossing([&](double H) { return spring_.read(H).value; }, lowest_, highest_, length);
}

std::optional<double> TravelMap::height_for_damper(double length) const {
  if (!has_damper()) return std::nullopt;
  return curve::crossing([&](double H) { return damper_.read(H).value; }, lowest_, highest_, length);
}

} // namespace mavrel::motion
