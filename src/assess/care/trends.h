// How what was read of a car goes over the years: each kind of reading with its line, what it means, and when it would
// cross what it should not.
#pragma once

#include "assess/care/care_plan.h"

namespace mavrel::assess {

/// @param from, today  day that the car went on the road, and today: later entries are not read
/// Source: docs/models.md, "Trends".
[[nodiscard]] std::vector<CareTrend> care_trends(const CareGiven& given, work::Day from, work::Day today);

/// The line through points since the last mark. @returns whether there are enough of them, over long enough
bool fit_line(CareTrend& trend);

} // namespace mavrel::assess
