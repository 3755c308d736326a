// Proving and care as JSON, for the command line.
#pragma once

#include "assess/care/care_plan.h"
#include "assess/proving/learning.h"

#include <string>

namespace mavrel::report {

/// @param learned  none: it was not asked for
[[nodiscard]] std::string proving_json(const std::vector<assess::HoldPoint>& points,
                                       const std::vector<Message>& trouble, const assess::Learning* learned);
[[nodiscard]] std::string care_json(const assess::CarePlan& plan);

} // namespace mavrel::report
