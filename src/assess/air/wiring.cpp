#include "assess/air/wiring.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double fuse_from_battery = 0.15, switch_wire = 1.0, valve_amps = 6; // m, A

/// The next of the relays there are.
double relay_for(double running) {
  for (const double amps : {20.0, 30.0, 40.0, 60.0, 80.0, 100.0, 150.0, 200.0})
    if (amps >= 1.25 * running) return amps;
  return std::ceil(1.25 * running / 100) * 100;
}

double starting_of(const shelf::Part& compressor, double running) {
  return compressor.start_current.value_or(3 * running);
}

} // namespace

Expected<Wiring> wiring_of(const AirGiven& given) {
  const build::AirKit& kit = given.kit;
  const auto cut = cut_pressures(given.parts);
  if (!given.parts[KitRole::compressor])
    return refuse(words("The kit has no {0}."), {row_of(KitRole::compressor).label});
  if (!cut) return refuse(words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label});
  const auto length_of = [&](const char* route) {
    const build::Route* laid = route_of(given.routes, route);
    return laid ? routed_length(way_of(*laid, kit.battery_at, kit.compressor_at), *laid, kit.line_slack)
                : way_between(kit.battery_at, kit.compressor_at, kit.line_slack);
  };
  Wiring out;
  std::vector<const shelf::Part*> all;
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (const shelf::Part* part = given.parts[role]) all.push_back(part);
  const auto feed_of = [&](const std::vector<const shelf::Part*>& on_it, double length) {
    double running = 0, starting = 0;
    std::vector<std::string> names;
    for (const shelf::Part* part : on_it) {
      names.push_back(part->name);
      const double amps = shelf::current_of(*part, cut->second);
      // The last to start does so while those before it run.
      starting = std::fmax(kit.stagger > 0 ? running + starting_of(*part, amps) : starting + starting_of(*part, amps),
                           starting);
      running += amps;
    }
    Feed feed{names, running, starting, length, air::cable_for(running, length, kit.volts, kit.drop_allowed), 0};
    if (feed.cable) feed.drop_starting = air::voltage_drop(starting, length, feed.cable->section);
    feed.blows = feed.cable && starting > fuse_bears_peak * feed.cable->fuse;
    feed.relay = relay_for(running);
    return feed;
  };
  if (kit.feeds == build::Feeds::one || all.size() == 1)
    out.feeds.push_back(feed_of(all, length_of("power")));
  else // a cable of its own for each, as it is laid
    for (std::size_t i = 0; i < all.size(); ++i)
      out.feeds.push_back(feed_of({all[i]}, length_of(i == 0 ? "power" : "power_2")));
  const Feed together = feed_of(all, length_of("power"));
  out.running = together.running, out.starting = together.starting;
  out.coils = relay_coil * static_cast<double>(all.size());
  out.at_once = all.size() > 1 && !(kit.stagger > 0);
  double drop = 0;
  for (const Feed& feed : out.feeds)
    if (feed.cable) drop = std::fmax(drop, feed.cable->drop);
  out.volts = kit.volts - drop;
  out.slower = kit.volts / out.volts - 1;
  for (const Feed& feed : out.feeds) {
    std::string names;
    for (const std::string& name : feed.compressors)
      names += (names.empty() ? "" : " + ") + name;
    const auto section = feed.cable ? std::optional(feed.cable->section) : std::nullopt;
    const auto fuse = feed.cable ? std::optional(feed.cable->fuse) : std::nullopt;
    out.rows.push_back(
        {"battery +", "fuse", {words("within a hand of the battery"), {}}, fuse_from_battery, section, fuse});
    out.rows.push_back({"fuse",
                        "relay",
                        {words("the long run; a relay of {0} or more"), {Amount{feed.relay, Kind::current, 0, {}}}},
                        feed.length,
                        section,
                        {}});
    out.rows.push_back({"relay", names, {words("beside the compressor"), {}}, 0.3, section, {}});
    out.rows.push_back(
        {names, "battery −", {words("back, or to bare body metal as thick"), {}}, feed.length, section, {}});
  }
  const double to_switch = way_between(kit.battery_at, kit.tank_at, kit.line_slack);
  const auto thin = air::cable_for(switch_wire, to_switch, kit.volts, kit.drop_allowed);
  const auto thin_section = thin ? std::optional(thin->section) : std::nullopt;
  out.rows.push_back({"switched feed",
                      "pressure switch",
                      {words("live through cranking too, or the switch chatters"), {}},
                      to_switch,
                      thin_section,
                      3.0});
  out.rows.push_back(
      {"pressure switch", "relay coil", {words("another for each relay"), {}}, to_switch, thin_section, {}});
  if (kit.school == build::ValveSchool::block) {
    const auto valves = air::cable_for(valve_amps, 2.5, kit.volts, kit.drop_allowed);
    if (const shelf::Part* switches = given.parts[KitRole::switches])
      out.rows.push_back({switches->name, "controller", {words("one wire a switch"), {}}, 2.0, 0.5, {}});
    out.rows.push_back({"controller",
                        "valve block",
                        {words("one wire a coil and one back"), {}},
                        2.5,
                        valves ? std::optional(valves->section) : std::nullopt,
                        valves ? std::optional(valves->fuse) : std::nullopt});
    if (given.parts[KitRole::sensor])
      for (std::size_t corner = 0; corner < 4; ++corner)
        out.rows.push_back({"controller",
                            std::string(corner_name(corner)) + " sensor",
                            {words("three wires, screened, away from the pump's"), {}},
                            corner_line_length(given, corner),
                            0.5,
                            {}});
  }
  return out;
}

} // namespace mavrel::assess
