// What one end with what is fitted there has to say: windows, presets, pressures, stops, comfort.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct EndFindingsGiven {
  Answered<EndQuestion> end;
  std::size_t variant = 0;                      // which is active: fields are gone to by its number
  std::vector<std::string> cases;               // names of the load cases
  std::vector<std::string> presets;             // names of the presets
  double frequency_low = 0, frequency_high = 0; // Hz wanted
  [[nodiscard]] auto parts() const { return std::tie(end, variant, cases, presets, frequency_low, frequency_high); }
  friend bool operator==(const EndFindingsGiven&, const EndFindingsGiven&) = default;
};
[[nodiscard]] EndFindingsGiven end_findings_given(const build::Build& build, Answered<EndQuestion> end);

extern const std::span<const FindingRow> end_finding_rows;
[[nodiscard]] Findings find_at_end(const EndFindingsGiven& given);

struct EndFindingsQuestion {
  using Given = EndFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_at_end(given); }
};

} // namespace mavrel::assess
