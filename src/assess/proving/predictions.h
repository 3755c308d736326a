// What simulations say of the figures that a check of Proving asks for: times, one corner alone and all together.
#pragma once

#include "assess/air/figures.h"
#include "assess/fit_up/checks.h"
#include "assess/leveling/leveling_given.h"

#include <stop_token>

namespace mavrel::assess {

/// One corner, or one axle through its tee, raised by `time_step` from road height with a full tank, and let down again
/// once the car has settled.
struct CornerTimes {
  double fill = 0, vent = 0; // s
};
/// Simulated with the car rolling on its bags: dampers and friction slow a quick corner as much as its line does.
/// @param circuit  among those of the kit
/// @param flow     of its way, over what the kit says
/// @returns the times; or why it does not get there
/// Source: docs/models.md, "Proving".
[[nodiscard]] Expected<CornerTimes> corner_times(const LevelingGiven& given, std::size_t circuit, double flow = 1);

/// s that all corners together take from one height to another, until the last is there.
/// @param aired_out  they begin with their bags vented, the car on its stops
[[nodiscard]] Expected<double> together_time(const LevelingGiven& given, const std::array<double, 2>& from,
                                             const std::array<double, 2>& to, bool aired_out = false);

struct Predicted {
  Predictions figures;
  std::vector<Message> trouble; // why some could not be worked out
};
/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped
[[nodiscard]] std::optional<Predicted> predict(const LevelingGiven& given, const std::stop_token& stop);

} // namespace mavrel::assess
