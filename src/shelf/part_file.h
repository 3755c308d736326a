// Air parts as files: JSON, one file a catalogue. The format is promised in docs/formats/air-parts.md.
#pragma once

#include "quantity/expected.h"
#include "shelf/part.h"

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel::shelf {

constexpr const char* part_suffix = ".parts.json";
constexpr std::size_t part_file_limit = 1024 * 1024; // bytes
constexpr int part_file_version = 1;
constexpr std::size_t most_parts = 500; // in one file

/// @returns the parts of a file's text, each usable; or the first mistake, naming the part and its figure
[[nodiscard]] Expected<std::vector<Part>> read_parts(std::string_view text);
/// The same parts as a file's text: what is written reads back equal.
[[nodiscard]] std::string write_parts(const std::vector<Part>& parts);

/// Puts a part into the user's own file, in place of one of its name.
/// @returns the file; or why it was not written: then nothing is changed
[[nodiscard]] Expected<std::filesystem::path> save_part(const Part& part, const std::filesystem::path& folder);

} // namespace mavrel::shelf
