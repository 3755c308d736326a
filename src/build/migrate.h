// Older versions of the file, brought up to the present one before they are read.
#pragma once

#include <nlohmann/json_fwd.hpp>

namespace mavrel::build {

/// @param json  an object of version `from`; keys of the wrong type are left for the reader to name
void migrate(nlohmann::ordered_json& json, int from);

} // namespace mavrel::build
