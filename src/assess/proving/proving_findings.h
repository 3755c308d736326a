// What of the proof a careful builder would point out: signatures that no longer stand, checks that failed, a car that
// was handed over unproved, predictions that were learned from it.
#pragma once

#include "assess/finding/finding.h"
#include "assess/fit_up/fit_up_given.h"

namespace mavrel::assess {

extern const std::span<const FindingRow> proving_finding_rows;
[[nodiscard]] Findings find_in_proving(const FitUpGiven& given);

struct ProvingFindingsQuestion {
  using Given = FitUpGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_proving(given); }
};

} // namespace mavrel::assess
