#include "shelf/card_check.h"

#include "air/bag.h"

#include <algorithm>
#include <cmath>

namespace mavrel::shelf {

namespace {

/// Mean over the pressure columns of the area at one row, m².
double mean_area(const air::BagCard& card, std::size_t row) {
  double sum = 0;
  for (std::size_t j = 0; j < card.pressures.size(); ++j)
    sum += card.loads[j][row] / card.pressures[j];
  return sum / static_cast<double>(card.pressures.size());
}

} // namespace

std::vector<CardDoubt> check_volume_against_area(const air::BagCard& card, double tolerance) {
  std::vector<CardDoubt> out;
  for (std::size_t i = 0; i + 1 < card.heights.size(); ++i) {
    const double dh = card.heights[i + 1] - card.heights[i];
    const double by_area = 0.5 * (mean_area(card, i) + mean_area(card, i + 1)) * dh;
    const double by_volume = card.volumes[i + 1] - card.volumes[i];
    const double off = by_volume / by_area - 1;
    if (std::abs(off) <= tolerance) continue;
    out.push_back({i,
                   {words("From {0} to {1} the volume grows by {2}, but the loads make it {3}: a load or a volume "
                          "was probably mistyped here."),
                    {metres(card.heights[i], 1), metres(card.heights[i + 1], 1), Amount{by_volume, Kind::volume, 3},
                     Amount{by_area, Kind::volume, 3}}}});
  }
  return out;
}

std::vector<std::size_t> rows_where_force_falls(const air::BagCard& card) {
  std::vector<std::size_t> out;
  const air::BagCurve curve(card);
  constexpr int steps = 8;
  for (std::size_t i = 0; i + 1 < card.heights.size(); ++i) {
    bool falls = false;
    for (int k = 0; k <= steps; ++k) {
      const double h = std::lerp(card.heights[i], card.heights[i + 1], static_cast<double>(k) / steps);
      const air::BagSection at = curve.section(h);
      // dF/dp is linear in p between columns, so its ends decide.
      for (const double p : card.pressures)
        falls =
            falls || air::bag_force(at, p).per_pressure <= 0 || air::bag_force(at, p * (1 - 1e-9)).per_pressure <= 0;
    }
    if (falls) out.push_back(i);
  }
  return out;
}

} // namespace mavrel::shelf
