#include "shelf/card_check.h"

#include "air/bag.h"

#include <algorithm>
#include <cmath>
#include <numbers>

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

double median(std::vector<double> values) {
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2), values.end());
  return values[values.size() / 2];
}

/// A column's area over the others' at one row: nearly the same from row to row, whatever the bag's shape.
double beside_others(const air::BagCard& card, std::size_t column, std::size_t row) {
  std::vector<double> others;
  for (std::size_t k = 0; k < card.loads.size(); ++k)
    if (k != column) others.push_back(card.loads[k][row] / card.pressures[k]);
  return card.loads[column][row] / card.pressures[column] / median(std::move(others));
}

/// How far one load strays from what its column usually is beside the others, share.
double load_strays(const air::BagCard& card, std::size_t column, std::size_t row) {
  std::vector<double> usual;
  for (std::size_t i = 0; i < card.heights.size(); ++i)
    usual.push_back(beside_others(card, column, i));
  return beside_others(card, column, row) / median(std::move(usual)) - 1;
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

std::vector<CardDoubt> check_plausible(const air::BagCard& card) {
  constexpr double least = 0.70, most = 0.92; // effective over outside diameter halfway up, a little beyond the usual
  constexpr double sleeve_changes = 0.08;     // of a sleeve's outside diameter from row to row
  std::vector<CardDoubt> out;
  const auto outside = [&](std::size_t i) { return card.diameters.empty() ? card.max_diameter : card.diameters[i]; };
  const auto effective = [&](std::size_t i) { return std::sqrt(4 * mean_area(card, i) / std::numbers::pi); };
  std::size_t worst = 0;
  for (std::size_t i = 1; i < card.heights.size(); ++i)
    if (effective(i) / outside(i) > effective(worst) / outside(worst)) worst = i;
  if (effective(worst) > outside(worst)) {
    out.push_back({worst,
                   {words("At {0} the loads stand for {1} across, more than the bag's {2}: a load or a diameter was "
                          "probably mistyped."),
                    {metres(card.heights[worst], 1), told_from(metres(effective(worst)), outside(worst)),
                     told_from(metres(outside(worst)), effective(worst))}}});
    return out;
  }
  const double halfway = 0.5 * (card.collapsed_height + card.max_height);
  const auto nearest = std::min_element(card.heights.begin(), card.heights.end(), [&](double a, double b) {
    return std::abs(a - halfway) < std::abs(b - halfway);
  });
  const auto middle = static_cast<std::size_t>(nearest - card.heights.begin());
  const double ratio = effective(middle) / outside(middle);
  if (ratio < least || ratio > most)
    out.push_back({middle,
                   {words("Halfway up, at {0}, the loads stand for {1} of the outside diameter; {2} to {3} is usual."),
                    {metres(card.heights[middle], 1), told_from(share(ratio), ratio < least ? least : most),
                     share(least), share(most)}}});
  if (card.kind == air::BagKind::sleeve && !card.diameters.empty()) {
    const auto [low, high] = std::minmax_element(card.diameters.begin(), card.diameters.end());
    if (*high - *low > sleeve_changes * *high)
      out.push_back({static_cast<std::size_t>(low - card.diameters.begin()),
                     {words("A sleeve's outside diameter hardly changes, but here it runs from {0} to {1}."),
                      {metres(*low, 1), metres(*high, 1)}}});
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
  // A load alone: it strays, and more than the others of its row (which stray from it the other way).
  for (std::size_t i = 0; card.loads.size() > 1 && i < rows; ++i) {
    std::size_t most = 0;
    for (std::size_t j = 1; j < card.loads.size(); ++j)
      if (std::abs(load_strays(card, j, i)) > std::abs(load_strays(card, most, i))) most = j;
    if (std::abs(load_strays(card, most, i)) > tolerance / 2) add({i, most});
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

bool is_suspect(const std::vector<SuspectCell>& suspects, std::size_t row, const std::optional<std::size_t>& column) {
  return std::any_of(suspects.begin(), suspects.end(),
                     [&](const SuspectCell& one) { return one.row == row && one.column == column; });
}

} // namespace mavrel::shelf
