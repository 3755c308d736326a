// What the readings themselves have to say: missing, odd, wide apart, over a rating.
#pragma once

#include "assess/finding/finding.h"
#include "assess/survey/surveyed_end.h"

namespace mavrel::assess {

/// Lengths of the damper fitted instead of the surveyed one, m.
struct OtherDamper {
  std::optional<double> open, shut;
  [[nodiscard]] auto parts() const { return std::tie(open, shut); }
  friend bool operator==(const OtherDamper&, const OtherDamper&) = default;
};

struct SurveyFindingsGiven {
  std::array<Answered<SurveyQuestion>, 2> ends; // front, rear
  build::Body body;                             // without its style
  std::array<std::optional<double>, 2> ratings; // kg, of the axles
  std::array<OtherDamper, 2> dampers;
  List<build::LoadCase> load_cases;
  [[nodiscard]] auto parts() const { return std::tie(ends, body, ratings, dampers, load_cases); }
  friend bool operator==(const SurveyFindingsGiven&, const SurveyFindingsGiven&) = default;
};
[[nodiscard]] SurveyFindingsGiven survey_findings_given(const build::Build& build,
                                                        const std::array<Answered<SurveyQuestion>, 2>& ends);

extern const std::span<const FindingRow> survey_finding_rows;
[[nodiscard]] Findings find_in_survey(const SurveyFindingsGiven& given);

struct SurveyFindingsQuestion {
  using Given = SurveyFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_survey(given); }
};

} // namespace mavrel::assess
