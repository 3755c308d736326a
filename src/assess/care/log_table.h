// The logbook as a table that any spreadsheet reads and writes, and two logbooks joined to one.
#pragma once

#include "build/build.h"
#include "build/care.h"
#include "quantity/expected.h"

#include <string>
#include <string_view>

namespace mavrel::assess {

/// A head and a row an entry, SI, the oldest first. Commas and line ends in words become `;` and a space, since cells
/// are not quoted.
/// Source: docs/formats/log.md.
[[nodiscard]] std::string log_table(const List<build::LogEntry>& log);
/// @returns the entries; or the table's first mistake. An entry without a mark of its own gets one by what it says
[[nodiscard]] Expected<std::vector<build::LogEntry>> read_log_table(std::string_view csv);
/// Both logs with every entry once, told by its mark; the first log's order, then what is more.
/// @returns it; or that it would be longer than a log may be
[[nodiscard]] Expected<List<build::LogEntry>> joined_log(const List<build::LogEntry>& log,
                                                         const std::vector<build::LogEntry>& more);

} // namespace mavrel::assess
