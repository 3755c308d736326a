#include "assess/air/leaking.h"

#include "build/names.h"

#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

constexpr double usual_lower = 0.015; // m under road height where no road window is known

} // namespace

Expected<double> held_volume(const AirGiven& given, std::size_t place) {
  if (place == tank_place) {
    const double V = tank_volume(given.parts);
    if (!(V > 0)) return refuse(words("The kit has no {0}."), {row_of(KitRole::tank).label});
    return V;
  }
  const std::size_t corner = *corner_of(place);
  const FittedEnd& end = given.ends[corner / 2]->fitted;
  if (!end.model.map || !end.bag || !end.road)
    return refuse(words("{0}: without height, bag and a road preset nobody knows how much air it holds."),
                  {corner_name(corner)});
  const auto at = end.on().place(*end.road);
  if (!at) return refuse(words("{0}: the bag's card has no answer at road height."), {corner_name(corner)});
  double line = 0;
  if (const shelf::Part* part = given.parts[corner < 2 ? KitRole::front_line : KitRole::rear_line];
      part && place < tank_place)
    line = std::numbers::pi / 4 * *part->bore * *part->bore * corner_line_length(given, corner);
  return at->section.volume + end.model.setting.added_volume + line;
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
  if (const auto corner = corner_of(asked.place)) {
    const End e = *corner < 2 ? End::front : End::rear;
    const FittedEnd& end = given.ends[build::at(e)]->fitted;
    const auto& window = given.ends[build::at(e)]->assessment.windows.road;
    const BagOnEnd on = end.on();
    out.too_low_at = window ? window->low.height : *end.road - usual_lower;
    const auto mass_at = [&](double H) -> std::optional<double> {
      const auto place = on.place(H);
      const auto& loads = end.model.loads;
      if (!place || asked.load_case >= loads.size() || !loads[asked.load_case]) return std::nullopt;
      const double p = on.side_pressures(*place, *loads[asked.load_case])[*corner % 2];
      return air::air_mass(p + ambient.pressure(), place->section.volume + end.model.setting.added_volume,
                           given.surroundings.temperature);
    };
    const auto high = mass_at(*end.road), low = mass_at(out.too_low_at);
    if (high && low && *high > *low) out.too_low_after = (*high - *low) / found->loss;
  }
  if (const auto a_kilogram = run_a_kilogram(given)) out.compressor_day = found->loss * 86400 * *a_kilogram;
  return out;
}

LeakPlaces leaks_together(const AirGiven& given, const std::vector<std::vector<air::LeakReading>>& readings,
                          std::size_t load_case) {
  LeakPlaces out;
  double most = 0;
  for (std::size_t place = 0; place < leak_places && place < readings.size(); ++place) {
    if (readings[place].empty()) continue;
    out.places[place] = leaking(given, {place, load_case, readings[place]});
    const auto& found = *out.places[place];
    if (found && found->leak.leaks() && found->leak.loss > most) most = found->leak.loss, out.worst = place;
  }
  for (std::size_t corner = 0; corner < 4; ++corner) {
    const auto &whole = out.places[corner], &alone = out.places[bag_places + corner];
    if (!whole || !alone || !*whole || !*alone || !(*whole)->leak.leaks()) continue;
    out.by_bag[corner] = std::fmax(0, (*alone)->leak.loss);
    out.by_line[corner] = std::fmax(0, (*whole)->leak.loss - *out.by_bag[corner]);
  }
  return out;
}

} // namespace mavrel::assess
