#include "report/spread.h"

#include <algorithm>
#include <numeric>

namespace mavrel::report {

std::vector<double> spread_apart(const std::vector<double>& wanted, double gap, double top, double bottom) {
  std::vector<std::size_t> order(wanted.size());
  std::iota(order.begin(), order.end(), 0U);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return wanted[a] < wanted[b]; });
  std::vector<double> out = wanted;
  double free_from = top;
  for (const std::size_t i : order) {
    out[i] = std::max(out[i], free_from);
    free_from = out[i] + gap;
  }
  // What was pushed past the bottom is pushed back up, the lowest first.
  double free_to = bottom;
  for (auto it = order.rbegin(); it != order.rend(); ++it) {
    out[*it] = std::min(out[*it], free_to);
    free_to = out[*it] - gap;
  }
  return out;
}

} // namespace mavrel::report
