// Reading and writing whatever lists its fields as JSON: the document, and cards that are kept the same way. Heavy; for
// .cpp files alone.
#pragma once

#include "build/fields.h"
#include "build/json_text.h"
#include "quantity/text.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <string_view>
#include <vector>

namespace mavrel::build::json_fields {

using Json = nlohmann::ordered_json;

// What of it may be unknown to this program and is carried along. Written again with its indentation it stays small.
constexpr std::size_t most_unknown_values = 20'000;
constexpr std::size_t most_unknown_bytes = 1'000'000;

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
    fields(writer, opened(value));
    to_[key] = std::move(sub);
  }
  void list(const char* key, const auto& values, const char*, std::size_t, std::size_t) {
    Json array = Json::array();
    for (const auto& value : values) {
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

inline std::size_t count_values(const Json& value) {
  std::size_t out = 1;
  if (value.is_structured())
    for (const Json& part : value)
      out += count_values(part);
  return out;
}

/// What is found while a file is read: its first mistake, and how much of it is unknown here.
struct Finds {
  std::optional<Message> mistake;
  std::size_t unknown_values = 0, unknown_bytes = 0;
};

/// Reads one object; keeps the first mistake of the whole file.
class Reader {
public:
  Reader(const Json& from, std::string path, Finds& finds)
      : from_(from), path_(std::move(path)), finds_(finds), mistake_(finds.mistake) {}

  void text(const char* key, std::string& to, const char*, std::size_t most) {
    const Json* value = take(key);
    if (!value) return;
    if (!value->is_string()) return wrong(key, words("a text"), *value);
    to = value->get<std::string>();
    if (auto wrong = mistake_in_text(to, where(key), most)) say_mistake(std::move(*wrong));
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
    Reader reader(*value, where(key), finds_);
    fields(reader, opened(to));
  }
  void list(const char* key, auto& to, const char*, std::size_t least, std::size_t most) {
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
      Reader reader((*value)[i], path, finds_);
      fields(reader, to.emplace_back());
    }
  }
  void extra(Extra& to) {
    if (present_ == from_.size()) return; // all of it was taken
    for (const auto& [key, value] : from_.items()) {
      if (std::find(known_.begin(), known_.end(), key) != known_.end()) continue;
      const bool huge = value.is_string() && value.get_ref<const std::string&>().size() > most_unknown_bytes;
      std::string text = huge ? std::string(most_unknown_bytes, ' ') : value.dump();
      finds_.unknown_values += count_values(value);
      finds_.unknown_bytes += key.size() + text.size();
      if (finds_.unknown_values > most_unknown_values || finds_.unknown_bytes > most_unknown_bytes)
        return say_mistake({words("Under “{0}” the file carries more that is unknown here than can be kept with it: up "
                                  "to {1} values and {2} MB."),
                            {excerpt(where(key.c_str()), 60), fmt::to_string(most_unknown_values),
                             fmt::to_string(most_unknown_bytes / 1'000'000)}});
      to.emplace_back(key, std::move(text));
    }
  }

  void known(const char* key) {
    known_.emplace_back(key);
    present_ += from_.contains(key);
  }

private:
  std::string where(const char* key) const { return path_.empty() ? key : path_ + "." + key; }

  const Json* take(const char* key) {
    known_.emplace_back(key);
    const auto found = from_.find(key);
    present_ += found != from_.end();
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
  Finds& finds_;
  std::optional<Message>& mistake_;
  std::vector<std::string_view> known_; // keys of the format: literals
  std::size_t present_ = 0;             // of them that stand here
};

} // namespace mavrel::build::json_fields
