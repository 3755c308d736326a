// Where bag cards are kept: shipped with the program, and the user's own.
#pragma once

#include <filesystem>
#include <vector>

namespace mavrel::shelf {

/// The user's shelf, `$XDG_DATA_HOME/mavrel/shelf`; may not exist yet.
[[nodiscard]] std::filesystem::path user_shelf_folder();

/// Shipped folder first, then the user's. The shipped one is that of the installed program, or of the source tree
/// the program was built in; `MAVREL_SHELF` names another in its place.
[[nodiscard]] std::vector<std::filesystem::path> shelf_folders();

/// Demo builds shipped with the program.
[[nodiscard]] std::filesystem::path demo_folder();

} // namespace mavrel::shelf
