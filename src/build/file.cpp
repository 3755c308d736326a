#include "build/file.h"

#include "build/json.h"
#include "file/text_file.h"

namespace mavrel::build {

Expected<Build> load(const std::filesystem::path& path) {
  const auto text = read_text(path, file_limit);
  if (!text) return refuse(text.error());
  auto build = from_json(*text);
  if (!build) return refuse(words("{0}: {1}"), {path.filename().string(), say(build.error())});
  return build;
}

Expected<void> save(const Build& build, const std::filesystem::path& path) {
  std::error_code error;
  if (std::filesystem::exists(path, error) && std::filesystem::file_size(path, error) > 0) {
    if (const auto there = load(path); !there)
      return refuse(words("Not saved, because the file there is no build this Mavrel can read and would be lost: {0} "
                          "Save under another name."),
                    {say(there.error())});
  }
  return write_atomically(path, to_json(build));
}

} // namespace mavrel::build
