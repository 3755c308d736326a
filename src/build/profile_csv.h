// A profile of the ground as a sheet: `x_m,z_m`, one place a row, each further along than the last.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <string_view>
#include <vector>

namespace mavrel::build {

/// Heads are `x` and `z` with their unit: `_m`, `_mm` or `_in`; other columns do no harm. Format:
/// docs/formats/profile.md.
/// @returns the places; or the first mistake with its line and column
[[nodiscard]] Expected<std::vector<ProfilePoint>> read_profile_csv(std::string_view text);
/// Is this such a sheet, by its head?
[[nodiscard]] bool is_profile_csv(std::string_view text);

} // namespace mavrel::build
