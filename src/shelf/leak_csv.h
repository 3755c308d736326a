// Readings of a closed volume over hours, as a logger or a person writes them down.
#pragma once

#include "air/leak.h"

#include <string>
#include <vector>

namespace mavrel::shelf {

/// A table with the columns time_s, pressure_bar (gauge) and temperature_c, in any order.
/// @returns the readings in the order of its lines; or the first mistake, with its line
[[nodiscard]] Expected<std::vector<air::LeakReading>> read_leak_csv(const std::string& text);

} // namespace mavrel::shelf
