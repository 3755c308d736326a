#include "assess/air/leaking.h"

#include "build/names.h"

#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double usual_lower = 0.015; // m under road height where no road window is known

} // namespace

Expected<double> held_volume(const AirGiven& given, std::size_t place) {
  if (place >= 4) {
    const double V = tank_volume(given.parts);
    if (!(V > 0)) return refuse(words("The kit has no {0}."), {row_of(KitRole::tank).label});
    return V;
  }
  const FittedEnd& end = given.ends[place / 2]->fitted;
  if (!end.model.map || !end.bag || !end.road)
    return refuse(words("{0}: without height, bag and a road preset nobody knows how much air it holds."),
                  {corner_name(place)});
  const auto at = end.on().place(*end.road);
  if (!at) return refuse(words("{0}: the bag's card has no answer at road height."), {corner_name(place)});
  return at->section.volume + end.model.setting.added_volume;
}

Expected<Leaking> leaking(const AirGiven& given, const LeakAsked& asked) {
  const auto volume = held_volume(given, asked.place);
  if (!volume) return refuse(volume.error());
  const auto found = air::find_leak(asked.readings, *volume, given.surroundings.altitude);
  if (!found) return refuse(found.error());
  Leaking out;
  out.leak = *found;
  out.volume = *volume;
  const air::LeakReading *first = &asked.readings.front(), *last = first;
  for (const air::LeakReading& r : asked.readings) {
    if (r.time < first->time) first = &r;
    if (r.time > last->time) last = &r;
  }
  const air::Ambient ambient{given.surroundings.altitude, given.surroundings.temperature};
  out.fell = first->gauge_pressure - last->gauge_pressure;
  out.fell_by_cold = (first->gauge_pressure + ambient.pressure()) * (1 - last->temperature / first->temperature);
  out.cold_night = !found->leaks() && out.fell > 2e3 && out.fell_by_cold > 0.5 * out.fell;
  if (!found->leaks()) return out;
  if (asked.place < 4) {
    const End e = asked.place < 2 ? End::front : End::rear;
    const FittedEnd& end = given.ends[build::at(e)]->fitted;
    const auto& window = given.ends[build::at(e)]->assessment.windows.road;
    const BagOnEnd on = end.on();
    out.too_low_at = window ? window->low.height : *end.road - usual_lower;
    const auto mass_at = [&](double H) -> std::optional<double> {
      const auto place = on.place(H);
      const auto& loads = end.model.loads;
      if (!place || asked.load_case >= loads.size() || !loads[asked.load_case]) return std::nullopt;
      const double p = on.side_pressures(*place, *loads[asked.load_case])[asked.place % 2];
      return air::air_mass(p + ambient.pressure(), place->section.volume + end.model.setting.added_volume,
                           given.surroundings.temperature);
    };
    const auto high = mass_at(*end.road), low = mass_at(out.too_low_at);
    if (high && low && *high > *low) out.too_low_after = (*high - *low) / found->loss;
  }
  if (const auto cut = cut_pressures(given.parts))
    if (const auto filling = fill_tank(given, cut->first, cut->second); filling && filling->time && filling->air > 0)
      out.compressor_day = found->loss * 86400 / filling->air * *filling->time;
  return out;
}

} // namespace mavrel::assess
