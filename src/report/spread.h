// Labels along a line, moved apart.
#pragma once

#include <vector>

namespace mavrel::report {

/// Moves label positions apart until neighbours are at least `gap` apart, keeping their order and staying within
/// [top, bottom] while there is room. @param wanted  positions, any order
[[nodiscard]] std::vector<double> spread_apart(const std::vector<double>& wanted, double gap, double top,
                                               double bottom);

} // namespace mavrel::report
