// Where a function crosses a level inside a bracket.
#pragma once

#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <optional>

namespace mavrel::curve {

/// @param f       continuous on [lo, hi]
/// @param target  the level looked for
/// @param within  how near x must be, of its own size
/// @returns x with f(x) = target; none where the ends lie on the same side of it
template <class F>
[[nodiscard]] std::optional<double> crossing(const F& f, double lo, double hi, double target = 0,
                                             double within = 1e-12) {
  const auto g = [&](double x) { return f(x) - target; };
  const double at_lo = g(lo);
  const double at_hi = g(hi);
  if (at_lo == 0) return lo;
  if (at_hi == 0) return hi;
  if (!std::isfinite(at_lo) || !std::isfinite(at_hi) || (at_lo < 0) == (at_hi < 0)) return std::nullopt;
  std::uintmax_t tries = 100;
  const auto close = [&](double a, double b) {
    return std::abs(a - b) <= within * std::max(1.0, std::abs(a) + std::abs(b));
  };
  const auto [a, b] = boost::math::tools::toms748_solve(g, lo, hi, at_lo, at_hi, close, tries);
  return 0.5 * (a + b);
}

} // namespace mavrel::curve
