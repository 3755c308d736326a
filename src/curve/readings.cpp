#include "curve/readings.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace mavrel::curve {

std::optional<double> mean(std::span<const double> readings) {
  if (readings.empty()) return std::nullopt;
  return std::accumulate(readings.begin(), readings.end(), 0.0) / static_cast<double>(readings.size());
}

double spread(std::span<const double> readings) {
  if (readings.size() < 2) return 0;
  const auto [low, high] = std::minmax_element(readings.begin(), readings.end());
  return *high - *low;
}

std::optional<std::size_t> odd_one_out(std::span<const double> readings) {
  if (readings.size() < 3) return std::nullopt;
  std::vector<double> sorted(readings.begin(), readings.end());
  std::sort(sorted.begin(), sorted.end());
  const double median = sorted[sorted.size() / 2];
  const auto far = std::max_element(readings.begin(), readings.end(),
                                    [&](double a, double b) { return std::abs(a - median) < std::abs(b - median); });
  const auto index = static_cast<std::size_t>(far - readings.begin());
  std::vector<double> others(readings.begin(), readings.end());
  others.erase(others.begin() + static_cast<std::ptrdiff_t>(index));
  if (spread(others) < spread(readings) / 3) return index;
  return std::nullopt;
}

} // namespace mavrel::curve
