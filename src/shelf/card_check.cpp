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

/// How far the volume's step from row i to the next is off what the loads make it, share.
double step_off(const air::BagCard& card, std::size_t i) {
  const double dh = card.heights[i + 1] - card.heights[i];
  const double by_area = 0.5 * (mean_area(card, i) + mean_area(card, i + 1)) * dh;
  return (card.volumes[i + 1] - card.volumes[i]) / by_area - 1;
}

/// How far one column's area strays from the line between its neighbours (or on from them at an end), share.
double area_strays(const air::BagCard& card, std::size_t column, std::size_t row) {
  const auto& h = card.heights;
  const auto& F = card.loads[column];
  const std::size_t last = h.size() - 1;
  const std::size_t a = row == 0 ? 1 : row - 1, b = row == 0 ? 2 : row == last ? last - 2 : row + 1;
  const double t = (h[row] - h[a]) / (h[b] - h[a]);
  return F[row] / (F[a] + t * (F[b] - F[a])) - 1;
}

} // namespace

std::vector<CardDoubt> check_volume_against_area(const air::BagCard& card, double tolerance) {
  std::vector<CardDoubt> out;
  for (std::size_t i = 0; i + 1 < card.heights.size(); ++i) {
    const double off = step_off(card, i);
    if (std::abs(off) <= tolerance) continue;
    const double by_volume = card.volumes[i + 1] - card.volumes[i];
    out.push_back({i,
                   {words("From {0} to {1} the volume grows by {2}, but the loads make it {3}: a load or a volume "
                          "was probably mistyped here."),
                    {metres(card.heights[i], 1), metres(card.heights[i + 1], 1), Amount{by_volume, Kind::volume, 3},
                     Amount{by_volume / (1 + off), Kind::volume, 3}}}});
  }
  return out;
}

std::vector<SuspectCell> suspect_cells(const air::BagCard& card, double tolerance) {
  std::vector<SuspectCell> out;
  const std::size_t rows = card.heights.size();
  const auto add = [&](SuspectCell cell) {
    if (std::find(out.begin(), out.end(), cell) == out.end()) out.push_back(cell);
  };
  if (rows < 3) return out;
  // A load alone: its column strays here and the others don't, and it strays more than at the rows beside.
  for (std::size_t j = 0; j < card.loads.size(); ++j)
    for (std::size_t i = 0; i < rows; ++i) {
      const double here = std::abs(area_strays(card, j, i));
      if (here <= tolerance) continue;
      const bool alone = std::all_of(card.loads.begin(), card.loads.end(), [&](const auto& other) {
        const auto k = static_cast<std::size_t>(&other - card.loads.data());
        return k == j || std::abs(area_strays(card, k, i)) < here / 2;
      });
      const bool peak = (i == 0 || std::abs(area_strays(card, j, i - 1)) <= here) &&
                        (i + 1 == rows || std::abs(area_strays(card, j, i + 1)) <= here);
      if (alone && peak && card.loads.size() > 1) add({i, j});
    }
  for (const CardDoubt& doubt : check_volume_against_area(card, tolerance)) {
    const std::size_t i = doubt.row;
    const bool load_named = std::any_of(
        out.begin(), out.end(), [&](const SuspectCell& c) { return c.column && (c.row == i || c.row == i + 1); });
    if (load_named) continue;
    const double here = step_off(card, i);
    const auto opposite = [&](std::size_t other) {
      const double there = step_off(card, other);
      return std::abs(there) > tolerance / 2 && (there < 0) != (here < 0);
    };
    if (i + 2 < rows && opposite(i + 1))
      add({i + 1, std::nullopt});
    else if (i > 0 && opposite(i - 1))
      add({i, std::nullopt});
    else
      add({i, std::nullopt}), add({i + 1, std::nullopt});
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
