// What comes too near to what at one end, and readings of obstacles that say nothing.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct TouchFindingsGiven {
  Answered<EndQuestion> end;
  std::size_t variant = 0;          // which is active: fields are gone to by its number
  std::vector<std::string> presets; // their names
  [[nodiscard]] auto parts() const { return std::tie(end, variant, presets); }
  friend bool operator==(const TouchFindingsGiven&, const TouchFindingsGiven&) = default;
};
[[nodiscard]] TouchFindingsGiven touch_findings_given(const build::Build& build, Answered<EndQuestion> end);

extern const std::span<const FindingRow> touch_finding_rows;
[[nodiscard]] Findings find_touching(const TouchFindingsGiven& given);
/// Does a finding say that something near the bag was not looked at, so that the real window may end before the known?
[[nodiscard]] bool leaves_room_unknown(const Finding& finding);

struct TouchFindingsQuestion {
  using Given = TouchFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_touching(given); }
};

} // namespace mavrel::assess
