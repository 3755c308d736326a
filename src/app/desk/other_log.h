// A logbook that two programs wrote into: nothing that either wrote is lost.
#pragma once

#include <filesystem>

namespace mavrel::app {

class Desk;

/// Takes the entries of a file's log into the open build that it has not, told by their marks: an edit of its own.
/// @returns how many; 0 where the file can't be read
int take_other_log(Desk& desk, const std::filesystem::path& file);

} // namespace mavrel::app
