// Pieces cut from bars: as few new bars as can be, what is left of older ones first, the saw's kerf counted.
#pragma once

#include "quantity/expected.h"

#include <span>
#include <vector>

namespace mavrel::work {

/// One bar with what is cut from it.
struct CutBar {
  double length = 0;               // m, before
  bool leftover = false;           // it was on the shelf already
  std::vector<std::size_t> pieces; // indices of those asked for, longest first
  double left = 0;                 // m after the last cut's kerf; 0 where the rest is thinner than the kerf
};
struct CutPlan {
  std::vector<CutBar> bars; // those that are cut: leftovers first
  std::size_t fresh = 0;    // new ones among them
  std::size_t least = 0;    // no plan needs fewer new ones
  bool proven = false;      // this one has the fewest
};

/// Of up to 20 pieces the fewest new bars there can be; of more nearly always.
/// @param pieces     m each, above 0
/// @param bar        m, of a new bar
/// @param kerf       m that a cut takes; a piece that ends with the bar needs none
/// @param leftovers  m each, used before a new bar is begun
/// @returns the plan; or which piece no bar is long enough for
/// Source: docs/models.md, "Cutting".
[[nodiscard]] Expected<CutPlan> cut_plan(std::span<const double> pieces, double bar, double kerf,
                                         std::span<const double> leftovers = {});

} // namespace mavrel::work
