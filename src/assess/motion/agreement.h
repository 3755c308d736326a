// A cycle sheet and the joints of one end laid over each other: do they tell of one and the same car, and if not, which
// reading or which joint is doubtful?
#pragma once

#include "assess/motion/end_motion.h"

namespace mavrel::assess {

/// What a tape is good for, m.
constexpr double tape_error = 0.0015;

struct Disagreement {
  bool damper = false;       // else the spring
  double worst = 0;          // m that a reading lies from what the joints say, with its sign
  std::size_t worst_row = 0; // of the sheet
  // At most one of the two explains it, to within the tape's error:
  std::optional<std::size_t> doubtful_row;
  std::optional<motion::Joint> doubtful_joint;
  char axis = 'y';  // of that joint: x, y or z
  double shift = 0; // m that it would have to lie further along the axis
};

/// @returns what lies further apart than the tape's error; empty where they agree, or one of the two is missing
/// Source: docs/models.md, "Sheet against joints".
[[nodiscard]] std::vector<Disagreement> disagreements(const SurveyedEnd& read, const build::EndSurvey& survey);

} // namespace mavrel::assess
