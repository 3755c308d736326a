#include "assess/faults/fault_car.h"

#include "assess/air/leaking.h"
#include "assess/fit_up/asking.h"
#include "assess/leveling/by_hand.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

namespace {

constexpr double way_shares[] = {0.06, 0.12, 0.22, 0.38, 0.62, 1.0};
constexpr double tank_shares[] = {0.2, 0.35, 0.5, 0.7, 1.0};
constexpr std::size_t sink_points = 24; // even shares of the air
constexpr double longest = 200;         // s that a narrowed way is timed for the table

/// m that a corner sinks when so much of its air is gone: the height at which what is left carries it.
std::vector<double> sinks_of(const AirGiven& given, std::size_t corner, double road, double lowest,
                             std::size_t load_case) {
  const FittedEnd& end = given.ends[corner / 2]->fitted;
  const BagOnEnd on = end.on();
  const air::Ambient ambient{given.surroundings.altitude, given.surroundings.temperature};
  const auto air_at = [&](double H) -> std::optional<double> { // Pa·m³: mass but for a constant
    const auto place = on.place(H);
    if (!place) return std::nullopt;
    const double p = on.side_pressures(*place, *end.model.loads[load_case])[corner % 2];
    return (p + ambient.pressure()) * (place->section.volume + end.model.setting.added_volume);
  };
  const auto whole = air_at(road);
  std::vector<double> out(sink_points + 1, road - lowest);
  out.front() = 0;
  if (!whole || !(road > lowest)) return out;
  // Downwards in small steps; where the card ends before the travel does, it is on its stop.
  constexpr int steps = 200;
  double before_share = 0, before_sunk = 0;
  std::size_t next = 1;
  for (int i = 1; i <= steps && next <= sink_points; ++i) {
    const double sunk = (road - lowest) * i / steps;
    const auto left = air_at(road - sunk);
    if (!left) break;
    const double lost = 1 - *left / *whole;
    while (next <= sink_points && static_cast<double>(next) / sink_points <= lost) {
      const double wanted = static_cast<double>(next) / sink_points;
      out[next++] = lost > before_share
                        ? before_sunk + (sunk - before_sunk) * (wanted - before_share) / (lost - before_share)
                        : sunk;
    }
    before_share = lost, before_sunk = sunk;
  }
  return out;
}

TimesOver cleaned(TimesOver times) {
  // A way so narrow that it was not waited for says nothing: the table goes on as its last two points.
  for (std::size_t i = times.shares.size(); i-- > 0;)
    if (!(times.seconds[i] > 0)) {
      times.shares.erase(times.shares.begin() + static_cast<std::ptrdiff_t>(i));
      times.seconds.erase(times.seconds.begin() + static_cast<std::ptrdiff_t>(i));
    }
  return times;
}

double rate_of_leak(double conductance, double volume) {
  // m = p·V/(R·T) loses C·p·ρ0 a second where the hole chokes: of it C·ρ0·R·T0/V, and ρ0·R·T0 is 100 kPa.
  return conductance * 1e5 / volume;
}

} // namespace

double TimesOver::at(double share) const {
  if (shares.empty()) return INFINITY;
  const double x = std::log(std::max(share, 1e-9));
  if (shares.size() == 1) return seconds.front() * shares.front() / std::exp(x);
  std::size_t i = 1;
  while (i + 1 < shares.size() && shares[i] < share)
    ++i;
  const double x0 = std::log(shares[i - 1]), x1 = std::log(shares[i]);
  const double y0 = std::log(seconds[i - 1]), y1 = std::log(seconds[i]);
  return std::exp(y0 + (y1 - y0) * (x - x0) / (x1 - x0));
}

double FaultCar::hourly(std::size_t corner, double c) const {
  return 1 - std::exp(-3600 * rate_of_leak(c, air[corner]));
}
double FaultCar::conductance(std::size_t corner, double hourly_share) const {
  return -std::log1p(-std::min(hourly_share, 0.999)) / 3600 * air[corner] / 1e5;
}
double FaultCar::tank_hourly(double c) const {
  return tank_air > 0 ? 1 - std::exp(-3600 * rate_of_leak(c, tank_air)) : 0;
}
double FaultCar::tank_conductance(double hourly_share) const {
  return -std::log1p(-std::min(hourly_share, 0.999)) / 3600 * tank_air / 1e5;
}
double FaultCar::sunk(std::size_t corner, double share_lost) const {
  const auto& table = sinks[corner];
  if (table.size() < 2) return 0;
  const double x = std::clamp(share_lost, 0.0, 1.0) * static_cast<double>(table.size() - 1);
  const auto i = std::min(static_cast<std::size_t>(x), table.size() - 2);
  return table[i] + (table[i + 1] - table[i]) * (x - static_cast<double>(i));
}

const std::vector<std::size_t>& FaultCar::joined(std::size_t corner) const {
  for (const auto& circuit : circuits)
    if (std::find(circuit.begin(), circuit.end(), corner) != circuit.end()) return circuit;
  return circuits.front(); // every corner is in one
}

AirGiven with_delivery(AirGiven air, double share) {
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (auto& part = air.parts.at(role))
      for (shelf::CompressorPoint& p : part->curve)
        p.air *= share;
  return air;
}

