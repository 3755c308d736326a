// The air kit on paper: its parts with threads and counts, lines with lengths, predicted times, wiring, and the run.
#pragma once

#include "assess/air/air_given.h"
#include "assess/doubt/doubt.h"

#include <string>

namespace mavrel::report {

/// HTML of the kit's list; empty where no kit is begun.
[[nodiscard]] std::string kit_sheet(const assess::AirGiven& air, const UnitPrefs& prefs);
/// HTML of what is predicted of it, and of its wiring.
[[nodiscard]] std::string predicted_sheet(const assess::AirGiven& air, const UnitPrefs& prefs,
                                          const assess::Doubt* doubt = nullptr);

constexpr double run_svg_width = 520, run_svg_height = 150; // points
/// The run of air from intake to bags, as wide as each part lets air through.
[[nodiscard]] std::string run_svg(const assess::AirGiven& air, const UnitPrefs& prefs);

/// Battery, fuses, relays, compressors and switch with their cables; empty where nothing is to be wired.
[[nodiscard]] std::string wiring_svg(const assess::AirGiven& air, const UnitPrefs& prefs);

/// The kit's parts as a table for a shop: part, maker, thread, count, length.
[[nodiscard]] std::string kit_csv(const assess::AirGiven& air);

} // namespace mavrel::report
