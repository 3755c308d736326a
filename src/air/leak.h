// Does a closed volume lose air? Its mass over hours of readings, with the temperature taken out.
#pragma once

#include "air/gas.h"
#include "quantity/expected.h"

#include <span>

namespace mavrel::air {

/// One look at a gauge and a thermometer.
struct LeakReading {
  double time = 0;           // s
  double gauge_pressure = 0; // Pa
  double temperature = 0;    // K
};

/// Share of its air an hour that nobody minds a volume losing.
constexpr double loss_minded = 0.002;

/// kg of air by one look. @param volume  m³ @param altitude  m
[[nodiscard]] double held_mass(const LeakReading& reading, double volume, double altitude);

struct Leak {
  double mass = 0;                     // kg, by the first reading
  double loss = 0;                     // kg/s, slope of the line through all readings; below 0 it gains
  double loss_sd = 0;                  // kg/s, standard error of that slope
  double mean_time = 0, mean_mass = 0; // s and kg, what the line goes through
  /// kg, by the line through all readings. @param time  s, as the readings have it
  [[nodiscard]] double mass_at(double time) const { return mean_mass - loss * (time - mean_time); }
  /// More than the readings' own spread and more than one would mind: twice its standard error and 0.2 % an hour.
  [[nodiscard]] bool leaks() const { return loss > 2 * loss_sd && loss * 3600 > loss_minded * mass; }
};
/// @param volume    m³, of the bag with what is open to it
/// @param altitude  m
/// @returns the loss; or that there are fewer than three readings, or all at one time
/// Source: docs/models.md, "Leak".
[[nodiscard]] Expected<Leak> find_leak(std::span<const LeakReading> readings, double volume, double altitude = 0);

} // namespace mavrel::air
