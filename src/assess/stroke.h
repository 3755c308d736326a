// Pressure and force through the whole stroke with the valves shut, and which stop meets first.
#pragma once

#include "assess/fitted_end.h"

namespace mavrel::assess {

/// The sealed bag at one height, coming from road height slowly (air keeps its temperature) and quickly.
struct StrokeAt {
  double H = 0;
  double slow_pressure = 0, quick_pressure = 0; // Pa gauge
  double slow_force = 0, quick_force = 0;       // N along the bag's axis
};

/// Something that ends bump travel, and where.
struct BumpEnd {
  enum class What { bump_stop, bag_margin, bag_collapsed, damper_shut };
  What what = What::bump_stop;
  double H = 0;
};
[[nodiscard]] const char* bump_end_name(BumpEnd::What what);

struct Stroke {
  double from = 0;                     // m, H it starts at
  std::vector<StrokeAt> points;        // rising in H, at most 1 mm apart, full bump to full rebound
  double added_taking_part = 0;        // m³ of the added volume that a quick stroke can use
  double peak = 0, least = 0;          // Pa, quick, at full bump and full rebound
  std::optional<double> over_maximum;  // m, H below which the quick pressure is over the bag's maximum
  std::optional<double> under_minimum; // m, H above which either pressure is under the minimum: folds or comes off
  std::vector<BumpEnd> order;          // highest first: what meets first in bump
  bool stop_before_bag = false;        // an outside stop meets before the bag is down to its margin, or one is inside
};

/// @param reach  full bump to full rebound, m
/// Source: docs/models.md, "Bag".
[[nodiscard]] Expected<Stroke> stroke_through(const FittedEnd& end, const Window& reach, double from,
                                              std::size_t load_case);

/// What of the added volume a movement this quick can use, m³: the volume that, wide open, would give the same rate.
[[nodiscard]] double volume_taking_part(const air::SoftenedBag& bag, const air::BagSetting& setting, double volume,
                                        double frequency);

} // namespace mavrel::assess
