// What goes out of the door with the car, as rich text: a sheet for its owner, and one for the shop with everything.
#pragma once

#include "assess/proving/hand_over.h"

#include <string>
#include <vector>

namespace mavrel::report {

/// Each page begins a new sheet of paper.
struct HandOverSheets {
  std::vector<std::string> owner, shop; // HTML
};
/// @param given   that the hand-over is of
/// @param points  the checks with what was measured
/// @param today   `2026-12-18`; empty: not said
[[nodiscard]] HandOverSheets hand_over_sheets(const build::Build& build, const assess::FitUpGiven& given,
                                              const assess::HandOver& over,
                                              const std::vector<assess::HoldPoint>& points, const UnitPrefs& prefs,
                                              const std::string& today);

} // namespace mavrel::report
