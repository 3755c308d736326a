// Whole text files in and out: read with a limit and checked for UTF-8, written so that a crash leaves either the
// old file or the new one.
#pragma once

#include "quantity/expected.h"

#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace mavrel {

/// @param limit  bytes; a longer file is refused unread
/// @returns the text without a byte order mark; or why it can't be read
[[nodiscard]] Expected<std::string> read_text(const std::filesystem::path& path, std::size_t limit);

/// Writes beside the target, flushes to disk and renames over it. On an error the target is as it was.
[[nodiscard]] Expected<void> write_atomically(const std::filesystem::path& path, std::string_view text);

/// Offset of the first byte that is not UTF-8; none if all is well.
[[nodiscard]] std::optional<std::size_t> first_bad_utf8(std::string_view text);

/// Line and column of a byte, both from 1; columns count characters.
struct TextPlace {
  std::size_t line = 1;
  std::size_t column = 1;
};
[[nodiscard]] TextPlace place_in(std::string_view text, std::size_t byte);

} // namespace mavrel
