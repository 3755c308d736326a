// What of care can be said on any day: figures that still are another car's, and days in the log that are none.
#pragma once

#include "assess/care/care_given.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

extern const std::span<const FindingRow> care_finding_rows;
[[nodiscard]] Findings find_in_care(const CareGiven& given);

struct CareFindingsQuestion {
  using Given = CareGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_care(given); }
};

} // namespace mavrel::assess
