#include "assess/end/bag_at_heights.h"

#include <algorithm>

namespace mavrel::assess {

BagAtHeights bag_at_heights(const BagOnEnd& bag, const Domain& domain, double most, int least_steps,
                            std::optional<std::size_t> only_case) {
  BagAtHeights out;
  const auto [low, high] = bag.heights();
  out.heights = Heights::over(std::max(low, domain.low), std::min(high, domain.high), most, least_steps);
  out.places.reserve(out.heights.count);
  for (std::size_t i = 0; i < out.heights.count; ++i)
    out.places.push_back(bag.place(out.heights.H(i)));
  const auto& loads = bag.model().loads;
  out.sides.resize(loads.size());
  for (std::size_t c = 0; c < loads.size(); ++c) {
    if (!loads[c] || (only_case && c != *only_case)) continue;
    out.sides[c].reserve(out.places.size());
    for (const auto& place : out.places)
      out.sides[c].push_back(place ? bag.side_pressures(*place, *loads[c]) : std::array{0.0, 0.0});
  }
  return out;
}

} // namespace mavrel::assess
