// Whole text files in and out: read with a limit and checked for UTF-8, written so that a crash leaves either the
// old file or the new one.
#pragma once

#include "quantity/expected.h"
#include "quantity/text.h"

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace mavrel {

/// A path as a person reads it; letters that are not UTF-8 show as `�`.
[[nodiscard]] std::string shown_path(const std::filesystem::path& path);

/// What is at a path before it is written to.
enum class Standing {
  nothing,
  file,      // an ordinary one that may be replaced
  read_only, // an ordinary one marked as not to be written
  folder,
  special, // a device, a pipe, a socket: not ours to replace
};
[[nodiscard]] Standing what_stands(const std::filesystem::path& path);

/// Do both paths lead to one file, whether or not it is there yet?
[[nodiscard]] bool same_place(const std::filesystem::path& a, const std::filesystem::path& b);

/// @param limit  bytes; a longer file is refused unread. Folders, pipes and devices are refused without waiting on
/// them.
/// @returns the text without a byte order mark; or why it can't be read
[[nodiscard]] Expected<std::string> read_text(const std::filesystem::path& path, std::size_t limit);

/// What came of writing.
struct Written {
  bool other_names = false; // the file had further names (hard links): they keep what was there before
};

/// Which state of a file was read or written: equal while nobody else has changed it.
struct FileStamp {
  std::uint64_t device = 0, inode = 0, size = 0;
  std::int64_t changed_s = 0, changed_ns = 0;
  friend bool operator==(const FileStamp&, const FileStamp&) = default;
};
/// @returns none where there is no ordinary file
[[nodiscard]] std::optional<FileStamp> stamp_of(const std::filesystem::path& path);

/// May a file that is marked read-only be replaced? Only where somebody was asked.
enum class ReadOnly { refuse, replace };

/// Writes beside the target, flushes to disk and renames over it; then clears away what killed writers of the same
/// target left. On an error the target is as it was. The process's umask decides the mode of a new file.
/// @param still  what must stand there right before the rename; none: whatever does
[[nodiscard]] Expected<Written> write_atomically(const std::filesystem::path& path, std::string_view text,
                                                 ReadOnly read_only = ReadOnly::refuse,
                                                 const std::optional<FileStamp>& still = {});

/// Why a place can't be written to, before any work is done; none where it looks as if it can.
[[nodiscard]] std::optional<Message> cannot_write_to(const std::filesystem::path& path,
                                                     ReadOnly read_only = ReadOnly::refuse);

/// Line and column of a byte, both from 1; columns count characters.
struct TextPlace {
  std::size_t line = 1;
  std::size_t column = 1;
};
[[nodiscard]] TextPlace place_in(std::string_view text, std::size_t byte);

} // namespace mavrel
