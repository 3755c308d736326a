#include "assess/bags/softening.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

constexpr int curve_points = 161;
constexpr double least_bore = 0.001, most_bore = 0.08; // m, lines that can be bought

std::vector<StiffnessPoint> curve_of(const BagOnEnd& bag, const PosedEnd& at) {
  std::vector<StiffnessPoint> out;
  out.reserve(curve_points);
  for (int i = 0; i < curve_points; ++i) {
    const double f = lowest_frequency * std::pow(highest_frequency / lowest_frequency, i / (curve_points - 1.0));
    const auto K = bag.softened(at.place, at.state.pressure, f).stiffness(f);
    out.push_back({f, bag.wheel_rate(at.place, K.real(), at.force), std::atan2(K.imag(), K.real())});
  }
  return out;
}

/// The bore that gives a line of this length the conductance asked for.
std::optional<double> bore_for(double conductance, const FittedEnd& end, const PosedEnd& at) {
  const air::BagSetting& setting = end.model.setting;
  const double swing =
      air::line_swing(at.place.section, at.state.pressure, setting, usual_swing * at.place.map.motion_ratio);
  const double p_abs = at.state.pressure + setting.ambient.pressure();
  const auto passes = [&](double bore) {
    return std::log(
        air::swing_conductance(air::tube(bore, end.model.line_length), p_abs, setting.ambient.temperature, swing) /
        conductance);
  };
  return curve::crossing(passes, least_bore, most_bore);
}

double hop_frequency(const FittedEnd& end, double wheel_rate) {
  return std::sqrt((end.model.tyre_rate + std::max(0.0, wheel_rate)) / end.model.unsprung_mass) /
         (2 * std::numbers::pi);
}

void find_bore(const FittedEnd& end, const PosedEnd& at, const air::SoftenedBag& soft, Softening& out) {
  if (!out.bounce_open) {
    out.reason = {words("The end would not hold itself up with the volume open, so no bore helps."), {}};
    return;
  }
  const double middle = std::sqrt(*out.bounce_open * out.hop);
  out.fitting_bore = bore_for(soft.conductance_for_middle(middle), end, at);
  if (!out.fitting_bore) {
    out.reason = {words("No bore from {0} to {1} puts the change between bounce and hop with a line {2} long."),
                  {metres(least_bore), metres(most_bore), metres(end.model.line_length)}};
    return;
  }
  const double wide = std::sqrt(out.ends / out.begins); // either side of the middle
  if (middle / wide >= *out.bounce_open && middle * wide <= out.hop)
    out.reason = {
        words("{0} puts the change from {1} to {2}: above body bounce at {3}, so the volume softens it, and below "
              "wheel hop at {4}, so it stays firm there."),
        {metres(*out.fitting_bore, 1), hertz(middle / wide), hertz(middle * wide), hertz(*out.bounce_open),
         hertz(out.hop, 1)}};
  else
    out.reason = {
        words("{0} puts the middle of the change at {1}, between body bounce at {2} and wheel hop at {3}. With so "
              "large a volume the change is wider than the room between them."),
        {metres(*out.fitting_bore, 1), hertz(middle), hertz(*out.bounce_open), hertz(out.hop, 1)}};
}

/// Added volume at which the quick rate, tyre and all, becomes `wanted`; none where no volume does it.
std::optional<double> volume_for_rate(const FittedEnd& end, const PosedEnd& at, double wanted) {
  const BagOnEnd bag = end.on();
  air::BagSetting bare = end.model.setting;
  bare.added_volume = 0;
  const auto rate = [&](double added) {
    air::BagSetting with = bare;
    with.added_volume = added;
    const double bag_rate = air::sealed_rate(at.place.section, at.state.pressure, with.n, with);
    return with_tyre(bag.wheel_rate(at.place, bag_rate, at.force), end.model.tyre_rate);
  };
  return curve::crossing(rate, 0, 0.1, wanted);
}

void find_volume_wanted(double frequency_high, const FittedEnd& end, const PosedEnd& at, Softening& out) {
  if (!out.ride || *out.ride <= frequency_high) return;
  const double turn = 2 * std::numbers::pi * frequency_high;
  out.volume_wanted = volume_for_rate(end, at, turn * turn * at.load.sprung_mass);
}

/// Air that one lift from parked to the highest preset takes.
void find_air(const FittedEnd& end, std::size_t load_case, Softening& out) {
  std::optional<double> top;
  for (const auto& H : end.presets)
    if (H && (!top || *H > *top)) top = H;
  if (!end.parked || !top) return;
  const auto low = posed_end(end, *end.parked, load_case), high = posed_end(end, *top, load_case);
  if (!low || !high) return;
  const air::Ambient& air = end.model.setting.ambient;
  const auto mass = [&](const PosedEnd& at, double volume) {
    return 2 * air::air_mass(at.state.pressure + air.pressure(), volume, air.temperature);
  };
  out.air_bag = mass(*high, high->place.section.volume) - mass(*low, low->place.section.volume);
  out.air_added = mass(*high, out.added) - mass(*low, out.added);
}

} // namespace

Expected<Softening> softening(const FittedEnd& end, double H, std::size_t load_case, double frequency_high,
                              bool with_curve) {
  const auto at = posed_end(end, H, load_case);
  if (!at) return refuse(at.error());
  const BagOnEnd bag = end.on();
  const air::SoftenedBag soft = bag.softened_in_the_middle(at->place, at->state.pressure);
  Softening out;
  out.volume = at->place.section.volume;
  out.added = end.model.setting.added_volume;
  out.open_rate = bag.wheel_rate(at->place, soft.open_rate(), at->force);
  out.shut_rate = bag.wheel_rate(at->place, soft.shut_rate(), at->force);
  out.beyond = at->state.beyond;
  out.bounce = at->state.frequency;
  out.ride = at->state.ride_frequency;
  out.bounce_open = body_frequency(out.open_rate, at->load.sprung_mass);
  out.bounce_shut = body_frequency(out.shut_rate, at->load.sprung_mass);
  out.hop = hop_frequency(end, out.shut_rate);
  if (out.added > 0) {
    out.begins = soft.begins();
    out.middle = soft.middle();
    out.ends = soft.ends();
    if (out.bounce) {
      const auto K = bag.softened(at->place, at->state.pressure, *out.bounce).stiffness(*out.bounce);
      const double MR = at->place.map.motion_ratio;
      out.line_damping = K.imag() * MR * MR / (2 * at->state.wheel_rate);
    }
    find_bore(end, *at, soft, out);
  }
  find_volume_wanted(frequency_high, end, *at, out);
  find_air(end, load_case, out);
  if (with_curve) out.curve = curve_of(bag, *at);
  return out;
}

std::optional<double> bore_between(const FittedEnd& end, double H, std::size_t load_case) {
  const auto at = posed_end(end, H, load_case);
  if (!at || end.model.setting.added_volume == 0) return std::nullopt;
  const BagOnEnd bag = end.on();
  const air::SoftenedBag soft = bag.softened_in_the_middle(at->place, at->state.pressure);
  const auto bounce = body_frequency(bag.wheel_rate(at->place, soft.open_rate(), at->force), at->load.sprung_mass);
  if (!bounce) return std::nullopt;
  const double hop = hop_frequency(end, bag.wheel_rate(at->place, soft.shut_rate(), at->force));
  return bore_for(soft.conductance_for_middle(std::sqrt(*bounce * hop)), end, *at);
}

} // namespace mavrel::assess
