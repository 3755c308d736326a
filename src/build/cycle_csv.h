// Cycle sheets as files: what somebody wrote down while jacking a wheel through its travel.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <string>
#include <string_view>
#include <vector>

namespace mavrel::build {

/// Columns `height_mm`, `spring_mm`, `damper_mm`, `camber_deg`, `toe_deg`, in any order and in inches too
/// (`height_in`); any other `…_mm` or `…_in` is a gap of that name (`tyre_to_liner_mm`). Empty cells were not taken.
/// @returns the rows; or the first mistake with its line and column, and what would be right
[[nodiscard]] Expected<std::vector<CycleRow>> read_cycle_csv(std::string_view text);

/// The same table from rows, in millimetres and degrees; only the columns that somebody filled.
[[nodiscard]] std::string cycle_csv(const List<CycleRow>& rows);

} // namespace mavrel::build
