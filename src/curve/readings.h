// What repeated readings of one quantity say: mean, spread, and the one that does not belong.
#pragma once

#include <cstddef>
#include <optional>
#include <span>

namespace mavrel::curve {

/// @returns arithmetic mean; none without readings
[[nodiscard]] std::optional<double> mean(std::span<const double> readings);
/// @returns largest less smallest; 0 for fewer than two
[[nodiscard]] double spread(std::span<const double> readings);
/// The reading farthest from the median, if the others agree far better without it: their spread falls below
/// a third of the whole. Needs three readings; with two nobody can tell which is wrong.
[[nodiscard]] std::optional<std::size_t> odd_one_out(std::span<const double> readings);

} // namespace mavrel::curve
