#include "build/json.h"

#include "build/fields.h"
#include "build/migrate.h"
#include "file/text_file.h"
#include "quantity/quantity.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <set>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

constexpr const char* format_name = "mavrel-build";
constexpr int deepest = 32; // nesting; the format itself needs 8

// ---- writing -------------------------------------------------------------------------------------------------

class Writer {
public:
  explicit Writer(Json& to) : to_(to) {}

  void text(const char* key, const std::string& value, const char*, std::size_t) {
    if (!value.empty()) to_[key] = value;
  }
  void number(const char* key, double value, const NumberSpec&) { to_[key] = value; }
  void number(const char* key, const std::optional<double>& value, const NumberSpec&) {
    if (value) to_[key] = *value;
  }
  void readings(const char* key, const Readings& value, const NumberSpec&) {
    if (!value.values.empty()) to_[key] = value.values;
  }
  template <class Enum>
  void choice(const char* key, Enum value, const char*) {
    for (const auto& row : names_of(Enum{}))
      if (row.value == value) to_[key] = row.key;
  }
  void wish(const char* key, const std::optional<HeightWish>& value, const char* label) {
    if (value) object(key, *value, label);
  }
  void index(const char* key, std::size_t value, std::size_t) { to_[key] = value; }
  template <class T>
  void object(const char* key, const T& value, const char*) {
    Json sub = Json::object();
    Writer writer(sub);
    fields(writer, value);
    to_[key] = std::move(sub);
  }
  template <class T>
  void list(const char* key, const std::vector<T>& values, const char*, std::size_t, std::size_t) {
    Json array = Json::array();
    for (const T& value : values) {
      Json sub = Json::object();
      Writer writer(sub);
      fields(writer, value);
      array.push_back(std::move(sub));
    }
    to_[key] = std::move(array);
  }
  void extra(const Extra& extra) {
    for (const auto& [key, value] : extra)
      to_[key] = Json::parse(value);
  }

private:
  Json& to_;
};

// ---- reading -------------------------------------------------------------------------------------------------

std::string kind_of(const Json& value) {
  if (value.is_string()) return fmt::format("the text “{}”", value.get<std::string>().substr(0, 40));
  if (value.is_number()) return fmt::format("the number {}", value.dump());
  if (value.is_boolean()) return value.get<bool>() ? "true" : "false";
  if (value.is_array()) return "a list";
  if (value.is_object()) return "an object";
  return "nothing (null)";
}

/// Reads one object; keeps the first mistake of the whole file.
class Reader {
public:
  Reader(const Json& from, std::string path, std::optional<Message>& mistake)
      : from_(from), path_(std::move(path)), mistake_(mistake) {}

  void text(const char* key, std::string& to, const char*, std::size_t most) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_string()) return wrong(key, words("a text"), *value);
    to = value->get<std::string>();
    if (to.size() > most)
      say_mistake({words("{0}: the text is {1} bytes long; up to {2} is right."),
                   {where(key), fmt::to_string(to.size()), fmt::to_string(most)}});
    if (to.find('\0') != std::string::npos) say_mistake({words("{0}: the text holds a zero byte."), {where(key)}});
  }
  void number(const char* key, double& to, const NumberSpec& spec) {
    if (const Json* value = take(key)) to = figure(where(key), *value, spec);
  }
  void number(const char* key, std::optional<double>& to, const NumberSpec& spec) {
    if (const Json* value = take(key)) to = figure(where(key), *value, spec);
  }
  void readings(const char* key, Readings& to, const NumberSpec& spec) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_array()) return wrong(key, words("a list of readings"), *value);
    if (value->size() > most_readings)
      return say_mistake({words("{0}: {1} readings; up to {2} are kept."),
                          {where(key), fmt::to_string(value->size()), fmt::to_string(most_readings)}});
    for (std::size_t i = 0; i < value->size(); ++i)
      to.values.push_back(figure(fmt::format("{}.{}", where(key), i), (*value)[i], spec));
  }
  template <class Enum>
  void choice(const char* key, Enum& to, const char*) {
    const Json* value = take(key);
    if (!value) return;
    std::string known;
    for (const auto& row : names_of(Enum{})) {
      if (value->is_string() && value->get_ref<const std::string&>() == row.key) {
        to = row.value;
        return;
      }
      known += fmt::format("{}“{}”", known.empty() ? "" : ", ", row.key);
    }
    say_mistake({words("{0}: {1} is there; one of {2} is right."), {where(key), kind_of(*value), known}});
  }
  void wish(const char* key, std::optional<HeightWish>& to, const char* label) {
    if (!from_.contains(key)) return known(key);
    object(key, to.emplace(), label);
  }
  void index(const char* key, std::size_t& to, std::size_t count) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_number_unsigned() || value->get<std::size_t>() >= count)
      return say_mistake({words("{0}: {1} is there; a whole number from 0 to {2} is right."),
                          {where(key), kind_of(*value), fmt::to_string(count - 1)}});
    to = value->get<std::size_t>();
  }
  template <class T>
  void object(const char* key, T& to, const char*) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_object()) return wrong(key, words("an object"), *value);
    Reader reader(*value, where(key), mistake_);
    fields(reader, to);
  }
  template <class T>
  void list(const char* key, std::vector<T>& to, const char*, std::size_t least, std::size_t most) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_array()) return wrong(key, words("a list"), *value);
    if (value->size() < least || value->size() > most)
      return say_mistake({words("{0}: the list has {1} entries; {2} to {3} are right."),
                          {where(key), fmt::to_string(value->size()), fmt::to_string(least), fmt::to_string(most)}});
    to.clear();
    for (std::size_t i = 0; i < value->size() && !mistake_; ++i) {
      const std::string path = fmt::format("{}.{}", where(key), i);
      if (!(*value)[i].is_object())
        return say_mistake(
            {words("{0}: {1} is there; {2} is right."), {path, kind_of((*value)[i]), words("an object")}});
      Reader reader((*value)[i], path, mistake_);
      fields(reader, to.emplace_back());
    }
  }
  void extra(Extra& to) {
    for (const auto& [key, value] : from_.items())
      if (!known_.contains(key)) to.emplace_back(key, value.dump());
  }

  void known(const char* key) { known_.insert(key); }

