// Shape-preserving cubics through tabulated points, several columns over one set of abscissae.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace mavrel::curve {

/// Slopes of the monotone cubic through (x, y): Fritsch–Butland inside, three-point at the ends, limited so that
/// the curve never leaves the data's shape.
/// @param x  strictly rising, at least two
/// @param y  as many as x
/// Source: docs/models.md, "Reading a bag card".
[[nodiscard]] std::vector<double> pchip_slopes(std::span<const double> x, std::span<const double> y);

struct ValueSlope {
  double value = 0;
  double slope = 0; // d value / d x
};

/// Columns read at the same abscissa. The search for the interval and the cubic's weights are shared by all
/// columns: reading a bag at one height takes six columns, and a screen takes thousands of heights.
class PchipTable {
public:
  PchipTable() = default;
  /// @param x        strictly rising, at least two
  /// @param columns  each as long as x
  PchipTable(std::vector<double> x, const std::vector<std::vector<double>>& columns);

  [[nodiscard]] std::size_t columns() const { return columns_; }
  [[nodiscard]] double front() const { return x_.front(); }
  [[nodiscard]] double back() const { return x_.back(); }
  [[nodiscard]] bool contains(double x) const { return !x_.empty() && x >= front() && x <= back(); }

  /// Where `x` falls in the table, and the cubic's weights there.
  struct Place {
    std::size_t row = 0;
    double v0 = 0, v1 = 0, s0 = 0, s1 = 0; // weights of the value: left and right value, left and right slope
    double dv = 0, d0 = 0, d1 = 0;         // weights of the slope: value difference, left and right slope
  };
  /// @param x  inside the table
  [[nodiscard]] Place place(double x) const;
  [[nodiscard]] ValueSlope read(const Place& at, std::size_t column) const;
  [[nodiscard]] ValueSlope read(double x, std::size_t column) const { return read(place(x), column); }

private:
  std::vector<double> x_;
  std::size_t columns_ = 0;
  std::vector<double> y_, s_; // row by row, all columns of a row together
};

} // namespace mavrel::curve
