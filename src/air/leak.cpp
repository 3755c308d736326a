#include "air/leak.h"

#include "curve/line.h"

#include <utility>
#include <vector>

namespace mavrel::air {

double held_mass(const LeakReading& reading, double volume, double altitude) {
  const double p_amb = Ambient{altitude, ice_point + 20}.pressure();
  return air_mass(reading.gauge_pressure + p_amb, volume, reading.temperature);
}

Expected<Leak> find_leak(std::span<const LeakReading> readings, double volume, double altitude) {
  if (readings.size() < 3)
    return refuse(words("{0} readings say nothing of a leak; three at least are right."),
                  {std::to_string(readings.size())});
  std::vector<std::pair<double, double>> masses;
  for (const LeakReading& r : readings)
    masses.emplace_back(r.time, held_mass(r, volume, altitude));
  const auto line = curve::line_through(masses);
  if (!line) return refuse(words("All readings are of one time: nothing is lost in no time."));
  return Leak{masses.front().second, -line->slope, line->slope_sd, line->mean_x, line->mean_y};
}

} // namespace mavrel::air
