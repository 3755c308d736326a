#include "air/leak.h"

#include <cmath>

namespace mavrel::air {

Expected<Leak> find_leak(std::span<const LeakReading> readings, double volume, double altitude) {
  if (readings.size() < 3)
    return refuse(words("{0} readings say nothing of a leak; three at least are right."),
                  {std::to_string(readings.size())});
  const double p_amb = Ambient{altitude, ice_point + 20}.pressure();
  const auto mass = [&](const LeakReading& r) { return air_mass(r.gauge_pressure + p_amb, volume, r.temperature); };
  const auto n = static_cast<double>(readings.size());
  double mean_t = 0, mean_m = 0;
  for (const LeakReading& r : readings)
    mean_t += r.time / n, mean_m += mass(r) / n;
  double tt = 0, tm = 0;
  for (const LeakReading& r : readings) {
    tt += (r.time - mean_t) * (r.time - mean_t);
    tm += (r.time - mean_t) * (mass(r) - mean_m);
  }
  if (!(tt > 0)) return refuse(words("All readings are of one time: nothing is lost in no time."));
  const double slope = tm / tt;
  double squares = 0;
  for (const LeakReading& r : readings) {
    const double off = mass(r) - mean_m - slope * (r.time - mean_t);
    squares += off * off;
  }
  return Leak{mass(readings.front()), -slope, std::sqrt(squares / (n - 2) / tt)};
}

} // namespace mavrel::air
