#include "assess/air/figures.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

namespace {

constexpr double longest_fill = 6 * 3600; // s

air::Stopped asks(const std::stop_token& stop) {
  return [stop] { return stop.stop_requested(); };
}

/// A shop's air at a network's first volume: its receiver is so large that its pressure stays.
void add_shop(air::Network& net) {
  net.compressors.clear();
  net.volumes.push_back({"shop", 100, shop_pressure, net.ambient_temperature, 1e6});
  net.lines.push_back({"hose", net.volumes.size() - 1, 0, air::tube(shop_hose_bore, shop_hose_length), true, true});
}
constexpr double shop_leaves = 0.05e5; // Pa that nobody waits for: the last of it takes for ever

Message no_lift() {
  return {words("There is no lift yet: set a parked and a road height at both ends."), {}};
}

} // namespace

std::optional<std::pair<std::size_t, std::size_t>> wished_lift(const AirGiven& given) {
  const auto from = preset_of(given, build::PresetUse::parked), to = preset_of(given, build::PresetUse::road);
  if (!from || !to) return std::nullopt;
  return std::pair(*from, *to);
}

Expected<LiftsFromFull> lifts_from_full(const AirGiven& given, build::MoveOrder order, std::size_t load_case, int most,
                                        const std::stop_token& stop,
                                        const std::optional<std::array<std::array<double, 2>, 2>>& heights) {
  const auto lift = wished_lift(given);
  if (!lift) return refuse(no_lift());
  const auto full = full_tank(given);
  if (!full) return refuse(words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label});
  const Standing parked = *standing_of(given, lift->first);
  const auto low = parked.aired_out || !heights ? parked.heights : (*heights)[0];
  const auto high = heights ? (*heights)[1] : *heights_of(given, lift->second);
  const auto car = car_air(given, {low, load_case, *full, false, parked.aired_out, true});
  if (!car) return refuse(car.error());
  auto begun = air::Simulation::begin(car->network);
  if (!begun) return refuse(begun.error());
  air::Simulation& now = *begun;
  ValveWorker worker(now, *car, stop);
  LiftsFromFull out;
  while (out.lifts < most) {
    const double before = now.volumes()[car->tank].mass;
    const auto up = worker.move_to(corners_of(high), order);
    if (!up) return refuse(up.error());
    if (out.lifts == 0) {
      out.first = *up;
      out.air = before - now.volumes()[car->tank].mass;
      out.tank_after_first = now.volumes()[car->tank].gauge_pressure;
    }
    if (!*up) out.stuck = worker.stuck(), out.short_by = worker.short_by();
    for (const CarAir::Circuit& circuit : car->circuits) {
      const std::size_t c = circuit.corners.front();
      if (corners_of(high)[c] - car->travel[c].second <= preset_short_by) continue;
      // It gets as far as its stop at most, which is not where it is wanted.
      const double lacks = corners_of(high)[c] - worker.height(c);
      if (lacks > out.short_by) out.stuck = circuit_name(circuit.corners), out.short_by = lacks;
    }
    if (!*up || !out.stuck.empty()) {
      if (out.lifts == 0) out.first.reset();
      return out;
    }
    ++out.lifts;
    if (out.lifts == most) break;
    const auto down = worker.move_to(corners_of(low), order);
    if (!down) return refuse(down.error());
    if (parked.aired_out)
      if (const auto empty = worker.air_out(); !empty) return refuse(empty.error());
  }
  out.more = true;
  return out;
}

Expected<Filling> fill_tank(const AirGiven& given, double from, double to, const std::stop_token& stop) {
  auto net = tank_alone(given, from, true);
  if (!net) return refuse(net.error());
  Filling out;
  out.by_shop = by_shop_air_alone(given.kit);
  out.air_temperature = net->ambient_temperature;
  if (from >= to) {
    out.time = 0;
    return out;
  }
  if (out.by_shop) {
    add_shop(*net);
    auto begun = air::Simulation::begin(*net);
    if (!begun) return refuse(begun.error());
    const double before = begun->volumes()[0].mass;
    air::Watch full;
    full.what = air::Watch::What::pressure, full.volume = 0, full.level = std::min(to, shop_pressure) - shop_leaves;
    if (begun->volumes()[0].gauge_pressure < full.level) {
      const auto ended = begun->run(longest_fill, std::span(&full, 1), 60, {}, asks(stop));
      if (!ended) return refuse(ended.error());
      if (!ended->watch) return out;
    }
    out.time = begun->time();
    out.air = begun->volumes()[0].mass - before;
    out.air_temperature = begun->volumes()[0].temperature;
    return out;
  }
  for (const air::Compressor& c : net->compressors)
    if (!(air::delivery(c, to) > 0)) return out; // it gives nothing before the tank is full
  for (air::Compressor& c : net->compressors)
    c.cut_out = to, c.cut_in = std::min(c.cut_in, to - 1e4);
  auto begun = air::Simulation::begin(*net);
  if (!begun) return refuse(begun.error());
  air::Simulation& now = *begun;
  const double before = now.volumes()[0].mass;
  if (net->compressors.size() > 1) {
    now.allow(1, false);
    if (const auto ran = now.run(given.kit.stagger, {}, 0, {}, asks(stop)); !ran) return refuse(ran.error());
    now.allow(1, true);
  }
  air::Watch full;
  full.what = air::Watch::What::pressure, full.volume = 0, full.level = to - 10;
  if (now.volumes()[0].gauge_pressure < to - 10) {
    const auto ended = now.run(longest_fill, std::span(&full, 1), 60, {}, asks(stop));
    if (!ended) return refuse(ended.error());
    if (!ended->watch) return out;
  }
  out.time = now.time();
  out.rested = now.time() - now.run_time(0);
  out.air = now.volumes()[0].mass - before;
  out.air_temperature = now.volumes()[0].temperature;
  return out;
}

