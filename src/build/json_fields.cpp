#include "build/json_fields.h"

#include "build/brief.h"
#include "build/json_text.h"
#include "quantity/text.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

// What of it may be unknown to this program and is carried along. Written again with its indentation it stays small.
constexpr std::size_t most_unknown_values = 20'000;
constexpr std::size_t most_unknown_bytes = 1'000'000;

Json written(const Table& table, const void* from) {
  Json out = Json::object();
  write_fields(table, from, out);
  return out;
}

std::size_t count_values(const Json& value) {
  std::size_t out = 1;
  if (value.is_structured())
    for (const Json& part : value)
      out += count_values(part);
  return out;
}

/// Reads one object.
class Reader {
public:
  Reader(const Json& from, const std::string& path, Finds& finds) : from_(from), path_(path), finds_(finds) {}

  void read(const Field& field, void* in) {
    const auto found = from_.find(field.key);
    if (found == from_.end()) return;
    ++present_;
    if (finds_.mistake) return;
    const Json& value = *found;
    switch (field.type) {
    case FieldType::text:
      return text(field, value, field.get<std::string>(in));
    case FieldType::number:
    case FieldType::maybe_number:
      return field.set_number(in, figure(where(field), value, field.spec));
    case FieldType::readings:
      return readings(field, value, field.get<Readings>(in));
    case FieldType::choice:
      return choice(field, value, field.at(in));
    case FieldType::wish:
      return object(field, value, &field.get<std::optional<HeightWish>>(in).emplace());
    case FieldType::index:
      return index(field, value, field.get<std::size_t>(in), field.count(in));
    case FieldType::object:
      return object(field, value, field.own(field.at(in)));
    case FieldType::list:
      return list(field, value, field.at(in));
    case FieldType::extra:
      return;
    }
  }
  /// Takes along what stands under keys that are in no table.
  void take_unknown(const Table& table, std::initializer_list<const char*> known, Extra& to) {
    for (const char* key : known)
      present_ += from_.contains(key);
    if (present_ == from_.size()) return;
    for (const auto& [key, value] : from_.items()) {
      if (table.find(key) || std::find(known.begin(), known.end(), key) != known.end()) continue;
      const bool huge = value.is_string() && value.get_ref<const std::string&>().size() > most_unknown_bytes;
      std::string text = huge ? std::string(most_unknown_bytes, ' ') : value.dump();
      finds_.unknown_values += count_values(value);
      finds_.unknown_bytes += key.size() + text.size();
      if (finds_.unknown_values > most_unknown_values || finds_.unknown_bytes > most_unknown_bytes)
        return say_mistake({words("Under “{0}” the file carries more that is unknown here than can be kept with it: up "
                                  "to {1} values and {2} MB."),
                            {excerpt(under(key), 60), fmt::to_string(most_unknown_values),
                             fmt::to_string(most_unknown_bytes / 1'000'000)}});
      to.emplace_back(key, std::move(text));
    }
  }

private:
  [[nodiscard]] std::string under(const std::string& key) const { return path_.empty() ? key : path_ + "." + key; }
  [[nodiscard]] std::string where(const Field& field) const { return under(field.key); }

