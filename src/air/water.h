// Water that a compressor takes in with its air, and what of it falls out in the tank.
#pragma once

#include "air/gas.h"

namespace mavrel::air {

/// Pressure of saturated water vapour, Pa. @param temperature  K; above liquid water, down to about −40 °C
/// Source: docs/models.md, "Water".
[[nodiscard]] double saturation_pressure(double temperature);

/// kg of water a kg of dry air.
struct WaterBalance {
  double taken_in = 0; // with the air outside
  double kept = 0;     // as vapour in the tank; taken in = kept + liquid
  double liquid = 0;
};
/// @param outside   the air that is taken in
/// @param humidity  relative, 0 to 1
/// @param gauge_pressure, temperature  of the tank, Pa and K; so hot that water would boil, nothing falls out
[[nodiscard]] WaterBalance water_in_tank(const Ambient& outside, double humidity, double gauge_pressure,
                                         double temperature);

} // namespace mavrel::air