Expected<double> run_a_kilogram(const AirGiven& given, const std::stop_token& stop) {
  const auto cut = cut_pressures(given.parts);
  if (!cut) return refuse(words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label});
  const auto filling = fill_tank(given, cut->first, cut->second, stop);
  if (!filling) return refuse(filling.error());
  if (!filling->time || !(filling->air > 0)) return refuse(words("The compressor never gets the tank to its cut-out."));
  return (*filling->time - filling->rested) / filling->air;
}

Expected<FirstFill> first_fill(const AirGiven& given, const std::stop_token& stop) {
  const auto full = full_tank(given);
  if (!full) return refuse(words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label});
  auto net = tank_alone(given, 0, false);
  if (!net) return refuse(net.error());
  FirstFill out;
  const bool by_shop = by_shop_air_alone(given.kit);
  if (!by_shop) {
    const auto own = fill_tank(given, 0, *full, stop);
    if (!own) return refuse(own.error());
    out.own_time = own->time;
  }
  if (given.kit.shop_inlet == build::Fitted::no) return out;
  add_shop(*net);
  auto begun = air::Simulation::begin(*net);
  if (!begun) return refuse(begun.error());
  out.shop_pressure = std::min(shop_pressure, *full);
  air::Watch there;
  there.what = air::Watch::What::pressure, there.volume = 0, there.level = out.shop_pressure - shop_leaves;
  const auto ended = begun->run(3600, std::span(&there, 1), 60, {}, asks(stop));
  if (!ended) return refuse(ended.error());
  if (ended->watch) out.shop_time = begun->time();
  if (by_shop) return out;
  const auto rest = fill_tank(given, begun->volumes()[0].gauge_pressure, *full, stop);
  if (!rest) return refuse(rest.error());
  out.rest_time = rest->time;
  return out;
}

Expected<TyreAir> tyre_air(const AirGiven& given, const std::stop_token& stop) {
  if (given.kit.tyre_outlet == build::Fitted::no) return refuse(words("The kit has no outlet for tyres."));
  if (!given.tyre_air[0] || !given.tyre_air[1])
    return refuse(words("How much air a tyre holds is not known: its code is missing at one end."));
  const auto full = full_tank(given);
  if (!full) return refuse(words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label});
  TyreAir out;
  constexpr int most = 40;
  for (const bool helped : {false, true}) {
    auto net = tank_alone(given, *full, false);
    if (!net) return refuse(net.error());
    if (!helped) net->compressors.clear();
    const int count = helped ? 4 : most;
    const std::size_t first = net->lines.size();
    for (int i = 0; i < count; ++i) {
      net->volumes.push_back({"tyre " + std::to_string(i + 1), *given.tyre_air[i % 4 < 2 ? 0 : 1], tyre_from,
                              net->ambient_temperature, 8});
      net->lines.push_back({"", 0, net->volumes.size() - 1, tyre_valve, false, false});
    }
    auto begun = air::Simulation::begin(*net);
    if (!begun) return refuse(begun.error());
    int filled = 0;
    for (; filled < count; ++filled) {
      const auto tyre = static_cast<std::size_t>(filled);
      air::Watch there;
      there.what = air::Watch::What::pressure, there.volume = tyre + 1, there.level = tyre_to;
      begun->open(first + tyre, true);
      const double before = begun->time();
      const auto ended = begun->run(before + 1800, std::span(&there, 1), 60, {}, [&] {
        return asks(stop)() ||
               (!helped && begun->volumes()[0].gauge_pressure < begun->volumes()[tyre + 1].gauge_pressure + 2e3);
      });
      begun->open(first + tyre, false);
      if (!ended || !ended->watch) break;
    }
    if (stop.stop_requested()) return refuse(words("Stopped."));
    if (helped && filled == 4) out.time = begun->time();
    if (!helped) out.tyres = filled;
  }
  return out;
}

std::vector<build::DayMove> moves_of_day(const AirGiven& given) {
  if (given.wishes.day.size() > 0) return {given.wishes.day.begin(), given.wishes.day.end()};
  const auto lift = wished_lift(given);
  if (!lift) return {};
  return {{given.presets[lift->first], given.presets[lift->second], 2, {}},
          {given.presets[lift->second], given.presets[lift->first], 2, {}}};
}

