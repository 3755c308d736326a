// What of the fit-up a careful builder would point out: signatures that no longer stand, checks that failed, orders
// that go round, jobs nobody can do, lines through wheels, templates that can't be drawn.
#pragma once

#include "assess/finding/finding.h"
#include "assess/fit_up/fit_up_given.h"

namespace mavrel::assess {

extern const std::span<const FindingRow> fit_up_finding_rows;
[[nodiscard]] Findings find_in_fit_up(const FitUpGiven& given);

struct FitUpFindingsQuestion {
  using Given = FitUpGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_fit_up(given); }
};

} // namespace mavrel::assess
