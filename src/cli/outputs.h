// Where a command writes to: looked at before any work is done, by one rule for all of them.
#pragma once

#include "quantity/expected.h"

#include <filesystem>
#include <string>
#include <vector>

namespace mavrel::cli {

/// One file that was asked for. @param option  as it is typed, `--csv`
struct Output {
  std::string option, to; // empty: not asked for
};

/// A folder that gets a file of each of these names.
[[nodiscard]] std::vector<Output> in_folder(const std::string& option, const std::string& folder,
                                            const std::vector<std::string>& names);

/// What is wrong with where a command would write: a path that is no text, the file it reads, a build, a place that
/// can't be written to, or one file for two of them; none: all of it may be written.
/// @param read  the file that the command reads
[[nodiscard]] std::optional<Message> mistake_in(const std::vector<Output>& outputs, const std::string& read);

} // namespace mavrel::cli
