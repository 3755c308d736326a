// One end with the bag its design has chosen, and where its presets lie: what every question about a bag in depth
// starts from.
#pragma once

#include "assess/end/bag_on_end.h"
#include "assess/end/presets.h"
#include "quantity/expected.h"

namespace mavrel::assess {

struct FittedEnd {
  EndModel model;
  std::shared_ptr<const shelf::ShelfBag> bag; // none chosen, or not on the shelf
  double stack = 0;                           // m, plates and mounts, and what the seats are nearer than surveyed
  std::vector<std::optional<double>> presets; // H, one a preset of the brief
  std::optional<double> parked, road, ramp;   // H of the first preset of each use

  /// Stands the bag on plates and mounts of these heights, m.
  void stand_on(double upper, double lower) { stack = upper + lower + model.seat_shift; }
  /// The bag on its end. Refers to this; only with a map and a bag.
  [[nodiscard]] BagOnEnd on() const { return {model, *bag, stack}; }
};

[[nodiscard]] FittedEnd fitted_end(const EndGiven& given);
/// The same from the document, for who asks once.
[[nodiscard]] FittedEnd fitted_end(const build::Build& build, const shelf::Shelf& shelf, End end);

/// The end at a height in a load case, or what is missing for it, said as a builder would.
struct PosedEnd {
  BagOnEnd::Place place;
  EndLoad load;
  PoseState state;
  double force = 0; // N along the spring, mean of both sides
};
[[nodiscard]] Expected<PosedEnd> posed_end(const FittedEnd& end, double H, std::size_t load_case);

} // namespace mavrel::assess
