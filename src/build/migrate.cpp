#include "build/migrate.h"

#include <nlohmann/json.hpp>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

/// Version 1 held a single design: `design` with the two ends' fits, and `brief` beside it.
void one_design_to_variants(Json& json) {
  Json variant = Json::object();
  variant["name"] = "A";
  if (const auto design = json.find("design"); design != json.end() && design->is_object())
    for (const auto& [key, value] : design->items())
      variant[key] = value;
  if (const auto brief = json.find("brief"); brief != json.end()) variant["brief"] = *brief;
  json.erase("design");
  json.erase("brief");
  json["variants"] = Json::array({variant});
  json["active_variant"] = 0U;
}

} // namespace

void migrate(Json& json, int from) {
  if (from < 2) one_design_to_variants(json);
}

} // namespace mavrel::build
