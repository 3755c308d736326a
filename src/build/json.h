// The document as JSON text, both ways. The format is promised in docs/formats/build.md.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <string>
#include <string_view>

namespace mavrel::build {

constexpr int file_version = 9;
constexpr std::size_t file_limit = 8 * 1024 * 1024; // bytes

/// The file's text: SI, keys in a fixed order, unknown keys of an earlier reading kept behind the known ones.
[[nodiscard]] std::string to_json(const Build& build);

/// Reads a file's text of this or an older version. Never throws.
/// @returns the build; or the first mistake: line and column for broken JSON, else the path of the key, what is
///          there and what would be right
[[nodiscard]] Expected<Build> from_json(std::string_view text);

/// The JSON Schema of the format, made from the same list of fields (docs/formats/build.schema.json).
[[nodiscard]] std::string json_schema();

} // namespace mavrel::build
