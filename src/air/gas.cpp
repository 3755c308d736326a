#include "air/gas.h"

#include <cmath>

namespace mavrel::air {

double Ambient::pressure() const {
  return sea_level * std::pow(1 - 2.25577e-5 * altitude, 5.25588);
}

double polytropic_pressure(double p_abs, double volume, double new_volume, double n) {
  return p_abs * std::pow(volume / new_volume, n);
}

double polytropic_temperature(double temperature, double volume, double new_volume, double n) {
  return temperature * std::pow(volume / new_volume, n - 1);
}

} // namespace mavrel::air