TimedCorner time_corner(const LearnedCar& car, const control::Condition& condition, std::size_t circuit,
                        double longest_hold) {
  LearnedCar ill = car;
  control::put_in(ill.parts, ill.circuits, condition);
  ByHand by_hand(ill, longest_hold);
  TimedCorner out;
  const double H = by_hand.height(circuit);
  out.fill = by_hand.move({{circuit, H + time_step}});
  by_hand.wait(ByHand::settles);
  const double above = by_hand.height(circuit);
  out.vent = by_hand.move({{circuit, above - time_step}});
  return out;
}

std::optional<Expected<FaultCar>> fault_car(const FaultCarGiven& asked, const std::stop_token& stop) {
  const LevelingGiven& given = asked.leveling;
  const AirGiven& air = given.air;
  const auto car = learned_car(given);
  if (!car) return refuse(car.error());
  FaultCar out;
  out.parts.compressor = air.parts[KitRole::compressor] != nullptr;
  out.parts.dryer = air.parts[KitRole::dryer] != nullptr;
  out.parts.silencer = air.parts[KitRole::silencer] != nullptr;
  out.parts.per_corner = air.kit.circuits == build::Circuits::per_corner;
  out.parts.per_axle = !out.parts.per_corner;
  out.parts.sensors = goes_by_height(given.leveling.set_up().rules.method);
  out.parts.gauge = air.parts[KitRole::gauge] != nullptr;
  out.parts.coils = air.kit.school == build::ValveSchool::block;
  out.parts.controller = given.leveling.set_up().rules.method != control::LevelMethod::by_hand;
  out.parts.tee_lines = out.parts.per_axle;
  out.circuits = circuits_of(air.kit);
  // Without a switch the shop's air fills the tank, and the car learned is one that has as much.
  const double full = full_tank(air).value_or(0);
  const auto switched = cut_pressures(air.parts);
  const auto cut = switched && !by_shop_air_alone(air.kit) ? *switched : std::pair(full, full);
  out.cut_in = cut.first, out.cut_out = cut.second;
  out.volts = volts_at_compressor(air.kit);
  out.tank_air = tank_volume(air.parts);
  out.ambient = air::Ambient{air.surroundings.altitude, air.surroundings.temperature}.pressure();
  for (std::size_t c = 0; c < 4; ++c) {
    const auto held = held_volume(air, c);
    if (!held) return refuse(held.error());
    out.air[c] = *held;
    out.pressure[c] = car->pressure[c];
    const auto said = pressure_at(air.ends[c / 2]->fitted, c % 2 == 1, true);
    out.a_newton[c] = said ? said->a_kilogram / standard_gravity : 0;
    out.sinks[c] = sinks_of(air, c, car->target[c], car->parts.corners[c].stop_meets, given.load_case);
  }
  for (std::size_t i = 0; i < out.circuits.size(); ++i) {
    // Of its lines both ways; and where a tee joins two corners, of the valve that they share, one way at a time.
    const bool tee = out.circuits[i].size() > 1;
    TimesOver fill, vent, fill_valve, vent_valve, feed;
    const auto put = [](TimesOver& times, double share, const std::optional<double>& took) {
      times.shares.push_back(share), times.seconds.push_back(took.value_or(0));
    };
    for (const double share : way_shares) {
      if (stop.stop_requested()) return std::nullopt;
      control::Condition lines, valve_in, valve_out;
      for (const std::size_t corner : out.circuits[i]) {
        lines.corners[corner].fill = lines.corners[corner].vent = share;
        valve_in.corners[corner].fill = valve_out.corners[corner].vent = share;
      }
      const TimedCorner took = time_corner(*car, lines, i, longest);
      put(fill, share, took.fill), put(vent, share, took.vent);
      control::Condition from_tank;
      from_tank.feed = share;
      put(feed, share, time_corner(*car, from_tank, i, longest).fill);
      if (!tee) continue;
      put(fill_valve, share, time_corner(*car, valve_in, i, longest).fill);
      put(vent_valve, share, time_corner(*car, valve_out, i, longest).vent);
    }
    for (const std::size_t corner : out.circuits[i])
      out.fill_valve[corner] = cleaned(fill_valve), out.vent_valve[corner] = cleaned(vent_valve);
    for (const std::size_t corner : out.circuits[i])
      out.feed[corner] = cleaned(feed);
    for (const std::size_t corner : out.circuits[i])
      out.fill[corner] = cleaned(fill), out.vent[corner] = cleaned(vent);
    if (out.fill[out.circuits[i].front()].shares.empty() || out.vent[out.circuits[i].front()].shares.empty())
      return refuse(words("{0}: even when well it does not get {1} up and down again, so nobody can say what is slow."),
                    {circuit_name(out.circuits[i]), metres(time_step)});
  }
  if (out.parts.compressor)
    for (const double share : tank_shares) {
      const auto filled = fill_tank(with_delivery(air, share), cut.first, cut.second, stop);
      if (stop.stop_requested()) return std::nullopt;
      if (!filled || !filled->time) continue;
      out.tank.shares.push_back(share), out.tank.seconds.push_back(*filled->time);
    }
  return out;
}

} // namespace mavrel::assess
