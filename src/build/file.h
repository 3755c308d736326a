// Builds on disk.
#pragma once

#include "build/build.h"
#include "file/text_file.h"
#include "quantity/expected.h"

#include <filesystem>

namespace mavrel::build {

/// @returns the build in the file; or what is wrong with the file, its name in front
[[nodiscard]] Expected<Build> load(const std::filesystem::path& path);

/// Saves atomically, and only what `load` would read: the text is read back before it takes the old one's place. A file
/// that is there but is no readable build (damaged, or made by a newer Mavrel) is never overwritten: save under another
/// name.
/// @param still  what must stand there right before it is replaced; none: whatever does
[[nodiscard]] Expected<Written> save(const Build& build, const std::filesystem::path& path,
                                     ReadOnly read_only = ReadOnly::refuse, const std::optional<FileStamp>& still = {});

/// What a person should be asked about before a build is saved over a file.
enum class Question {
  none,
  read_only, // the file is marked as not to be written
  changed,   // somebody else changed it since it was opened or saved here
};

/// @param known  the file's stamp when it was opened or saved here; none for a file that was neither
[[nodiscard]] Question question_before_saving(const std::filesystem::path& path, const std::optional<FileStamp>& known);

} // namespace mavrel::build
