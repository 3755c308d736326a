// Does a pressure gauge tell height on this corner? The band of heights that one reading leaves open.
#pragma once

#include "assess/fitted_end.h"

namespace mavrel::assess {

/// All heights that would show the same reading as `H` does, within the gauge's error, the friction, and how well the
/// load is known.
struct GaugeBand {
  double H = 0;
  double low = 0, high = 0; // m
  [[nodiscard]] double width() const { return high - low; }
};

/// What a builder can do with pressures alone.
enum class GaugeVerdict { tells, roughly, silent };

struct GaugeTale {
  std::vector<GaugeBand> bands; // rising in H, at most 2 mm apart, over the reach window
  GaugeBand here;               // at the height asked for
  double slope = 0;             // dp/dH there for the corner's load, Pa/m
  GaugeVerdict verdict = GaugeVerdict::tells;
  Message advice;
};

constexpr double telling_band = 0.012, rough_band = 0.030; // m, widths up to which a pressure tells, or tells roughly

/// @param H            inside `reach`: elsewhere the car does not stand and no reading is taken
/// @param gauge_error  either way, Pa
/// Source: docs/models.md, "Does pressure tell height".
[[nodiscard]] Expected<GaugeTale> gauge_tale(const FittedEnd& end, const Window& reach, double H, std::size_t load_case,
                                             double gauge_error);

/// The band at one height alone. @returns none outside reach or where the bag has no answer
[[nodiscard]] std::optional<GaugeBand> gauge_at(const FittedEnd& end, const Window& reach, double H,
                                                std::size_t load_case, double gauge_error);

} // namespace mavrel::assess
