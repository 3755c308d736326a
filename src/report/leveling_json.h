// A drive that keeps its height as JSON and CSV.
#pragma once

#include "control/drive.h"

#include <string>

namespace mavrel::report {

/// @param loaded  did something get in? Then it says how long the height took to come back
[[nodiscard]] std::string drive_json(const control::DriveResult& driven, bool loaded);
/// One row a look: seconds, speed, heights with their least and most, tank; corrections as rows of their own kind.
[[nodiscard]] std::string drive_csv(const control::DriveResult& driven);

} // namespace mavrel::report
