// Who carries what: corner readings and load cases to masses per end.
#pragma once

#include "build/build.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace mavrel::assess {

using build::End;
using build::Side;

/// What one end carries in one load case.
struct EndLoad {
  double axle_mass = 0;              // kg on the floor
  double sprung_mass = 0;            // kg a corner, mean of both sides
  std::array<double, 2> side_mass{}; // kg sprung, left and right wheel
  friend bool operator==(const EndLoad&, const EndLoad&) = default;
};

struct CaseLoad {
  std::string name;
  std::array<std::optional<EndLoad>, 2> ends; // none where a reading is missing
  std::optional<double> total_mass;           // kg on the floor
  /// rad, left lower is positive: how the car leans at road height because bags joined by a tee share one pressure and
  /// can't carry different loads; none where no sides are joined or something is missing.
  std::optional<double> standing_lean;
  friend bool operator==(const CaseLoad&, const CaseLoad&) = default;
};

/// Unsprung mass of a corner when nobody weighed it, kg.
[[nodiscard]] double estimated_unsprung(build::Layout layout);
/// The builder's figure, or the estimate.
[[nodiscard]] double unsprung_mass(const build::EndSurvey& end);

/// Mean reading of a corner; the other side's where this one was not taken.
[[nodiscard]] std::optional<double> corner_mass(const build::EndSurvey& end, Side side);

/// What each load case puts aboard, without names and heights. At least one: as surveyed when there is none.
/// @param fitted  what the design adds to each of them
using Masses = std::vector<std::vector<build::LoadMass>>;
[[nodiscard]] Masses masses_of(const build::Build& build, const std::vector<build::LoadMass>& fitted = {});

/// What an end carries in each load case; none where a reading is missing. Axle shares by moments: ΔW_rear = m·x/L;
/// sides by their distance from the middle over the track (taken in the middle where no track was measured).
/// Source: docs/models.md, "Loads".
[[nodiscard]] std::vector<std::optional<EndLoad>>
end_loads(const build::EndSurvey& survey, End end, const std::optional<double>& wheelbase, const Masses& masses);

/// Names and sums to what both ends carry. One entry a load case, at least one.
[[nodiscard]] std::vector<CaseLoad> case_loads(const List<build::LoadCase>& cases,
                                               const std::array<std::vector<std::optional<EndLoad>>, 2>& ends);

/// The same from the readings alone.
[[nodiscard]] std::vector<CaseLoad> case_loads(const build::Build& build,
                                               const std::vector<build::LoadMass>& fitted = {});

/// Front right and rear left over the whole car, surveyed.
[[nodiscard]] std::optional<double> cross_weight(const build::EndSurvey& front, const build::EndSurvey& rear);

} // namespace mavrel::assess
