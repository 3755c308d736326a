// A road under both wheels of an axle: made from a class of roughness and a seed, or of a plain shape to try things on.
#pragma once

#include "control/road_class.h"

#include <array>
#include <cstdint>
#include <vector>

namespace mavrel::control {

/// Displacement spectral density of a class at a wave number, m³: 16·10⁻⁶·4^k·(n/0.1)⁻², level below 0.01 cycles/m.
/// @param n  cycles/m, above 0
[[nodiscard]] double roughness(RoadClass road, double n);

/// A stretch of road that comes round again after its length. A value; cheap to share, never changes.
class Road {
public:
  /// @param length  m, above 0 @param track  m between the wheels
  /// The same seed and length give the same road on every machine. Waves from one a length to `finest` cycles/m.
  /// Source: docs/models.md, "Road".
  [[nodiscard]] static Road rough(RoadClass road, double length, std::uint64_t seed, double track = usual_track);
  [[nodiscard]] static Road flat();

  /// m above the mean, under the left and the right wheel. @param x  m along the way, 0 or more
  [[nodiscard]] std::array<double, 2> at(double x) const;
  [[nodiscard]] double length() const { return length_; }

  static constexpr double usual_track = 1.5; // m
  static constexpr double finest = 4;        // cycles/m

private:
  Road(std::vector<std::array<double, 2>> points, double length);
  std::vector<std::array<double, 2>> points_; // even, one length; the next would be the first
  double length_ = 1, per_metre_ = 1;
};

/// Chances that are the same on every machine. @returns the next number of a seed's row, 0 ≤ u < 1
class Chance {
public:
  explicit Chance(std::uint64_t seed) : state_(seed) {}
  [[nodiscard]] double next();
  [[nodiscard]] double between(double low, double high) { return low + (high - low) * next(); }
  /// Of mean 0 and deviation 1.
  [[nodiscard]] double normal();

private:
  std::uint64_t state_;
};

} // namespace mavrel::control
