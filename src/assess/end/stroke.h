// Pressure and force through the whole stroke with the valves shut, and what meets first. The one rule for strokes: the
// assessment, the search and the picture of the stroke all ask here.
#pragma once

#include "assess/end/fitted_end.h"
#include "assess/end/travel.h"

namespace mavrel::assess {

/// One end of a stroke made with the valves shut: how far the wheel goes, what ends it, and the pressure there.
struct StrokeEnd {
  double height = 0;                         // m, H
  const Limit* by = &limits::bag_collapsed;  // metal or rubber: a pressure ends no stroke
  std::optional<double> pressure;            // Pa gauge; none where the bag's card has no answer
  double added_taking_part = 0;              // m³ of the added volume that breathes at the stroke's pace
  air::Beyond beyond = air::Beyond::nothing; // of the pressure
};

/// The sealed bag from road height to both ends of its travel, in one load case: bump on the heavier side, rebound on
/// the lighter.
struct StrokeEnds {
  StrokeEnd bump, rebound;
};

/// Both ends of the stroke from a height, in bump until the stop gives no more.
/// @param from  m, H; inside the travel
/// @returns none where the bag has no answer at `from` or nothing is left to stroke through
/// Source: docs/models.md, "Stroke".
[[nodiscard]] std::optional<StrokeEnds> stroke_ends(const BagOnEnd& bag, const EndLoad& load,
                                                    const BagOnEnd::Place& from, const Travel& travel);
/// The same from a height. @returns none also where the bag has no answer there
[[nodiscard]] inline std::optional<StrokeEnds> stroke_ends(const BagOnEnd& bag, const EndLoad& load, double from,
                                                           const Travel& travel) {
  const auto place = bag.place(from);
  return place ? stroke_ends(bag, load, *place, travel) : std::nullopt;
}

/// The sealed bag at one height, coming from road height slowly (air keeps its temperature) and quickly; below road
/// height on the heavier side, above it on the lighter.
struct StrokeAt {
  double H = 0;
  double slow_pressure = 0, quick_pressure = 0; // Pa gauge
  double slow_force = 0, quick_force = 0;       // N along the bag's axis
};

/// Something met in bump, and where.
struct BumpEnd {
  enum class What { bump_stop, bump_stop_solid, bag_margin, bag_collapsed, damper_shut };
  What what = What::bump_stop;
  double H = 0;
};
[[nodiscard]] const char* bump_end_name(BumpEnd::What what);

struct Stroke {
  double from = 0;                     // m, H it starts at
  StrokeEnds ends;                     // how far it goes either way
  std::vector<StrokeAt> points;        // rising in H, at most 1 mm apart, as far as the card answers
  std::optional<double> over_maximum;  // m, H below which the quick pressure is over the bag's maximum
  std::optional<double> under_minimum; // m, H above which either pressure is under the minimum: folds or comes off
  std::vector<BumpEnd> order;          // highest first: what meets first in bump
  bool stop_before_bag = false;        // an outside stop meets before the bag is down to its margin, or one is inside
};

[[nodiscard]] Expected<Stroke> stroke_through(const FittedEnd& end, double from, std::size_t load_case);

/// What of the added volume a movement this quick can use, m³: the volume that, wide open, would give the same rate.
[[nodiscard]] double volume_taking_part(const air::SoftenedBag& bag, const air::BagSetting& setting, double volume,
                                        double frequency);

} // namespace mavrel::assess
