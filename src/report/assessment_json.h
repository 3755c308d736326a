// The whole assessment as JSON, SI units with the unit in the key: what `mavrel-cli assess` prints.
#pragma once

#include "assess/assessment.h"

#include <string>

namespace mavrel::report {

[[nodiscard]] std::string assessment_json(const build::Build& build, const assess::Assessment& assessment);

} // namespace mavrel::report
