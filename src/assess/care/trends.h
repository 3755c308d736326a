// How what was read of a car goes over the years: each kind of reading with its line, what it means, and when it would
// cross what it should not.
#pragma once

#include "assess/care/care_plan.h"

namespace mavrel::assess {

/// @param today  later entries are not read
/// Source: docs/models.md, "Trends".
[[nodiscard]] std::vector<CareTrend> care_trends(const CareGiven& given, work::Day today);

} // namespace mavrel::assess
