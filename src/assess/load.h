// Who carries what: corner readings and load cases to masses per end.
#pragma once

#include "assess/assessment.h"

namespace mavrel::assess {

/// Unsprung mass of a corner when nobody weighed it, kg.
[[nodiscard]] double estimated_unsprung(build::Layout layout);
/// The builder's figure, or the estimate.
[[nodiscard]] double unsprung_mass(const build::EndSurvey& end);

/// Mean reading of a corner; the other side's where this one was not taken.
[[nodiscard]] std::optional<double> corner_mass(const build::EndSurvey& end, Side side);

/// One entry a load case, at least one. Axle shares by moments: ΔW_rear = m·x/L; sides by their distance from the
/// middle over the track (taken in the middle where no track was measured).
/// Source: docs/models.md, "Loads".
[[nodiscard]] std::vector<CaseLoad> case_loads(const build::Build& build);

/// Front right and rear left over the whole car, surveyed.
[[nodiscard]] std::optional<double> cross_weight(const build::Build& build);

} // namespace mavrel::assess
