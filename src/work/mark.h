// A mark for an entry of a log, unlike any other's of any program.
#pragma once

#include <string>

namespace mavrel::work {

/// 24 digits of chance.
[[nodiscard]] std::string new_mark();

} // namespace mavrel::work
