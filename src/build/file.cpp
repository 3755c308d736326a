#include "build/file.h"

#include "build/json.h"

namespace mavrel::build {

Expected<Build> load(const std::filesystem::path& path) {
  const auto text = read_text(path, file_limit);
  if (!text) return refuse(text.error());
  auto build = from_json(*text);
  if (!build) return refuse(words("{0}: {1}"), {shown_path(path.filename()), build.error()});
  return build;
}

Expected<Written> save(const Build& build, const std::filesystem::path& path, ReadOnly read_only,
                       const std::optional<FileStamp>& still) {
  if (const auto why = cannot_write_to(path, read_only)) return refuse(*why);
  std::error_code error;
  if (std::filesystem::exists(path, error) && std::filesystem::file_size(path, error) > 0) {
    if (const auto there = load(path); !there)
      return refuse(words("Not saved, because the file there is no build this Mavrel can read and would be lost: {0} "
                          "Save under another name."),
                    {there.error()});
  }
  const std::string text = to_json(build);
  if (const auto again = from_json(text); !again)
    return refuse(words("Not saved, because the file would not open again: {0} What is saved there already stays."),
                  {again.error()});
  return write_atomically(path, text, read_only, still);
}

Question question_before_saving(const std::filesystem::path& path, const std::optional<FileStamp>& known) {
  const Standing standing = what_stands(path);
  if (standing == Standing::read_only) return Question::read_only;
  if (standing == Standing::file && known && stamp_of(path) != known) return Question::changed;
  return Question::none;
}

} // namespace mavrel::build