  void say_mistake(Message what) {
    if (!finds_.mistake) finds_.mistake = std::move(what);
  }
  void wrong(const Field& field, const char* wanted, const Json& value) {
    say_mistake({words("{0}: {1} is there; {2} is right."), {where(field), kind_of(value), wanted}});
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
  void text(const Field& field, const Json& value, std::string& to) {
    if (!value.is_string()) return wrong(field, words("a text"), value);
    to = value.get<std::string>();
    if (auto mistake = mistake_in_text(to, where(field), field.most)) say_mistake(std::move(*mistake));
  }
  void readings(const Field& field, const Json& value, Readings& to) {
    if (!value.is_array()) return wrong(field, words("a list of readings"), value);
    if (value.size() > most_readings)
      return say_mistake({words("{0}: {1} readings; up to {2} are kept."),
                          {where(field), fmt::to_string(value.size()), fmt::to_string(most_readings)}});
    for (std::size_t i = 0; i < value.size(); ++i)
      to.values.push_back(figure(fmt::format("{}.{}", where(field), i), value[i], field.spec));
  }
  void choice(const Field& field, const Json& value, void* to) {
    std::string known;
    for (std::size_t i = 0; i < field.choices->rows.size(); ++i) {
      const char* key = field.choices->rows[i].key;
      if (value.is_string() && value.get_ref<const std::string&>() == key) return field.choices->set(to, i);
      known += fmt::format("{}“{}”", known.empty() ? "" : ", ", key);
    }
    say_mistake({words("{0}: {1} is there; one of {2} is right."), {where(field), kind_of(value), known}});
  }
  void index(const Field& field, const Json& value, std::size_t& to, std::size_t count) {
    if (!value.is_number_unsigned() || value.get<std::size_t>() >= count)
      return say_mistake({words("{0}: {1} is there; a whole number from 0 to {2} is right."),
                          {where(field), kind_of(value), fmt::to_string(count - 1)}});
    to = value.get<std::size_t>();
  }
  void object(const Field& field, const Json& value, void* to) {
    if (!value.is_object()) return wrong(field, words("an object"), value);
    read_fields(field.of(), to, value, where(field), finds_);
  }
  void list(const Field& field, const Json& value, void* to) {
    if (!value.is_array()) return wrong(field, words("a list"), value);
    if (value.size() < field.least || value.size() > field.most)
      return say_mistake(
          {words("{0}: the list has {1} entries; {2} to {3} are right."),
           {where(field), fmt::to_string(value.size()), fmt::to_string(field.least), fmt::to_string(field.most)}});
    field.list->clear(to);
    for (std::size_t i = 0; i < value.size() && !finds_.mistake; ++i) {
      const std::string path = fmt::format("{}.{}", where(field), i);
      if (!value[i].is_object())
        return say_mistake({words("{0}: {1} is there; {2} is right."), {path, kind_of(value[i]), words("an object")}});
      read_fields(field.list->of(), field.list->add(to), value[i], path, finds_);
    }
  }

  const Json& from_;
  const std::string& path_;
  Finds& finds_;
  std::size_t present_ = 0; // known keys that stand here
};

} // namespace

void write_fields(const Table& table, const void* from, Json& to) {
  for (const Field& field : table.fields)
    switch (field.type) {
    case FieldType::text:
      if (!field.text(from).empty()) to[field.key] = field.text(from);
      break;
    case FieldType::number:
    case FieldType::maybe_number:
      if (const auto value = field.number(from)) to[field.key] = *value;
      break;
    case FieldType::readings:
      if (!field.readings(from).values.empty()) to[field.key] = field.readings(from).values;
      break;
    case FieldType::choice:
      if (const auto* row = field.choice(from)) to[field.key] = row->key;
      break;
    case FieldType::wish:
      if (const auto& wish = field.wish(from)) to[field.key] = written(field.of(), &*wish);
      break;
    case FieldType::index:
      to[field.key] = field.get<std::size_t>(from);
      break;
    case FieldType::object:
      to[field.key] = written(field.of(), field.opened(field.at(from)));
      break;
    case FieldType::list: {
      Json array = Json::array();
      for (std::size_t i = 0; i < field.size(from); ++i)
        array.push_back(written(field.list->of(), field.entry(from, i)));
      to[field.key] = std::move(array);
      break;
    }
    case FieldType::extra:
      for (const auto& [key, value] : field.extra(from))
        to[key] = Json::parse(value);
      break;
    }
}

void read_fields(const Table& table, void* to, const Json& from, const std::string& path, Finds& finds,
                 std::initializer_list<const char*> known) {
  Reader reader(from, path, finds);
  for (const Field& field : table.fields)
    if (field.type == FieldType::extra)
      reader.take_unknown(table, known, field.get<Extra>(to));
    else
      reader.read(field, to);
}

} // namespace mavrel::build
