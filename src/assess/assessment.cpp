#include "assess/assessment.h"

#include "assess/end/end_answer.h"

namespace mavrel::assess {

const EndAssessment& Assessment::end(End e) const {
  return ends[build::at(e)]->assessment;
}

StageState stage_state(const Assessment& assessment, const StageRow& stage) {
  bool stop = false, caution = false;
  for (const Finding& f : assessment.findings) {
    if (f.stage != &stage) continue;
    stop = stop || f.severity == Severity::stop;
    caution = caution || f.severity == Severity::caution;
  }
  if (stop) return StageState::stop;
  if (caution) return StageState::caution;
  // What stops nothing because nothing is known of it is not good.
  return stage.known(assessment) ? StageState::good : StageState::unknown;
}

} // namespace mavrel::assess
