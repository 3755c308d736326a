// One smooth curve through solved poses, so that what reads it needs no linkage.
#pragma once

#include "curve/polynomial.h"

#include <span>

namespace mavrel::motion {

/// A curve and how far it lies from what it was drawn through.
struct Smooth {
  curve::Polynomial curve;
  double off = 0; // furthest, in the values' own unit
};

/// Least squares of a degree that follows solved poses to a few parts in a million over a whole travel.
/// @param x, y  equally many, at least three; x rising
[[nodiscard]] Smooth smooth_through(std::span<const double> x, std::span<const double> y);

} // namespace mavrel::motion
