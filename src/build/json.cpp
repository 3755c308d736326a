#include "build/json.h"

#include "build/json_fields.h"
#include "build/json_text.h"
#include "build/migrate.h"
#include "file/text_file.h"
#include "quantity/quantity.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

constexpr const char* format_name = "mavrel-build";
// ---- reading the whole

Expected<int> version_of(const Json& json) {
  if (!json.is_object() || json.value("format", Json()) != format_name)
    return refuse(words("This is no Mavrel build: “format” must be “mavrel-build”."));
  const Json version = json.value("version", Json());
  if (!version.is_number_integer() || version.get<long long>() < 1)
    return refuse(words("“version” must be a whole number from 1 to {0}."), {fmt::to_string(file_version)});
  if (version.get<long long>() > file_version)
    return refuse(words("This build was saved by a newer Mavrel (file version {0}; this one reads up to {1}). Open it "
                        "there, or update this one."),
                  {version.dump(), fmt::to_string(file_version)});
  return version.get<int>();
}

} // namespace

std::string to_json(const Build& build) {
  Json json = Json::object();
  json["format"] = format_name;
  json["version"] = file_version;
  write_fields(table_of<Build>(), &build, json);
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Expected<Build> from_json(std::string_view text) {
  if (text.size() > file_limit) return refuse(words("The file is larger than a build ever is."));
  auto json = read_json_text(text);
  if (!json) return refuse(json.error());
  const auto version = version_of(*json);
  if (!version) return refuse(version.error());
  migrate(*json, *version);

  Build build;
  Finds finds;
  read_fields(table_of<Build>(), &build, *json, "", finds, {"format", "version"});
  if (finds.mistake) return refuse(*finds.mistake);
  return build;
}

} // namespace mavrel::build
