#include "assess/air/on_battery.h"

#include "air/battery.h"
#include "assess/air/car_air.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

OnBattery at_temperature(const AirGiven& given, double temperature, double current, double run) {
  const build::AirKit& kit = given.kit;
  const air::Battery battery{kit.battery,
                             kit.volts > 18  ? 24.0
                             : kit.volts < 9 ? 6.0
                                             : 12.0,
                             kit.battery_age, temperature};
  OnBattery out;
  out.temperature = temperature;
  out.current = current, out.run = run;
  // What runs out quickly takes more out of it than it draws.
  out.charge = current * run * air::charge_of(battery) / air::charge_at(battery, current);
  out.volts = air::loaded_voltage(battery, 1, current);
  out.starts_from = air::starts_from(battery);
  const double each = out.charge / air::charge_of(battery); // of its charge
  if (!(each > 0)) return out;
  double state = 1;
  for (int made = 0; made <= most_lifts_on_battery && !(out.lifts && (out.until_cut || !kit.battery_cut)); ++made) {
    if (!out.lifts && state < out.starts_from) out.lifts = std::max(0, made - 1);
    if (kit.battery_cut && !out.until_cut &&
        air::loaded_voltage(battery, std::max(0.0, state), current) < *kit.battery_cut)
      out.until_cut = made;
    state -= each;
    if (state < 0) {
      if (!out.lifts) out.lifts = made;
      break;
    }
  }
  return out;
}

} // namespace

std::vector<OnBattery> on_battery(const AirGiven& given, double from, double to, double run) {
  // A pump's current grows evenly enough with its pressure: its mean stands for the whole way.
  double current = 0;
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (const shelf::Part* pump = given.parts[role])
      current += shelf::current_of(*pump, pressure_at_pump(given, *pump, (from + to) / 2));
  std::vector<OnBattery> out = {at_temperature(given, given.surroundings.temperature, current, run)};
  if (const double frost = given.surroundings.night_temperature; frost < given.surroundings.temperature - 1)
    out.push_back(at_temperature(given, frost, current, run));
  return out;
}

} // namespace mavrel::assess
