// What of the car would meet the ground, and what is missing to know it.
#pragma once

#include "assess/finding/finding.h"
#include "assess/ground/ground.h"

namespace mavrel::assess {

struct GroundFindingsGiven {
  Answered<GroundQuestion> ground;
  std::size_t variant = 0;          // which is active: fields are gone to by its number
  std::vector<std::string> presets; // their names
  [[nodiscard]] auto parts() const { return std::tie(ground, variant, presets); }
  friend bool operator==(const GroundFindingsGiven&, const GroundFindingsGiven&) = default;
};
[[nodiscard]] GroundFindingsGiven ground_findings_given(const build::Build& build, Answered<GroundQuestion> ground);

extern const std::span<const FindingRow> ground_finding_rows;
[[nodiscard]] Findings find_on_ground(const GroundFindingsGiven& given);

struct GroundFindingsQuestion {
  using Given = GroundFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_on_ground(given); }
};

} // namespace mavrel::assess
