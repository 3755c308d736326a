#include "cli/reader.h"

#include "file/text_file.h"
#include "quantity/text.h"

#include <filesystem>

namespace mavrel::cli {

Expected<std::string> answer_file(const std::string& path, const std::function<Expected<Json>(const Json&)>& answer) {
  const auto text = read_text(path, 1024 * 1024);
  if (!text) return refuse(text.error());
  const auto named = [&](const Message& why) {
    return refuse(words("{0}: {1}"), {shown_path(std::filesystem::path(path).filename()), why});
  };
  const auto file = build::read_json_text(*text);
  if (!file) return named(file.error());
  const auto out = answer(*file);
  if (!out) return named(out.error());
  return out->dump(1, ' ', false, Json::error_handler_t::replace);
}

} // namespace mavrel::cli
