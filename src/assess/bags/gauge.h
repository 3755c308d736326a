// Does a pressure gauge tell height on this corner? The band of heights that one reading leaves open.
#pragma once

#include "assess/end/end_answer.h"

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

/// How well what is read, and what is aboard, are known, either way.
struct GaugeDoubt {
  double pressure = 0; // Pa, of the gauge
  double load = 0;     // kg a corner
  [[nodiscard]] auto parts() const { return std::tie(pressure, load); }
  friend bool operator==(const GaugeDoubt&, const GaugeDoubt&) = default;
};
[[nodiscard]] inline GaugeDoubt gauge_doubt(const build::Brief& brief) {
  return {brief.gauge_error, brief.load_doubt};
}

/// @param H  inside `reach`: elsewhere the car does not stand and no reading is taken
/// Source: docs/models.md, "Does pressure tell height".
[[nodiscard]] Expected<GaugeTale> gauge_tale(const FittedEnd& end, const Window& reach, double H, std::size_t load_case,
                                             const GaugeDoubt& doubt);

/// The band at one height alone. @returns none outside reach or where the bag has no answer
[[nodiscard]] std::optional<GaugeBand> gauge_at(const FittedEnd& end, const Window& reach, double H,
                                                std::size_t load_case, const GaugeDoubt& doubt);

struct GaugeGiven {
  AnsweredEnd end;
  double H = 0; // m, where it stands
  std::size_t load_case = 0;
  GaugeDoubt doubt;
  [[nodiscard]] auto parts() const { return std::tie(end, H, load_case, doubt); }
  friend bool operator==(const GaugeGiven&, const GaugeGiven&) = default;
};

struct GaugeQuestion {
  using Given = GaugeGiven;
  using Answer = Expected<GaugeTale>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given);
};

} // namespace mavrel::assess
