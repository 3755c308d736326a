#include "motion/travel_map.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>

namespace mavrel::motion {

namespace {

constexpr double least_ratio = 0.05; // below it a spring or damper no longer follows the wheel
constexpr double step = 0.001;       // m between heights tried

/// The last H from `about` towards `end` up to which the curve rises by at least `least_ratio`.
double follows_until(const curve::Polynomial& length, double about, double end) {
  const auto spare = [&](double H) { return length.read(H).slope - least_ratio; };
  if (spare(about) < 0) return about;
  if (length.c.size() <= 2) return end; // a straight line never turns
  const auto steps = std::max(1, static_cast<int>(std::ceil(std::abs(end - about) / step)));
  double from = about;
  for (int i = 1; i <= steps; ++i) {
    const double to = about + (end - about) * i / steps;
    if (spare(to) < 0) return curve::crossing(spare, std::min(from, to), std::max(from, to)).value_or(from);
    from = to;
  }
  return end;
}

} // namespace

TravelMap TravelMap::from_curves(curve::Polynomial spring, std::optional<curve::Polynomial> damper, double about,
                                 double lowest, double highest) {
  TravelMap map;
  map.lowest_ = follows_until(spring, about, lowest);
  map.highest_ = follows_until(spring, about, highest);
  map.spring_ = std::move(spring);
  if (!damper) return map;
  map.lowest_ = follows_until(*damper, about, map.lowest_);
  map.highest_ = follows_until(*damper, about, map.highest_);
  map.damper_ = std::move(*damper);
  return map;
}

TravelMap TravelMap::linear(double surveyed_height, double spring_length, double motion_ratio,
                            std::optional<double> damper_length, double damper_ratio, double reach) {
  std::optional<curve::Polynomial> damper;
  if (damper_length) damper = {surveyed_height, {*damper_length, damper_ratio}};
  return from_curves({surveyed_height, {spring_length, motion_ratio}}, std::move(damper), surveyed_height,
                     surveyed_height - reach, surveyed_height + reach);
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
