// What a closer look at how an end moves, and how its bag is mounted, would point out.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct SwingFindingsGiven {
  Answered<EndQuestion> end;
  std::size_t variant = 0; // which is active: fields are gone to by its number
  [[nodiscard]] auto parts() const { return std::tie(end, variant); }
  friend bool operator==(const SwingFindingsGiven&, const SwingFindingsGiven&) = default;
};
[[nodiscard]] SwingFindingsGiven swing_findings_given(const build::Build& build, Answered<EndQuestion> end);

extern const std::span<const FindingRow> swing_finding_rows;
[[nodiscard]] Findings find_in_swing(const SwingFindingsGiven& given);

struct SwingFindingsQuestion {
  using Given = SwingFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_swing(given); }
};

} // namespace mavrel::assess
