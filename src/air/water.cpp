#include "air/water.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mavrel::air {

namespace {
constexpr double water_over_air = 0.62198; // of the molar masses

/// Without a bound where vapour alone has the whole pressure: the water would boil.
double mixing_ratio(double vapour, double p_abs) {
  if (vapour >= p_abs) return std::numeric_limits<double>::infinity();
  return water_over_air * vapour / (p_abs - vapour);
}
} // namespace

double saturation_pressure(double temperature) {
  const double t = temperature - ice_point;
  return 611.2 * std::exp(17.62 * t / (243.12 + t));
}

WaterBalance water_in_tank(const Ambient& outside, double humidity, double gauge_pressure, double temperature) {
  const double p_amb = outside.pressure();
  WaterBalance out;
  out.taken_in = mixing_ratio(humidity * saturation_pressure(outside.temperature), p_amb);
  const double most = mixing_ratio(saturation_pressure(temperature), p_amb + gauge_pressure);
  out.liquid = std::max(0.0, out.taken_in - most);
  out.kept = out.taken_in - out.liquid;
  return out;
}

} // namespace mavrel::air
