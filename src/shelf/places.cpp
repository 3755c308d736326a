#include "shelf/places.h"

#include <cstdlib>
#include <string>

namespace mavrel::shelf {

namespace {

std::filesystem::path environment(const char* name) {
  const char* value = std::getenv(name);
  return value ? std::filesystem::path(value) : std::filesystem::path();
}

/// `share/mavrel` beside the running program when installed, the source tree's `demo` otherwise.
std::filesystem::path shipped(const char* installed, const char* in_source) {
  std::error_code error;
  const auto program = std::filesystem::read_symlink("/proc/self/exe", error);
  const auto beside = program.parent_path().parent_path() / "share" / "mavrel" / installed;
  if (!error && std::filesystem::is_directory(beside, error)) return beside;
  return std::filesystem::path(MAVREL_SOURCE_DIR) / in_source;
}

} // namespace

std::filesystem::path user_shelf_folder() {
  auto data = environment("XDG_DATA_HOME");
  if (data.is_relative()) data = environment("HOME") / ".local" / "share";
  return data / "mavrel" / "shelf";
}

std::filesystem::path demo_folder() {
  return shipped("demo", "demo");
}

std::vector<std::filesystem::path> shelf_folders() {
  auto first = environment("MAVREL_SHELF");
  if (first.empty()) first = shipped("shelf", "demo/shelf");
  return {first, user_shelf_folder()};
}

} // namespace mavrel::shelf
