// One finding with a car that has it, and one, as like it as can be, that has not.
#pragma once

#include "build/build.h"
#include "shelf/shelf.h"

#include <functional>
#include <string>
#include <vector>

namespace mavrel::assess {

struct Case {
  std::string code;
  std::function<void(build::Build&)> has, has_not; // made to the demo estate
};

/// The demo shelf, its cards changed as the tests below want them under names of their own.
[[nodiscard]] const shelf::Shelf& case_shelf();
/// Those of a design; of the fit-up; of proving and care.
[[nodiscard]] std::vector<Case> design_cases();
[[nodiscard]] std::vector<Case> fit_up_cases();
[[nodiscard]] std::vector<Case> proving_cases();

} // namespace mavrel::assess