namespace {

/// kg of air in the bags at road height in a load case, with what is beside them; none where something is not known.
std::optional<double> held_at_road(const AirGiven& given, std::size_t load_case) {
  const auto road = preset_of(given, build::PresetUse::road);
  if (!road) return std::nullopt;
  const auto heights = *heights_of(given, *road);
  const air::Ambient ambient{given.surroundings.altitude, given.surroundings.temperature};
  double out = 0;
  for (const End end : build::both_ends) {
    if (on_springs(given, end)) continue;
    const FittedEnd& fitted = given.ends[build::at(end)]->fitted;
    if (!fitted.model.map || !fitted.bag || load_case >= fitted.model.loads.size() || !fitted.model.loads[load_case])
      return std::nullopt;
    const BagOnEnd on = fitted.on();
    const auto place = on.place(heights[build::at(end)]);
    if (!place) return std::nullopt;
    for (const double p : on.side_pressures(*place, *fitted.model.loads[load_case]))
      out += air::air_mass(p + ambient.pressure(), place->section.volume + fitted.model.setting.added_volume,
                           ambient.temperature);
  }
  return out;
}

/// kg in bags and tank when well.
double held_in_all(const AirGiven& given) {
  const air::Ambient ambient{given.surroundings.altitude, given.surroundings.temperature};
  const double tank = full_tank(given) ? air::air_mass(*full_tank(given) + ambient.pressure(), tank_volume(given.parts),
                                                       ambient.temperature)
                                       : 0;
  return tank + held_at_road(given, 0).value_or(0);
}

/// kg that keeping its height takes: what the heaviest case holds more than the first, once a day, and as much again
/// in corrections on the way.
double leveling_a_day(const AirGiven& given) {
  if (!given.levels) return 0;
  const auto light = held_at_road(given, 0), heavy = held_at_road(given, heaviest_case(given));
  return light && heavy ? corrections * std::fmax(0, *heavy - *light) : 0;
}

} // namespace

Expected<AirDay> air_day(const AirGiven& given, const std::stop_token& stop) {
  AirDay out;
  for (const build::DayMove& move : moves_of_day(given)) {
    const auto index = [&](const std::string& name) {
      return static_cast<std::size_t>(std::find(given.presets.begin(), given.presets.end(), name) -
                                      given.presets.begin());
    };
    const std::size_t from = index(move.from), to = index(move.to);
    if (from == given.presets.size() || to == given.presets.size())
      return refuse(words("The day has a move from {0} to {1}; the brief has no such preset."), {move.from, move.to});
    const auto lift = simulate_move(given, {from, to, given.kit.order, 0, false, {}}, false, stop);
    if (stop.stop_requested()) return refuse(words("Stopped."));
    if (!lift || !lift->arrived) {
      out.moves.push_back(-1);
      out.unmade.push_back(lift ? Message{words("{0} to {1}: {2} stops {3} short."),
                                          {move.from, move.to, lift->stuck, metres(std::abs(lift->short_by))}}
                                : Message{words("{0} to {1}: {2}"), {move.from, move.to, lift.error()}});
      continue;
    }
    out.moves.push_back(lift->air_used);
    out.air += std::fmax(0, lift->air_used) * move.times;
  }
  out.leaks = usual_leak_a_day * held_in_all(given);
  out.leveling = leveling_a_day(given);
  out.air += out.leaks + out.leveling;
  out.by_shop = by_shop_air_alone(given.kit);
  if (out.by_shop) return out; // nothing of the car's own runs for it
  const auto a_kilogram = run_a_kilogram(given, stop);
  if (!a_kilogram) return refuse(a_kilogram.error());
  out.run = out.air * *a_kilogram;
  if (given.wishes.drive > 0) out.share_of_drive = out.run / given.wishes.drive;
  return out;
}

std::optional<KitFigures> kit_figures(const AirGiven& given, const std::stop_token& stop) {
  constexpr int most_lifts = 20;
  const auto full = full_tank(given);
  const auto in_case = [&](std::size_t load_case) {
    auto lifts = lifts_from_full(given, given.kit.order, load_case, most_lifts, stop);
    Expected<Filling> ready = !lifts ? Expected<Filling>(refuse(lifts.error()))
                                     : fill_tank(given, lifts->tank_after_first, full.value_or(0), stop);
    return CaseLifts{load_case, std::move(lifts), std::move(ready)};
  };
  CaseLifts first = in_case(0);
  KitFigures out{std::move(first.lifts),
                 std::move(first.ready),
                 first_fill(given, stop),
                 tyre_air(given, stop),
                 air_day(given, stop),
                 {},
                 {}};
  if (const std::size_t heaviest = heaviest_case(given); heaviest != 0) out.heaviest = in_case(heaviest);
  if (out.lifts && out.lifts->first && out.ready && out.ready->time && !out.ready->by_shop)
    out.battery =
        on_battery(given, out.lifts->tank_after_first, full.value_or(0), *out.ready->time - out.ready->rested);
  if (stop.stop_requested()) return std::nullopt;
  return out;
}

} // namespace mavrel::assess
