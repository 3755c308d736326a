// Dry air as builders meet it: an ideal gas around a car.
#pragma once

namespace mavrel::air {

constexpr double gas_constant = 287.05;       // J/(kg·K), dry air
constexpr double heat_at_pressure = 1004.675; // J/(kg·K), cp
constexpr double heat_at_volume = 717.625;    // J/(kg·K), cv
constexpr double isentropic = heat_at_pressure / heat_at_volume;
constexpr double sea_level = 101325; // Pa
constexpr double ice_point = 273.15; // K

/// The air a car stands in.
struct Ambient {
  double altitude = 0;                 // m above the sea
  double temperature = ice_point + 20; // K

  /// Pa, standard atmosphere up to 11 km.
  [[nodiscard]] double pressure() const;
};

/// kg of air at `p_abs` (Pa), `volume` (m³), `temperature` (K).
[[nodiscard]] constexpr double air_mass(double p_abs, double volume, double temperature) {
  return p_abs * volume / (gas_constant * temperature);
}

/// K of `mass` kg of air at `p_abs` (Pa) in `volume` (m³).
[[nodiscard]] constexpr double air_temperature(double p_abs, double volume, double mass) {
  return p_abs * volume / (mass * gas_constant);
}
/// kg/m³ at `p_abs` (Pa), `temperature` (K).
[[nodiscard]] constexpr double air_density(double p_abs, double temperature) {
  return p_abs / (gas_constant * temperature);
}
/// J/kg, R·T: what a kilogram holds as pressure times volume.
[[nodiscard]] constexpr double pressure_work(double temperature) {
  return gas_constant * temperature;
}

/// Absolute pressure after a sealed volume changes, p·Vⁿ kept.
[[nodiscard]] double polytropic_pressure(double p_abs, double volume, double new_volume, double n);
/// Temperature (K) after the same change: T·Vⁿ⁻¹ kept.
[[nodiscard]] double polytropic_temperature(double temperature, double volume, double new_volume, double n);

} // namespace mavrel::air
