// What one end of the car does as it moves: spring and damper against height. However the map was come by, the rest
// of the program reads it here.
#pragma once

#include "curve/polynomial.h"

#include <optional>

namespace mavrel::motion {

/// The end at one height.
struct MapPoint {
  double spring_length = 0;      // m, seat to seat
  double motion_ratio = 0;       // d(spring length)/dH, 1
  double motion_ratio_slope = 0; // dMR/dH, 1/m
};

/// Spring and damper length as functions of height H (m, hub centre to arch lip, droop positive), over [lowest,
/// highest]. Both grow with H everywhere in it: where a curve turns, the map ends, because beyond a turn one length
/// would stand for two heights.
class TravelMap {
public:
  TravelMap() = default;
  /// A map from curves, as far as they may be trusted.
  /// @param about            H inside [lowest, highest] that the map must hold: the surveyed height
  /// @param lowest, highest  where the curves are known, m; cut back to where spring and damper still follow the wheel
  [[nodiscard]] static TravelMap from_curves(curve::Polynomial spring, std::optional<curve::Polynomial> damper,
                                             double about, double lowest, double highest);
  /// The map a single survey gives: lengths at one height and constant ratios, good for `reach` either side of it.
  [[nodiscard]] static TravelMap linear(double surveyed_height, double spring_length, double motion_ratio,
                                        std::optional<double> damper_length, double damper_ratio, double reach = 0.3);

  [[nodiscard]] double lowest() const { return lowest_; }
  [[nodiscard]] double highest() const { return highest_; }
  [[nodiscard]] bool contains(double H) const { return H >= lowest_ && H <= highest_; }
  [[nodiscard]] bool has_damper() const { return !damper_.c.empty(); }

  [[nodiscard]] MapPoint at(double H) const;
  /// Eye to eye, m, and its slope. Only with a damper.
  [[nodiscard]] curve::ValueSlope damper(double H) const { return damper_.read(H); }

  /// The height at which the spring, or the damper, has this length; none within the map's range.
  [[nodiscard]] std::optional<double> height_for_spring(double length) const;
  [[nodiscard]] std::optional<double> height_for_damper(double length) const;

private:
  curve::Polynomial spring_, damper_;
  double lowest_ = 0, highest_ = 0;
};

} // namespace mavrel::motion
