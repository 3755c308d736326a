// How a struct lists its fields. Beside each list of fields, in this folder's .cpp files and the shelf's, alone.
//
//   void fields(TableMaker& v, LowPoint& p) {
//     v.text("name", p.name, words("name"), 40);
//     v.number("x_m", p.x, {Kind::length, -3, 9, words("distance behind the front axle")});
//     v.extra(p.extra);
//   }
//   template <> const Table& table_of<LowPoint>() { return made_table<LowPoint>(); }
#pragma once

#include "build/table.h"

#include "build/names.h"
#include "quantity/shared.h"

namespace mavrel::build {

template <class Enum>
const Choices& choices_of() {
  static constexpr auto names = names_of(Enum{});
  static const Choices made{
      [] {
        std::vector<Choices::Row> rows;
        for (const auto& name : names)
          rows.push_back({name.key, name.name});
        return rows;
      }(),
      [](const void* value) -> std::optional<std::size_t> {
        for (std::size_t i = 0; i < names.size(); ++i)
          if (names[i].value == *static_cast<const Enum*>(value)) return i;
        return std::nullopt;
      },
      [](void* value, std::size_t row) { *static_cast<Enum*>(value) = names[row].value; },
  };
  return made;
}

template <class L>
const ListType& list_type_of() {
  using T = typename L::value_type;
  static constexpr ListType made{
      &table_of<T>,
      [](const void* list) { return static_cast<const L*>(list)->size(); },
      [](const void* list, std::size_t i) -> const void* { return &(*static_cast<const L*>(list))[i]; },
      [](void* list, std::size_t i) -> void* { return &(*static_cast<L*>(list))[i]; },
      [](void* list) -> void* { return &static_cast<L*>(list)->emplace_back(); },
      [](void* list, const void* entry) { static_cast<L*>(list)->push_back(*static_cast<const T*>(entry)); },
      [](void* list, std::size_t i) {
        L& values = *static_cast<L*>(list);
        values.erase(values.begin() + static_cast<std::ptrdiff_t>(i));
      },
      [](void* list) { static_cast<L*>(list)->clear(); },
  };
  return made;
}

/// Writes down where each field of a struct lies, by one sample of it.
class TableMaker {
public:
  TableMaker(const void* sample, Table& to) : sample_(static_cast<const std::byte*>(sample)), to_(to) {}

  void text(const char* key, const std::string& value, const char* label, std::size_t most_letters) {
    add(FieldType::text, key, label, value).most = most_letters;
  }
  void number(const char* key, const double& value, const NumberSpec& spec) {
    add(FieldType::number, key, spec.label, value).spec = spec;
  }
  void number(const char* key, const std::optional<double>& value, const NumberSpec& spec) {
    add(FieldType::maybe_number, key, spec.label, value).spec = spec;
  }
  void readings(const char* key, const Readings& value, const NumberSpec& spec) {
    add(FieldType::readings, key, spec.label, value).spec = spec;
  }
  template <class Enum>
  void choice(const char* key, const Enum& value, const char* label) {
    add(FieldType::choice, key, label, value).choices = &choices_of<Enum>();
  }
  void wish(const char* key, const std::optional<HeightWish>& value, const char* label) {
    add(FieldType::wish, key, label, value).of = &table_of<HeightWish>;
  }
  /// The place of one entry in a list of the same struct.
  template <class L>
  void index(const char* key, const std::size_t& value, const L& list) {
    Field& field = add(FieldType::index, key, "", value);
    field.list = &list_type_of<L>();
    field.list_offset = offset_of(&list);
  }
  template <class T>
  void object(const char* key, const T& value, const char* label) {
    Field& field = add(FieldType::object, key, label, value);
    field.of = &table_of<T>;
    field.opened = [](const void* object) { return object; };
    field.own = [](void* object) { return object; };
  }
  template <class T>
  void object(const char* key, const Shared<T>& value, const char* label) {
    Field& field = add(FieldType::object, key, label, value);
    field.of = &table_of<T>;
    field.opened = [](const void* object) -> const void* { return &**static_cast<const Shared<T>*>(object); };
    field.own = [](void* object) -> void* { return &static_cast<Shared<T>*>(object)->own(); };
  }
  template <class L>
  void list(const char* key, const L& values, const char* label, std::size_t least, std::size_t most) {
    Field& field = add(FieldType::list, key, label, values);
    field.least = least;
    field.most = most;
    field.list = &list_type_of<L>();
  }
  /// The field before is one that came later; see Field::later.
  void later() {
    Field& field = to_.fields.back();
    const void* value = sample_ + field.offset;
    field.later = field.type == FieldType::choice ? static_cast<double>(*field.choices->row_of(value))
                                                  : *static_cast<const double*>(value);
  }
  /// The field before is one that no figure rests on, such as a price; see Field::aside.
  void aside() { to_.fields.back().aside = true; }
  /// Keys this program does not know; the last of every struct.
  void extra(const Extra& value) { add(FieldType::extra, "", "", value); }

private:
  [[nodiscard]] std::size_t offset_of(const void* value) const {
    return static_cast<std::size_t>(static_cast<const std::byte*>(value) - sample_);
  }
  Field& add(FieldType type, const char* key, const char* label, const auto& value) {
    Field field{};
    field.type = type;
    field.key = key;
    field.label = label;
    field.offset = offset_of(&value);
    to_.fields.push_back(field);
    return to_.fields.back();
  }

  const std::byte* sample_;
  Table& to_;
};

template <class T>
const Table& made_table() {
  static const Table made = [] {
    Table out;
    const auto sample = std::make_unique<T>();
    TableMaker maker(sample.get(), out);
    fields(maker, *sample);
    const Field* name = out.find("name");
    out.name = name && name->type == FieldType::text ? name : nullptr; // stays where it is: a vector moves whole
    return out;
  }();
  return made;
}

} // namespace mavrel::build
