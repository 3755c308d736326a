// The tracks as a table that any spreadsheet opens.
#pragma once

#include "assess/assessment.h"

#include <string>

namespace mavrel::report {

/// One row a millimetre of H, both ends one under the other; SI-derived units in the header: mm, bar, Hz. A cell
/// without an answer is empty.
[[nodiscard]] std::string tracks_csv(const assess::Assessment& assessment);

} // namespace mavrel::report
