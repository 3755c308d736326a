// A wheel jacked through its travel with a tape in hand: the smooth curve behind readings of one length at several
// heights, its slope with what is not known of it, and the readings to take again.
#pragma once

#include "curve/polynomial.h"
#include "quantity/expected.h"

#include <optional>
#include <span>
#include <vector>

namespace mavrel::motion {

constexpr double least_between_heights = 1e-4; // m: closer ones are one height read twice
constexpr double least_misreading = 0.0015;    // m, of a length
constexpr double least_misread_angle = 0.005;  // rad, of camber and toe

/// One step: a length that was read at a height.
struct CycleReading {
  double height = 0; // m, H
  double length = 0; // m; of camber and toe rad
};

struct CycleFit {
  int degree = 1;
  curve::Polynomial length;               // m, of H
  double lowest = 0, highest = 0;         // m, H that was read
  std::optional<double> reading_sd;       // m of a single reading about the curve; none with no reading to spare
  std::vector<std::size_t> measure_again; // which readings lie so far off that the tape was misread, rising

  /// Standard error of the slope at H: of the motion ratio, where the length is the spring's.
  /// @returns none with no reading to spare
  [[nodiscard]] std::optional<double> slope_sd(double H) const;

  // The normal equations' inverse in u = (H − x0)/half_range, row by row; for slope_sd.
  double half_range = 1;
  std::vector<double> inverse;
};

/// Least squares of degree min(3, max(1, (n − 1)/2)), and never more than the distinct heights carry: the slope must
/// not follow the tape's noise. A reading that the others reject (leave-one-out residual, externally studentised, 5 %
/// over all of them) and that lies over 1.5 mm from the curve without it is to be measured again; it stays in the fit
/// until somebody does.
/// @param readings  in any order, heights may repeat
/// @returns the fit; or that there are too few readings or heights, or that a number is none
/// Source: docs/models.md, "Cycle sheet".
/// @param least  nearer to the curve nobody measures again; in the readings' own unit
[[nodiscard]] Expected<CycleFit> fit_cycle(std::span<const CycleReading> readings, double least = least_misreading);

} // namespace mavrel::motion
