// How sure the answers are, as JSON for the command line.
#pragma once

#include "assess/doubt/doubt.h"

#include <string>

namespace mavrel::report {

[[nodiscard]] std::string doubt_json(const assess::Doubt& doubt);

} // namespace mavrel::report