private:
  std::string where(const char* key) const { return path_.empty() ? key : path_ + "." + key; }

  const Json* take(const char* key) {
    known_.insert(key);
    const auto found = from_.find(key);
    return found == from_.end() || mistake_ ? nullptr : &*found;
  }
  void say_mistake(Message what) {
    if (!mistake_) mistake_ = std::move(what);
  }
  void wrong(const char* key, const char* wanted, const Json& value) {
    say_mistake({words("{0}: {1} is there; {2} is right."), {where(key), kind_of(value), wanted}});
  }
  double figure(const std::string& at, const Json& value, const NumberSpec& spec) {
    if (!value.is_number()) {
      say_mistake({words("{0}: {1} is there; {2} is right."), {at, kind_of(value), words("a number")}});
      return 0;
    }
    const double number = value.get<double>();
    if (!std::isfinite(number) || number < spec.least || number > spec.most)
      say_mistake({words("{0}: {1} is there; {2} to {3} is right."),
                   {at, kind_of(value), fmt::format("{:g}", spec.least), fmt::format("{:g}", spec.most)}});
    return number;
  }

  const Json& from_;
  std::string path_;
  std::optional<Message>& mistake_;
  std::set<std::string, std::less<>> known_;
};

// ---- parsing with limits ---------------------------------------------------------------------------------------

/// Refuses what nlohmann accepts but a build never holds: deep nesting and keys given twice.
struct Guard {
  std::optional<Message> mistake;
  std::vector<std::set<std::string>> keys;

  bool operator()(int depth, Json::parse_event_t event, const Json& value) {
    if (mistake) return false;
    if (depth > deepest) {
      mistake =
          Message{words("The file is nested deeper than {0} levels; a build never is."), {fmt::to_string(deepest)}};
      return false;
    }
    if (event == Json::parse_event_t::object_start) keys.emplace_back();
    if (event == Json::parse_event_t::object_end && !keys.empty()) keys.pop_back();
    if (event == Json::parse_event_t::key && !keys.empty() && !keys.back().insert(value.get<std::string>()).second)
      mistake = Message{words("The key “{0}” stands twice in one object."), {value.get<std::string>().substr(0, 60)}};
    return !mistake;
  }
};

Expected<Json> parse(std::string_view text) {
  Guard guard;
  try {
    Json json = Json::parse(text, std::ref(guard));
    if (guard.mistake) return refuse(*guard.mistake);
    return json;
  } catch (const Json::parse_error& error) {
    if (guard.mistake) return refuse(*guard.mistake); // found first
    const TextPlace at = place_in(text, error.byte > 0 ? error.byte - 1 : 0);
    const bool ends = error.byte > text.size();
    return refuse(
        ends ? words("The file ends too early, at line {0}, column {1}: it was cut off while being written or copied.")
             : words("The file is damaged at line {0}, column {1}: what stands there is not JSON."),
        {fmt::to_string(at.line), fmt::to_string(at.column)});
  } catch (const Json::exception&) {
    return refuse(words("The file holds a number too large for any computer to read."));
  }
}

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
  Writer writer(json);
  fields(writer, build);
  return json.dump(1, ' ') + "\n";
}

Expected<Build> from_json(std::string_view text) {
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos) return refuse(words("The file is empty."));
  if (text.size() > file_limit) return refuse(words("The file is larger than a build ever is."));
  if (const auto bad = first_bad_utf8(text)) {
    const TextPlace at = place_in(text, *bad);
    return refuse(words("Line {0}, column {1}: this is not UTF-8 text."),
                  {fmt::to_string(at.line), fmt::to_string(at.column)});
  }
  auto json = parse(text);
  if (!json) return refuse(json.error());
  const auto version = version_of(*json);
  if (!version) return refuse(version.error());
  migrate(*json, *version);

  Build build;
  std::optional<Message> mistake;
  Reader reader(*json, "", mistake);
  reader.known("format");
  reader.known("version");
  fields(reader, build);
  if (mistake) return refuse(*mistake);
  return build;
}

} // namespace mavrel::build
