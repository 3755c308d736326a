#include "curve/line.h"

#include <cmath>

namespace mavrel::curve {

std::optional<Line> line_through(std::span<const std::pair<double, double>> readings) {
  if (readings.size() < 3) return std::nullopt;
  const auto n = static_cast<double>(readings.size());
  Line out;
  for (const auto& [x, y] : readings)
    out.mean_x += x / n, out.mean_y += y / n;
  double xx = 0, xy = 0;
  for (const auto& [x, y] : readings)
    xx += (x - out.mean_x) * (x - out.mean_x), xy += (x - out.mean_x) * (y - out.mean_y);
  if (!(xx > 0)) return std::nullopt;
  out.slope = xy / xx;
  double squares = 0;
  for (const auto& [x, y] : readings)
    squares += (y - out.at(x)) * (y - out.at(x));
  out.slope_sd = std::sqrt(squares / (n - 2) / xx);
  return out;
}

} // namespace mavrel::curve
