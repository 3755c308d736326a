#include "assess/bag_on_end.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <functional>
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

std::optional<BagOnEnd::Place> BagOnEnd::place(double H) const {
  if (!model_->map->contains(H)) return std::nullopt;
  const motion::MapPoint map = model_->map->at(H);
  const air::BagCurve& curve = bag_->curve;
  double height = map.spring_length - stack_;
  // Heights that a root finder put on the card's very end may miss it by the last digit.
  constexpr double rounding = 1e-9;
  if (std::abs(height - curve.lowest()) < rounding) height = curve.lowest();
  if (std::abs(height - curve.highest()) < rounding) height = curve.highest();
  if (!curve.contains(height)) return std::nullopt;
  return Place{H, map, curve.section(height)};
}

std::optional<double> BagOnEnd::pressure(const Place& at, double sprung_mass) const {
  const double force = model_->spring_force(sprung_mass, at.H, at.map);
  if (!(force > 0)) return std::nullopt;
  return air::pressure_for_load(at.section, force);
}

std::optional<double> BagOnEnd::pressure(double H, double sprung_mass) const {
  const auto at = place(H);
  return at ? pressure(*at, sprung_mass) : std::nullopt;
}

std::optional<double> body_frequency(double wheel_rate, double sprung_mass) {
  if (!(wheel_rate > 0) || !(sprung_mass > 0)) return std::nullopt;
  return std::sqrt(wheel_rate / sprung_mass) / (2 * std::numbers::pi);
}

air::SoftenedBag BagOnEnd::softened(const Place& at, double pressure) const {
  const air::BagSetting& setting = model_->setting;
  if (setting.added_volume == 0) return air::softened_bag(at.section, pressure, setting, 0);
  const double swing = air::line_swing(at.section, pressure, setting, usual_swing * at.map.motion_ratio);
  const air::Restriction line = air::tube(model_->line_bore, model_->line_length);
  return air::softened_bag(
      at.section, pressure, setting,
      air::swing_conductance(line, pressure + setting.ambient.pressure(), setting.ambient.temperature, swing));
}

double BagOnEnd::wheel_rate(const Place& at, double bag_rate, double force) const {
  const double others = at.H < model_->other_slack ? model_->other_rate : 0;
  // MR = dL/dH, so a ratio that grows in bump has a negative slope and stiffens.
  return bag_rate * at.map.motion_ratio * at.map.motion_ratio - force * at.map.motion_ratio_slope + others;
}

namespace {

/// The frequency at which a body bounces on a bag that stiffens with frequency: where the rate there gives itself.
double settled_frequency(const std::function<double(double)>& rate_at, double sprung_mass, double soft, double hard) {
  const auto off = [&](double f) { return body_frequency(rate_at(f), sprung_mass).value_or(0) - f; };
  return curve::crossing(off, soft, hard).value_or(hard);
}

} // namespace

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
  if (model_->setting.added_volume == 0) {
    out.wheel_rate =
        wheel_rate(at, air::sealed_rate(at.section, out.pressure, model_->setting.n, model_->setting), force);
    out.frequency = body_frequency(out.wheel_rate, load.sprung_mass);
    return out;
  }
  const air::SoftenedBag bag = softened(at, out.pressure);
  const auto rate_at = [&](double f) { return wheel_rate(at, bag.stiffness(f).real(), force); };
  const auto soft = body_frequency(wheel_rate(at, bag.open_rate(), force), load.sprung_mass);
  const auto hard = body_frequency(wheel_rate(at, bag.shut_rate(), force), load.sprung_mass);
  if (!soft || !hard) {
    out.wheel_rate = wheel_rate(at, bag.open_rate(), force);
    return out;
  }
  out.frequency = settled_frequency(rate_at, load.sprung_mass, *soft, *hard);
  out.wheel_rate = rate_at(*out.frequency);
  return out;
}

} // namespace mavrel::assess
