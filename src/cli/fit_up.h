// The plan of a build, as mavrel-cli plan gives it.
#pragma once

#include "cli/commands.h"

namespace mavrel::cli {

[[nodiscard]] Expected<std::string> plan_build(const PlanRequest& request);

} // namespace mavrel::cli
