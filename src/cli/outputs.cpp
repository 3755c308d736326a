#include "cli/outputs.h"

#include "file/text_file.h"
#include "quantity/text.h"

namespace mavrel::cli {

namespace {

std::optional<Message> mistake_in_one(const Output& one, const std::string& read) {
  const auto& [option, to] = one;
  if (first_bad_utf8(to)) // the answer names what was written, and JSON could only name another file
    return Message{words("{0}: the path {1} is not UTF-8 text. Choose another name."), {option, shown_path(to)}};
  if (same_place(to, read)) return Message{words("{0}: {1} is the build itself."), {option, shown_path(to)}};
  // Another build is as much somebody's work as this one: nothing that is made from builds takes its place.
  if (what_stands(to) != Standing::nothing && std::filesystem::path(to).extension() == ".mavrel")
    return Message{words("{0}: {1} is a build. Choose another name."), {option, shown_path(to)}};
  std::error_code error;
  const auto folder = std::filesystem::path(to).parent_path();
  if (!folder.empty() && !std::filesystem::is_directory(folder, error))
    return Message{words("{0}: there is no folder {1}."), {option, shown_path(folder)}};
  if (auto why = cannot_write_to(to)) return Message{words("{0}: {1}"), {option, std::move(*why)}};
  return std::nullopt;
}

} // namespace

std::vector<Output> in_folder(const std::string& option, const std::string& folder,
                              const std::vector<std::string>& names) {
  std::vector<Output> out;
  if (folder.empty()) return out;
  for (const std::string& name : names)
    out.push_back({option, (std::filesystem::path(folder) / name).string()});
  return out;
}

std::optional<Message> mistake_in(const std::vector<Output>& outputs, const std::string& read) {
  for (const Output& one : outputs)
    if (!one.to.empty())
      if (auto wrong = mistake_in_one(one, read)) return wrong;
  for (std::size_t a = 0; a < outputs.size(); ++a)
    for (std::size_t b = a + 1; b < outputs.size(); ++b)
      if (!outputs[a].to.empty() && !outputs[b].to.empty() && same_place(outputs[a].to, outputs[b].to))
        return Message{words("{0} and {1} are one file, {2}."),
                       {outputs[a].option, outputs[b].option, shown_path(outputs[a].to)}};
  return std::nullopt;
}

} // namespace mavrel::cli
