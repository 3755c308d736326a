#include "assess/end/bag_on_end.h"

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

double with_tyre(double wheel_rate, double tyre_rate) {
  if (!(wheel_rate > 0)) return wheel_rate;
  return wheel_rate * tyre_rate / (wheel_rate + tyre_rate);
}

air::SoftenedBag BagOnEnd::softened(const Place& at, double pressure, double frequency, double swing) const {
  const air::BagSetting& setting = model_->setting;
  const double G =
      air::breathing_conductance(at.section, pressure, setting, model_->line, swing * at.map.motion_ratio, frequency);
  return air::softened_bag(at.section, pressure, setting, G);
}

air::SoftenedBag BagOnEnd::softened_in_the_middle(const Place& at, double pressure) const {
  const air::BagSetting& setting = model_->setting;
  if (setting.added_volume == 0) return air::softened_bag(at.section, pressure, setting, 0);
  const double swing = air::line_swing(at.section, pressure, setting, usual_swing * at.map.motion_ratio);
  return air::softened_bag(
      at.section, pressure, setting,
      air::swing_conductance(model_->line, pressure + setting.ambient.pressure(), setting.ambient.temperature, swing));
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
  return curve::crossing(off, soft, hard, 0, 1e-6).value_or(hard);
}

} // namespace

std::array<double, 2> BagOnEnd::side_pressures(const Place& at, const EndLoad& load) const {
  const auto masses = model_->bag_masses(load);
  const auto pressure_of = [&](double sprung_mass) {
    return air::pressure_for_load(at.section, std::max(0.0, model_->spring_force(sprung_mass, at.H, at.map)));
  };
  const double left = pressure_of(masses[0]);
  return {left, masses[1] == masses[0] ? left : pressure_of(masses[1])};
}

std::optional<PoseState> BagOnEnd::pressures(const Place& at, const EndLoad& load,
                                             const std::array<double, 2>& sides) const {
  const double force = model_->spring_force(load.sprung_mass, at.H, at.map);
  if (!(force > 0)) return std::nullopt;
  PoseState out;
  out.bag_height = at.map.spring_length - stack_;
  out.side_pressure = sides;
  out.pressure = sides[0] == sides[1] ? sides[0] : air::pressure_for_load(at.section, force);
  for (const double p : sides)
    out.beyond = std::max(out.beyond, air::beyond(card(), p));
  return out;
}

std::optional<PoseState> BagOnEnd::state(const Place& at, const EndLoad& load,
                                         const std::array<double, 2>& sides) const {
  auto loaded = pressures(at, load, sides);
  if (!loaded) return std::nullopt;
  PoseState& out = *loaded;
  const double force = model_->spring_force(load.sprung_mass, at.H, at.map);
  const double mass = load.sprung_mass, tyre = model_->tyre_rate;
  const auto set = [&](double rate, double rate_with_tyre) {
    out.wheel_rate = rate;
    out.frequency = body_frequency(rate, mass);
    out.ride_frequency = body_frequency(with_tyre(rate_with_tyre, tyre), mass);
  };
  if (model_->setting.added_volume == 0) {
    const double bag_rate = air::sealed_rate(at.section, out.pressure, model_->setting.n, model_->setting);
    const double rate = wheel_rate(at, bag_rate, force);
    set(rate, rate);
    return loaded;
  }
  const auto rate_at = [&](double f) {
    return wheel_rate(at, softened(at, out.pressure, f).stiffness(f).real(), force);
  };
  const air::SoftenedBag bag = air::softened_bag(at.section, out.pressure, model_->setting, 0);
  const double open = wheel_rate(at, bag.open_rate(), force), shut = wheel_rate(at, bag.shut_rate(), force);
  const auto soft = body_frequency(open, mass), hard = body_frequency(shut, mass);
  if (!soft || !hard) {
    set(open, open);
    out.frequency = out.ride_frequency = std::nullopt;
    return loaded;
  }
  const auto felt_at = [&](double f) { return with_tyre(rate_at(f), tyre); };
  const double bounce = settled_frequency(rate_at, mass, *soft, *hard);
  const double felt = settled_frequency(felt_at, mass, *body_frequency(with_tyre(open, tyre), mass),
                                        *body_frequency(with_tyre(shut, tyre), mass));
  set(rate_at(bounce), rate_at(felt));
  return loaded;
}

} // namespace mavrel::assess
