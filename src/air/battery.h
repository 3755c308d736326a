// A car's lead battery: what it still gives when old and cold, what its voltage falls to under load, and when it turns
// the engine no more.
#pragma once

namespace mavrel::air {

struct Battery {
  double new_charge = 216000;  // A·s over twenty hours at 25 °C
  double volts = 12;           // nominal: 6, 12 or 24
  double age = 0;              // s
  double temperature = 298.15; // K
};

/// A·s that it holds over twenty hours as old and as cold as it is.
/// Loses 4 % of what it held new a year and 0.8 % a degree below 25 °C, never below 0.3 of it.
[[nodiscard]] double charge_of(const Battery& battery);
/// A·s that a current gets out of it: Peukert's law with 1.15 over the twenty hours' current.
/// @param current  A, above 0
[[nodiscard]] double charge_at(const Battery& battery, double current);
/// V at rest. @param state  share of its charge that is left, 0 to 1
[[nodiscard]] double rest_voltage(const Battery& battery, double state);
/// Ω at that state: 1.19 kΩ·A·s of a new, full one at 25 °C; a tenth more for 8 K colder, 6 % a year, and three and
/// a half times as much when empty.
[[nodiscard]] double resistance(const Battery& battery, double state);
/// V while a current is drawn.
[[nodiscard]] double loaded_voltage(const Battery& battery, double state, double current);
/// A that a starter draws of it: 3.5 times its twenty-hour charge in A·h, 1 % a degree below 25 °C more for stiff oil.
[[nodiscard]] double cranking_current(const Battery& battery);
/// The state below which cranking pulls it under 9 V of twelve. @returns 1 or more: not even full
[[nodiscard]] double starts_from(const Battery& battery);

} // namespace mavrel::air
