// A straight line through readings, with the doubt of its slope.
#pragma once

#include <optional>
#include <span>
#include <utility>

namespace mavrel::curve {

struct Line {
  double mean_x = 0, mean_y = 0;
  double slope = 0, slope_sd = 0; // of y by x, and its standard error
  [[nodiscard]] double at(double x) const { return mean_y + slope * (x - mean_x); }
};

/// By least squares.
/// @returns it; none of fewer than three readings, or where all are at one x
[[nodiscard]] std::optional<Line> line_through(std::span<const std::pair<double, double>> readings);

} // namespace mavrel::curve
