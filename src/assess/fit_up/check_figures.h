// The figures that each hold point asks for, as the design has them.
#pragma once

#include "assess/fit_up/checks.h"
#include "assess/fit_up/jobs.h"

namespace mavrel::assess {

/// Does an end's design ask for a check at all?
[[nodiscard]] bool asked_for(const CheckRow& row, FeatureSet features);
/// Empty: the design has nothing to be checked there.
[[nodiscard]] std::vector<AskedFigure> asked_figures(const FitUpGiven& given, const CheckRow& row,
                                                     std::optional<End> end);
/// A note's figure with what was measured and what the design says.
[[nodiscard]] build::CheckFigure figure_of(const AskedFigure& asked, std::optional<double> measured);
/// What the design said when it was signed.
[[nodiscard]] std::optional<double> designed_of(const build::CheckFigure& figure, Kind kind);

} // namespace mavrel::assess
