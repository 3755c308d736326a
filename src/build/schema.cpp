// The JSON Schema of the build file, from the same list of fields that reads and writes it.
#include "build/fields.h"
#include "build/json.h"

#include <nlohmann/json.hpp>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

template <class T>
Json schema_of();

class SchemaMaker {
public:
  explicit SchemaMaker(Json& to) : to_(to) {}

  void text(const char* key, const std::string&, const char* label, std::size_t most) {
    to_[key] = {{"description", label}, {"type", "string"}, {"maxLength", most}};
  }
  void number(const char* key, const std::optional<double>&, const NumberSpec& spec) { to_[key] = figure(spec); }
  void readings(const char* key, const Readings&, const NumberSpec& spec) {
    to_[key] = {{"description", std::string(spec.label) + ", every reading taken"},
                {"type", "array"},
                {"maxItems", most_readings},
                {"items", {{"type", "number"}, {"minimum", spec.least}, {"maximum", spec.most}}}};
  }
  template <class Enum>
  void choice(const char* key, Enum, const char* label) {
    Json keys = Json::array();
    for (const auto& row : names_of(Enum{}))
      keys.push_back(row.key);
    to_[key] = {{"description", label}, {"enum", keys}};
  }
  void wish(const char* key, const std::optional<HeightWish>&, const char*) { to_[key] = schema_of<HeightWish>(); }
  void index(const char* key, std::size_t, std::size_t) { to_[key] = {{"type", "integer"}, {"minimum", 0}}; }
  template <class T>
  void object(const char* key, const T&, const char*) {
    to_[key] = schema_of<T>();
  }
  template <class T>
  void object(const char* key, const Shared<T>&, const char*) {
    to_[key] = schema_of<T>();
  }
  template <class L>
  void list(const char* key, const L&, const char*, std::size_t least, std::size_t most) {
    to_[key] = {
        {"type", "array"}, {"minItems", least}, {"maxItems", most}, {"items", schema_of<typename L::value_type>()}};
  }
  void extra(const Extra&) {}

private:
  static Json figure(const NumberSpec& spec) {
    return {{"description", spec.label}, {"type", "number"}, {"minimum", spec.least}, {"maximum", spec.most}};
  }
  Json& to_;
};

template <class T>
Json schema_of() {
  Json properties = Json::object();
  SchemaMaker maker(properties);
  const T value{};
  fields(maker, value);
  return {{"type", "object"}, {"properties", properties}};
}

} // namespace

std::string json_schema() {
  Json schema = {{"$schema", "https://json-schema.org/draft/2020-12/schema"},
                 {"title", "Mavrel build"},
                 {"description", "One car, what is wanted of it, and the designs tried for it. All numbers SI."}};
  const Json body = schema_of<Build>();
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
