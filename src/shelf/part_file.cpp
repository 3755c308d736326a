#include "shelf/part_file.h"

#include "build/json_fields.h"
#include "build/json_text.h"
#include "file/text_file.h"
#include "shelf/part_names.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace mavrel::shelf {

namespace {

using Json = nlohmann::ordered_json;

constexpr const char* format_name = "mavrel-parts";

/// A part's name for a sentence; its place in the file where it has none.
std::string called(const Part& part, std::size_t index) {
  return part.name.empty() ? fmt::format("parts.{}", index) : part.name;
}

} // namespace

Expected<std::vector<Part>> read_parts(std::string_view text) {
  auto json = build::read_json_text(text);
  if (!json) return refuse(json.error());
  if (!json->is_object() || json->value("format", Json()) != format_name)
    return refuse(words("This is no file of air parts: “format” must be “mavrel-parts”."));
  const Json version = json->value("version", Json());
  if (!version.is_number_integer() || version.get<long long>() < 1 || version.get<long long>() > part_file_version)
    return refuse(words("“version” must be a whole number from 1 to {0}."), {fmt::to_string(part_file_version)});
  const Json list = json->value("parts", Json());
  if (!list.is_array() || list.size() > most_parts)
    return refuse(words("“parts” must be a list of up to {0} parts."), {fmt::to_string(most_parts)});
  std::vector<Part> out;
  for (std::size_t i = 0; i < list.size(); ++i) {
    const std::string at = fmt::format("parts.{}", i);
    if (!list[i].is_object())
      return refuse(words("{0}: {1} is there; {2} is right."), {at, build::kind_of(list[i]), words("an object")});
    if (!list[i].contains("kind")) return refuse(words("{0}: a part needs its kind."), {at});
    build::Finds finds;
    Part part;
    build::read_fields(build::table_of<Part>(), &part, list[i], at, finds);
    if (finds.mistake) return refuse(*finds.mistake);
    if (auto wrong = mistake_in_part(part)) return refuse(words("{0}: {1}"), {called(part, i), *wrong});
    for (const Part& other : out)
      if (other.kind == part.kind && other.name == part.name)
        return refuse(words("{0}: the file has two of that kind and name."), {part.name});
    out.push_back(std::move(part));
  }
  return out;
}

std::string write_parts(const std::vector<Part>& parts) {
  Json json = Json::object();
  json["format"] = format_name;
  json["version"] = part_file_version;
  json["parts"] = Json::array();
  for (const Part& part : parts) {
    Json one = Json::object();
    build::write_fields(build::table_of<Part>(), &part, one);
    for (const char* list : {"ports", "curve"}) // lists that most kinds have not
      if (one[list].empty()) one.erase(list);
    json["parts"].push_back(std::move(one));
  }
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Expected<std::filesystem::path> save_part(const Part& part, const std::filesystem::path& folder) {
  if (auto wrong = mistake_in_part(part)) return refuse(*wrong);
  std::error_code error;
  std::filesystem::create_directories(folder, error);
  if (error) return refuse(words("{0} can't be made: {1}."), {shown_path(folder), error.message()});
  const auto file = folder / (std::string("own") + part_suffix);
  std::vector<Part> parts;
  if (what_stands(file) != Standing::nothing) {
    const auto text = read_text(file, part_file_limit);
    if (!text) return refuse(text.error());
    auto there = read_parts(*text);
    if (!there)
      return refuse(words("{0} is damaged, so nothing was put into it: {1}"), {shown_path(file), there.error()});
    parts = std::move(*there);
  }
  std::erase_if(parts, [&](const Part& old) { return old.kind == part.kind && old.name == part.name; });
  if (parts.size() >= most_parts)
    return refuse(words("{0} holds {1} parts already, the most it may."),
                  {shown_path(file), fmt::to_string(most_parts)});
  parts.push_back(part);
  const std::string text = write_parts(parts);
  if (const auto again = read_parts(text); !again)
    return refuse(words("The part was not written, because it would not be read again: {0}"), {again.error()});
  if (const auto done = write_atomically(file, text); !done) return refuse(done.error());
  return file;
}

} // namespace mavrel::shelf
