#include "air/battery.h"

#include <algorithm>
#include <cmath>

namespace mavrel::air {

namespace {

constexpr double year = 365.25 * 86400, warm = 298.15; // s, K
constexpr double least_share = 0.3, lost_a_year = 0.04, lost_a_degree = 0.008;
constexpr double twenty_hours = 72000, peukert = 1.15; // s
constexpr double empty = 11.8, over_empty = 0.95;      // V of twelve
constexpr double new_resistance = 1190;                // Ω·A·s of twelve volts: 5.5 mΩ of 60 A·h
constexpr double starts_at = 9;                        // V of twelve

double colder(const Battery& b) {
  return std::max(0.0, warm - b.temperature);
}

} // namespace

double charge_of(const Battery& b) {
  const double share = (1 - lost_a_year * b.age / year) * (1 - lost_a_degree * colder(b));
  return b.new_charge * std::max(least_share, share);
}

double charge_at(const Battery& b, double current) {
  const double held = charge_of(b), even = held / twenty_hours;
  return current > even ? held * std::pow(even / current, peukert - 1) : held;
}

double rest_voltage(const Battery& b, double state) {
  return b.volts / 12 * (empty + over_empty * state);
}

double resistance(const Battery& b, double state) {
  return new_resistance * b.volts / 12 / b.new_charge * (1 + 0.0125 * colder(b)) * (1 + 0.06 * b.age / year) *
         (1 + 2.5 * (1 - state));
}

double loaded_voltage(const Battery& b, double state, double current) {
  return rest_voltage(b, state) - current * resistance(b, state);
}

double cranking_current(const Battery& b) {
  return 3.5 * b.new_charge / 3600 * (1 + 0.01 * colder(b));
}

double starts_from(const Battery& b) {
  // Both the voltage at rest and the resistance are straight in the state, so the state is too.
  const double current = cranking_current(b), wanted = starts_at * b.volts / 12;
  const double at_empty = loaded_voltage(b, 0, current), at_full = loaded_voltage(b, 1, current);
  return std::max(0.0, (wanted - at_empty) / (at_full - at_empty));
}

} // namespace mavrel::air
