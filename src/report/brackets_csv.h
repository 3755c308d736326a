// What is built to hold the bags, as a table: bracket angles by the gauge, seats, plate to plate.
#pragma once

#include "assess/assessment.h"

#include <string>

namespace mavrel::report {

/// One row a plate of each end whose joints are known; mm and degrees. Empty but for its head where none is.
[[nodiscard]] std::string brackets_csv(const build::Build& build, const assess::Assessment& assessment);

} // namespace mavrel::report
