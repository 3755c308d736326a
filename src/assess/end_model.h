// One end of the car made ready for arithmetic: its travel map, its stops, its loads. Everything about it that does
// not depend on which bag is fitted.
#pragma once

#include "air/bag.h"
#include "assess/assessment.h"
#include "motion/travel_map.h"

#include <optional>
#include <span>
#include <vector>

namespace mavrel::assess {

struct EndModel {
  End end = End::front;
  std::optional<motion::TravelMap> map; // none while a reading it needs is missing
  std::optional<double> surveyed_height;
  std::optional<double> tyre_radius;
  std::optional<double> damper_open, damper_shut; // m, the fitted damper's
  std::optional<double> stop_height;              // m, H where the bump stop meets
  std::optional<double> stop_ratio;               // d(gap)/dH
  double other_rate = 0, other_slack = 0;         // other springs at the wheel, N/m and m
  std::vector<std::optional<EndLoad>> loads;      // one a load case
  build::Brief brief;                             // reserves; its presets are not copied
  air::BagSetting setting;                        // with the added volume while its line is open
  double line_bore = 0, line_length = 0;          // m, of the line to the added volume
  double unsprung_mass = 0;                       // kg a corner
  double tyre_rate = 0;                           // N/m
  double friction = 0;                            // N at the wheel

  /// Force along the spring for a sprung mass at H, N: (m·g − other springs)/MR.
  [[nodiscard]] double spring_force(double sprung_mass, double H, const motion::MapPoint& at) const;
};

/// Rate of a tyre when nobody gave one, N/m.
constexpr double usual_tyre_rate = 2e5;

[[nodiscard]] EndModel end_model(const build::Build& build, End end, const std::vector<CaseLoad>& loads);

/// How far the floor under each corner stands off the best plane through all four, m: [end][side]. Zero without
/// four floor readings. A hub on a high spot sits closer to its arch by this much, a low one farther.
[[nodiscard]] std::array<std::array<double, 2>, 2> floor_corrections(const build::Build& build);

/// H that a wish stands for at this end; none while the survey or the tyre it refers to is missing.
[[nodiscard]] std::optional<double> wished_height(const build::HeightWish& wish, const EndModel& model);
/// The wish that stands for H, said the same way as `like`.
[[nodiscard]] build::HeightWish wish_for_height(double H, const build::HeightWish& like,
                                                std::optional<double> surveyed_height,
                                                std::optional<double> tyre_radius);

} // namespace mavrel::assess
