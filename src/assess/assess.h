// Build and shelf in, assessment out.
#pragma once

#include "assess/assessment.h"
#include "shelf/shelf.h"

namespace mavrel::assess {

/// Pure: no clock, no files. Answers what can be answered and names what is missing for the rest.
[[nodiscard]] Assessment assess(const build::Build& build, const shelf::Shelf& shelf);

} // namespace mavrel::assess
