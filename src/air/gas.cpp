#include "air/gas.h"

#include <cmath>

namespace mavrel::air {

double Ambient::pressure() const {
  // Asked for at every height of every track, nearly always at one altitude: the last answer is kept, a thread its own.
  struct Kept {
    double altitude = 0, pressure = sea_level;
  };
  thread_local Kept last;
  if (altitude != last.altitude) last = {altitude, sea_level * std::pow(1 - 2.25577e-5 * altitude, 5.25588)};
  return last.pressure;
}

double polytropic_pressure(double p_abs, double volume, double new_volume, double n) {
  return p_abs * std::pow(volume / new_volume, n);
}

double polytropic_temperature(double temperature, double volume, double new_volume, double n) {
  return temperature * std::pow(volume / new_volume, n - 1);
}

} // namespace mavrel::air
