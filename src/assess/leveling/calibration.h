// What a controller is taught before it keeps anything: the heights and pressures to store, in the order a person does
// it, what the car reads at each, and what bursts look like on this car.
#pragma once

#include "assess/leveling/leveling_given.h"

#include <stop_token>

namespace mavrel::assess {

/// One preset as it is stored. Corners FL FR RL RR.
struct StoredPreset {
  std::size_t preset = 0; // of the brief
  std::string name;
  build::PresetUse use = build::PresetUse::other;
  std::array<double, 2> height{};              // m, H, front and rear
  std::array<double, 4> pressure{};            // Pa gauge, standing there
  std::array<std::optional<double>, 4> counts; // of the sensor, from its middle; none where it is not placed
  std::optional<double> nose_up;               // rad, the body against how it was surveyed; none without wheelbase
  bool on_stop = false;                        // an end rests on its stop: any lower pressure stands as well
  std::optional<Message> trouble;              // why it can't stand there
};

struct CalibrationStep {
  Message what, why;
};

struct Calibration {
  std::vector<StoredPreset> presets; // road first, then upwards, then down: nobody lies on a stop in between
  std::vector<std::vector<std::size_t>> circuits; // the corners of each
  std::vector<control::LearnedBurst> bursts;      // one a circuit, at road height
  std::vector<CalibrationStep> before, steps;     // what must be true first; then what is done, in order
};

/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped
[[nodiscard]] std::optional<Expected<Calibration>> answer_calibration(const LevelingGiven& given,
                                                                      const std::stop_token& stop);

/// Counts that a corner's sensor shows at H, its middle where it reads half its range; none where it is not placed or
/// does not reach. @param right  the right side's: it runs the other way unless it is a mirror image
[[nodiscard]] std::optional<double> counts_at(const FittedEnd& end, const build::SensorFit& fit, double H, bool right);

} // namespace mavrel::assess
