// JSON from people: read with bounds, so that no file makes the program slow or large.
#pragma once

#include "quantity/expected.h"

#include <nlohmann/json_fwd.hpp>

#include <string_view>

namespace mavrel::build {

/// @returns what the text holds; or its first mistake: empty, not UTF-8, damaged (with line and column), a key given
///          twice in one object, nested deeper or holding more than any file of this program does
[[nodiscard]] Expected<nlohmann::ordered_json> read_json_text(std::string_view text);

/// What a value is, for sentences: `the number 3`, `a list`.
[[nodiscard]] Message kind_of(const nlohmann::ordered_json& value);

} // namespace mavrel::build
