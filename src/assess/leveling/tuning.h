// Averaging, band, wait and gain that keep the height within what the brief can spare, for the least air and valve
// work.
#pragma once

#include "assess/leveling/leveling_given.h"

#include <functional>
#include <stop_token>

namespace mavrel::assess {

/// One set of four numbers tried on the whole drive.
struct TuningPoint {
  control::Rules rules;
  double off = 0;        // m that the height is off by, all but a twentieth of the time, the worse end
  double low = 0;        // m that it is below by, likewise: what it eats of the bump travel
  double air = 0;        // kg an hour
  double bursts = 0;     // an hour
  double valve = 0;      // s an hour
  double compressor = 0; // s an hour
  bool spared = false;   // within what the brief can spare
  bool best = false;     // and no other is as good in height, air and bursts together
};

struct Tuning {
  std::vector<TuningPoint> points;     // the first as it is now; then as tried
  std::optional<std::size_t> proposed; // of them: least work of those that are spared; none: nothing keeps within it
  double spare = 0;                    // m of bump travel that road height has over what the brief keeps
  double wall = 0;                     // s it took
};

/// The set that eats least of the bump travel: where none keeps within what can be spared, the nearest to it.
/// @returns its place among the points; none: there are none
[[nodiscard]] std::optional<std::size_t> nearest_to_spare(const Tuning& tuning);

struct TuningControl {
  unsigned threads = 0; // 0: as many as the machine has
  std::stop_token stop;
  std::function<void(double)> progress; // with the share done, from any thread, one at a time
};

/// Tries the four numbers of the chosen set-up, everything else of it kept.
/// @returns none where it was stopped; why the car can't be driven; or what was tried
/// Source: docs/models.md, "Tuning".
[[nodiscard]] std::optional<Expected<Tuning>> tune(const LevelingGiven& given, const TuningControl& control = {});

} // namespace mavrel::assess
