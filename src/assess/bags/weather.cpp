#include "assess/bags/weather.h"

#include "assess/end/travel.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;

namespace {

constexpr double lapse_rate = 0.0065; // K/m, air cools so with altitude

air::Ambient surroundings_of(WeatherAnswer::What what, const build::Surroundings& now) {
  switch (what) {
  case WeatherAnswer::What::cold_night:
    return {now.altitude, now.night_temperature};
  case WeatherAnswer::What::mountain_pass:
    return {now.pass_altitude, now.temperature - lapse_rate * (now.pass_altitude - now.altitude)};
  case WeatherAnswer::What::worked_hour:
    return {now.altitude, now.worked_temperature};
  }
  return {};
}

std::optional<SealedEnd> sealed_end(const FittedEnd& end, const Window& reach, double H, std::size_t load_case,
                                    double shut_off, const air::Ambient& to) {
  const auto start = posed_end(end, H, load_case);
  if (!start) return std::nullopt;
  const auto mean = sealed_corner(end, reach, H, start->load.sprung_mass, shut_off, to);
  if (!mean) return std::nullopt;
  SealedEnd out{H,
                mean->H,
                start->state.pressure,
                mean->pressure,
                mean->rests_on,
                air::beyond(end.bag->card, mean->pressure),
                {mean->H, mean->H},
                0};
  // Joined sides share one pressure: they sink together.
  if (end.model.joined) return out;
  const auto masses = end.model.bag_masses(start->load);
  for (const Side side : build::both_sides) {
    const auto corner = sealed_corner(end, reach, H, masses[at(side)], shut_off, to);
    if (!corner) return out;
    out.side_to[at(side)] = corner->H;
  }
  if (const auto& base = end.model.base) out.lean = std::atan((out.side_to[1] - out.side_to[0]) / *base);
  return out;
}

} // namespace

const char* weather_name(WeatherAnswer::What what) {
  switch (what) {
  case WeatherAnswer::What::cold_night:
    return words("Cold night");
  case WeatherAnswer::What::mountain_pass:
    return words("Mountain pass");
  case WeatherAnswer::What::worked_hour:
    return words("Worked hard");
  }
  return "";
}

Expected<SealedCorner> sealed_corner(const FittedEnd& end, const Window& reach, double H, double sprung_mass,
                                     double shut_off, const air::Ambient& to) {
  const BagOnEnd bag = end.on();
  const air::BagSetting& setting = end.model.setting;
  const auto pressure = bag.pressure(H, sprung_mass);
  if (!pressure) return refuse(words("The bag has no answer at {0}."), {metres(H)});
  const double Va = setting.added_volume;
  const double sealed =
      air::air_mass(*pressure + setting.ambient.pressure(), bag.place(H)->section.volume + Va, shut_off);
  const double RT = air::pressure_work(to.temperature);
  // Air that would be needed to carry the load at H there, less what is sealed in: the car stands where this is
  // nothing.
  const auto lacking = [&](double at_H) {
    const auto place = bag.place(at_H);
    const auto p = bag.pressure(at_H, sprung_mass);
    return place && p ? (*p + to.pressure()) * (place->section.volume + Va) / RT - sealed : std::nan("");
  };
  const auto held_by = [&](double at_H, RestsOn what) -> SealedCorner {
    return {at_H, sealed * RT / (bag.place(at_H)->section.volume + Va) - to.pressure(), what};
  };
  if (!reach.contains(H)) return refuse(outside_reach(H, reach));
  // What ends its way is metal and rubber, not a pressure: a car that warms rises past those. And the card: beyond it
  // nobody knows.
  const auto travel = free_travel(bag, Meeting::standing);
  if (!travel) return refuse(words("No height is left between its stops."));
  const auto [card_low, card_high] = bag.heights();
  const double low = std::max(travel->low, card_low), high = std::min(travel->high, card_high);
  const double here = std::clamp(H, low, high);
  const double short_here = lacking(here);
  if (!std::isfinite(short_here)) return refuse(words("The bag has no answer at {0}."), {metres(H)});
  const bool down = short_here > 0;
  // Step outward to the first crossing: with an odd card there may be several, and the car stops at the nearest.
  const double end_of_travel = down ? low : high;
  const auto steps = std::max(1, static_cast<int>(std::ceil(std::abs(end_of_travel - here) / 0.002)));
  double from = here;
  for (int i = 1; i <= steps; ++i) {
    const double next = i == steps ? end_of_travel : here + (end_of_travel - here) * i / steps;
    if (const auto found = curve::crossing(lacking, std::min(from, next), std::max(from, next)))
      return SealedCorner{*found, bag.pressure(*found, sprung_mass).value_or(0), RestsOn::air};
    from = next;
  }
  return held_by(end_of_travel, down ? RestsOn::low_stop : RestsOn::high_stop);
}

std::vector<WeatherAnswer> weather(const WeatherGiven& given) {
  std::vector<WeatherAnswer> out;
  using What = WeatherAnswer::What;
  for (const What what : {What::cold_night, What::mountain_pass, What::worked_hour}) {
    const build::Surroundings& now = given.surroundings;
    const air::Ambient to = surroundings_of(what, now);
    // The night begins with bags that worked; a pass and a hard hour begin with bags as warm as the air.
    const double shut_off = now.temperature + (what == What::cold_night ? now.shut_off_above : 0);
    WeatherAnswer& answer = out.emplace_back();
    answer.what = what;
    answer.begins = shut_off;
    answer.temperature = to.temperature;
    answer.altitude = to.altitude;
    for (const End end : build::both_ends) {
      const auto& reach = given.ends[at(end)]->assessment.windows.reach;
      const auto& H = given.H[at(end)];
      if (reach && H)
        answer.ends[at(end)] = sealed_end(given.ends[at(end)]->fitted, *reach, *H, given.load_case, shut_off, to);
    }
    if (answer.ends[0] && answer.ends[1] && given.wheelbase) {
      const auto rise = [&](std::size_t e) { return answer.ends[e]->to - answer.ends[e]->from; };
      answer.rake = std::atan((rise(1) - rise(0)) / *given.wheelbase);
    }
  }
  return out;
}

} // namespace mavrel::assess
