// The JSON Schema of the build file, from the same tables of fields that read and write it.
#include "build/build.h"
#include "build/json.h"

#include <nlohmann/json.hpp>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

Json schema_of(const Table& table);

Json figure(const NumberSpec& spec) {
  return {{"description", spec.label}, {"type", "number"}, {"minimum", spec.least}, {"maximum", spec.most}};
}

Json schema_of(const Field& field) {
  switch (field.type) {
  case FieldType::text:
    return {{"description", field.label}, {"type", "string"}, {"maxLength", field.most}};
  case FieldType::number:
  case FieldType::maybe_number:
    return figure(field.spec);
  case FieldType::readings:
    return {{"description", std::string(field.label) + ", every reading taken"},
            {"type", "array"},
            {"maxItems", most_readings},
            {"items", {{"type", "number"}, {"minimum", field.spec.least}, {"maximum", field.spec.most}}}};
  case FieldType::choice: {
    Json keys = Json::array();
    for (const auto& row : field.choices->rows)
      keys.push_back(row.key);
    return {{"description", field.label}, {"enum", keys}};
  }
  case FieldType::index:
    return {{"type", "integer"}, {"minimum", 0}};
  case FieldType::wish:
  case FieldType::object:
    return schema_of(field.of());
  case FieldType::list:
    return {
        {"type", "array"}, {"minItems", field.least}, {"maxItems", field.most}, {"items", schema_of(field.list->of())}};
  case FieldType::extra:
    break;
  }
  return {};
}

Json schema_of(const Table& table) {
  Json properties = Json::object();
  for (const Field& field : table.fields)
    if (field.type != FieldType::extra) properties[field.key] = schema_of(field);
  return {{"type", "object"}, {"properties", properties}};
}

} // namespace

std::string json_schema() {
  Json schema = {{"$schema", "https://json-schema.org/draft/2020-12/schema"},
                 {"title", "Mavrel build"},
                 {"description", "One car, what is wanted of it, and the designs tried for it. All numbers SI."}};
  const Json body = schema_of(table_of<Build>());
  Json properties = {{"format", {{"const", "mavrel-build"}}},
                     {"version", {{"type", "integer"}, {"const", file_version}}}};
  for (const auto& [key, value] : body["properties"].items())
    properties[key] = value;
  schema["type"] = "object";
  schema["required"] = {"format", "version"};
  schema["properties"] = properties;
  return schema.dump(1, ' ') + "\n";
}

} // namespace mavrel::build
