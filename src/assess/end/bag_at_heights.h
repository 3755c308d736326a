// A bag put on its heights once: windows, tracks and findings read it there.
#pragma once

#include "assess/end/bag_on_end.h"
#include "assess/height/track.h"
#include "assess/height/window.h"

#include <array>
#include <optional>
#include <vector>

namespace mavrel::assess {

struct BagAtHeights {
  Heights heights;                                    // where the bag's card, the map and the domain all answer
  std::vector<std::optional<BagOnEnd::Place>> places; // one a height
  /// [load case][height]: Pa left and right, 0 where other springs carry that side. Empty for a case that is not known,
  /// or not asked for.
  std::vector<std::vector<std::array<double, 2>>> sides;
};

/// @param most       m between heights at most
/// @param only_case  the one load case wanted; none: every one
[[nodiscard]] BagAtHeights bag_at_heights(const BagOnEnd& bag, const Domain& domain, double most, int least_steps = 1,
                                          std::optional<std::size_t> only_case = {});

} // namespace mavrel::assess
