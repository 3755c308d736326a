// A polynomial about a reference point: how something changes with height, smooth by construction.
#pragma once

#include "curve/pchip.h"

#include <vector>

namespace mavrel::curve {

/// c0 + c1·(x − x0) + c2·(x − x0)² + …
struct Polynomial {
  double x0 = 0;
  std::vector<double> c; // empty: zero everywhere

  [[nodiscard]] ValueSlope read(double x) const;
  /// d² value / d x²
  [[nodiscard]] double curvature(double x) const;
};

} // namespace mavrel::curve
