#include "assess/bag_on_end.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

std::pair<double, double> BagOnEnd::heights() const {
  const motion::TravelMap& map = *model_->map;
  const air::BagCurve& curve = bag_->curve;
  // A card that reaches beyond the map is cut at the map's end.
  const double low =
      height_for_bag(curve.lowest()).value_or(bag_height(map.lowest()) > curve.lowest() ? map.lowest() : map.highest());
  const double high = height_for_bag(curve.highest())
                          .value_or(bag_height(map.highest()) < curve.highest() ? map.highest() : map.lowest());
  return {low, high};
}

std::optional<double> BagOnEnd::pressure(double H, double sprung_mass) const {
  if (!model_->map->contains(H)) return std::nullopt;
  const motion::MapPoint at = model_->map->at(H);
  const double height = at.spring_length - stack_;
  const double force = model_->spring_force(sprung_mass, H, at);
  if (!bag_->curve.contains(height) || !(force > 0)) return std::nullopt;
  return air::pressure_for_load(bag_->curve.section(height), force);
}

std::optional<BagOnEnd::Place> BagOnEnd::place(double H) const {
  if (!model_->map->contains(H)) return std::nullopt;
  const motion::MapPoint map = model_->map->at(H);
  const double height = map.spring_length - stack_;
  if (!bag_->curve.contains(height)) return std::nullopt;
  return Place{H, map, bag_->curve.section(height)};
}

std::optional<PoseState> BagOnEnd::state(const Place& at, const EndLoad& load) const {
  const auto pressure_of = [&](double sprung_mass) {
    return air::pressure_for_load(at.section, std::max(0.0, model_->spring_force(sprung_mass, at.H, at.map)));
  };
  const double force = model_->spring_force(load.sprung_mass, at.H, at.map);
  if (!(force > 0)) return std::nullopt;
  PoseState out;
  out.bag_height = at.map.spring_length - stack_;
  out.pressure = pressure_of(load.sprung_mass);
  for (const Side side : build::both_sides)
    out.side_pressure[build::at(side)] = pressure_of(load.side_mass[build::at(side)]);
  const double k = air::sealed_rate(at.section, out.pressure, model_->setting.n, model_->setting);
  const double others = at.H < model_->other_slack ? model_->other_rate : 0;
  // MR = dL/dH, so a ratio that grows in bump has a negative slope and stiffens.
  out.wheel_rate = k * at.map.motion_ratio * at.map.motion_ratio - force * at.map.motion_ratio_slope + others;
  if (out.wheel_rate > 0) out.frequency = std::sqrt(out.wheel_rate / load.sprung_mass) / (2 * std::numbers::pi);
  return out;
}

} // namespace mavrel::assess
