// A height sensor on its end of the car: what its lever does over the travel, how finely it reads, and what comes near.
#pragma once

#include "assess/end/end_answer.h"
#include "control/sensor.h"

namespace mavrel::assess {

struct SensorGiven {
  AnsweredEnds ends;
  std::array<build::SensorFit, 2> fits;
  [[nodiscard]] auto parts() const { return std::tie(ends, fits); }
  friend bool operator==(const SensorGiven& a, const SensorGiven& b) { return a.parts() == b.parts(); }
};

struct SensorLook {
  double H = 0; // m
  control::SensorPose pose;
  double turned = 0; // rad from the angle at the surveyed height, the turns counted on
};

/// What comes nearest to lever or rod.
struct SensorNear {
  std::string name;           // as somebody typed it; empty: the tyre
  double gap = 0, wanted = 0; // m
  double H = 0;               // m, where
};

struct SensorAtEnd {
  std::optional<control::SensorLinkage> linkage; // none: not placed yet
  double lowest = 0, highest = 0;                // m, H of the travel; equal: not known
  std::vector<SensorLook> looks;                 // rising in H, over what the rod reaches of the travel
  std::optional<Message> trouble;                // why it does not reach all of it
  double sweep = 0;                              // rad over the travel
  double used = 0;                               // share of what the sensor reads over
  double off_square = 0;                         // rad, the furthest of lever and rod from square
  double nearest_in_line = 0;                    // rad
  bool flips = false;                            // nearer than `control::may_flip` to in line somewhere
  std::optional<double> counts_per_metre;        // at road height
  std::vector<control::LeverChoice> better;      // levers and rods that use the range best, from where it is placed
  std::optional<SensorNear> nearest;             // none where nothing near has a place
};
/// Source: docs/models.md, "Height sensor".
[[nodiscard]] SensorAtEnd sensor_at_end(const FittedEnd& end, const build::SensorFit& fit);

struct SensorQuestion {
  using Given = SensorGiven;
  using Answer = std::array<SensorAtEnd, 2>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) {
    return {sensor_at_end(given.ends[0]->fitted, given.fits[0]), sensor_at_end(given.ends[1]->fitted, given.fits[1])};
  }
};

constexpr double sensor_rod = 0.006; // m, half as thick as lever and rod are

/// The linkage of a sensor; none where it is not placed.
[[nodiscard]] std::optional<control::SensorLinkage> linkage_of(const build::SensorFit& fit);

} // namespace mavrel::assess
