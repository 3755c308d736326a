// Builds on disk.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <filesystem>

namespace mavrel::build {

/// @returns the build in the file; or what is wrong with the file, its name in front
[[nodiscard]] Expected<Build> load(const std::filesystem::path& path);

/// Saves atomically. A file that is there but is no readable build (damaged, or made by a newer Mavrel) is never
/// overwritten: save under another name.
[[nodiscard]] Expected<void> save(const Build& build, const std::filesystem::path& path);

} // namespace mavrel::build
