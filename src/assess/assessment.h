// Everything Mavrel knows of a build, worked out: loads, windows over height, tracks, findings. Plain data; the
// screens, the build sheet and the command line draw it and compute nothing themselves. All numbers SI.
#pragma once

#include "assess/finding/finding.h"
#include "assess/kept/kept.h"
#include "assess/survey/loads.h"

#include <array>
#include <optional>
#include <vector>

namespace mavrel::assess {

// Each topic's answer is known to those that include its header.
struct EndAssessment;            // assess/end/end_answer.h
struct EndQuestion;              // assess/end/end_answer.h
struct GroundQuestion;           // assess/ground/ground.h
struct AirFindingsQuestion;      // assess/air/air_findings.h
struct LevelingFindingsQuestion; // assess/leveling/leveling_findings.h
struct FitUpFindingsQuestion;    // assess/fit_up/fit_up_findings.h
struct ProvingFindingsQuestion;  // assess/proving/proving_findings.h
struct CareFindingsQuestion;     // assess/care/care_findings.h
using AnsweredEnd = Answered<EndQuestion>;
using AnsweredEnds = std::array<AnsweredEnd, 2>; // front, rear

/// Made by `assess` alone; shared and never changed.
struct Assessment {
  std::vector<CaseLoad> loads;        // one a load case; one named “As surveyed” when the build has none
  std::optional<double> cross_weight; // front right and rear left, share of the whole
  std::optional<double> floor_twist;  // m, half the diagonal difference of the floor; none when it is flat or not known
  AnsweredEnds ends;                  // front, rear, each with all that it was worked out from
  Answered<GroundQuestion> ground;    // over what lies on the ground
  Answered<AirFindingsQuestion> air;  // the kit with all that it is worked out from
  Answered<LevelingFindingsQuestion> leveling; // how the height is kept, with all that it is worked out from
  Answered<FitUpFindingsQuestion> fit_up;      // the fit-up's given is what its pages start from
  Answered<ProvingFindingsQuestion> proving;
  Answered<CareFindingsQuestion> care; // with what care is worked out from
  Findings findings;                   // worst first

  [[nodiscard]] const EndAssessment& end(End e) const;
};

/// How a stage stands, for the rail: unknown is neither good nor bad.
enum class StageState { unknown, good, caution, stop };
[[nodiscard]] StageState stage_state(const Assessment& assessment, const StageRow& stage);

} // namespace mavrel::assess
