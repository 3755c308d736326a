#include "air/leak.h"

#include "curve/line.h"

#include <utility>
#include <vector>

namespace mavrel::air {

Expected<Leak> find_leak(std::span<const LeakReading> readings, double volume, double altitude) {
  if (readings.size() < 3)
    return refuse(words("{0} readings say nothing of a leak; three at least are right."),
                  {std::to_string(readings.size())});
  const double p_amb = Ambient{altitude, ice_point + 20}.pressure();
  const auto mass = [&](const LeakReading& r) { return air_mass(r.gauge_pressure + p_amb, volume, r.temperature); };
  std::vector<std::pair<double, double>> masses;
  for (const LeakReading& r : readings)
    masses.emplace_back(r.time, mass(r));
  const auto line = curve::line_through(masses);
  if (!line) return refuse(words("All readings are of one time: nothing is lost in no time."));
  return Leak{mass(readings.front()), -line->slope, line->slope_sd};
}

} // namespace mavrel::air
