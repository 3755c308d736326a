// One finding with a car that has it, and one, as like it as can be, that has not.
#pragma once

#include "build/build.h"

#include <functional>
#include <string>
#include <vector>

namespace mavrel::assess {

struct Case {
  std::string code;
  std::function<void(build::Build&)> has, has_not; // made to the demo estate
};

/// Those of the fit-up.
[[nodiscard]] std::vector<Case> fit_up_cases();

} // namespace mavrel::assess
