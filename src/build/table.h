// The document's fields as tables: every struct lists its fields once (build/fields/*.cpp), and reading, writing, the
// schema, typed edits, lists, digests and finding by path read that list at run time. Cards that are kept the same way
// have tables too.
#pragma once

#include "build/basics.h"
#include "build/field_spec.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel::build {

struct HeightWish;
struct Table;

enum class FieldType { text, number, maybe_number, readings, choice, wish, index, object, list, extra };

/// The values of one enumeration, in their order.
struct Choices {
  struct Row {
    const char* key;  // in files
    const char* name; // for people, English
  };
  std::vector<Row> rows;
  /// @returns the row of the value at `value`; nothing for a value that has none
  std::optional<std::size_t> (*row_of)(const void* value);
  /// @param row  of `rows`
  void (*set)(void* value, std::size_t row);
};

/// What can be done with one kind of list. Every `list` and `entry` is of that kind; what is returned is valid until
/// the list is changed or copied.
struct ListType {
  const Table& (*of)(); // its entries'
  std::size_t (*size)(const void* list);
  const void* (*at)(const void* list, std::size_t i);
  void* (*own)(void* list, std::size_t i); // this copy's own, to be changed
  void* (*add)(void* list);                // an entry as a new one is, at the end
  void (*push)(void* list, const void* entry);
  void (*erase)(void* list, std::size_t i);
  void (*clear)(void* list);
};

/// One field of a struct. What of it has a meaning depends on `type`.
struct Field {
  FieldType type;
  const char* key;             // in files and paths
  const char* label;           // for people, English; of what opens into fields it may be empty
  std::size_t offset;          // bytes into the struct
  NumberSpec spec = {};        // of numbers and readings
  std::size_t least = 0;       // entries of a list
  std::size_t most = 0;        // entries of a list, letters of a text
  const Choices* choices = {}; // of a choice; lives as long as the program
  const Table& (*of)() = {};   // of a wish and an object
  const ListType* list = {};   // of a list; lives as long as the program. Of an index: of the list it points into
  std::size_t list_offset = 0; // of an index: where that list stands in the struct
  /// Came later than builds that were signed: left at what it begins with (a number, or the row of a choice), it is as
  /// if it were not there, so that what was signed on the rest still stands.
  std::optional<double> later = {};
  bool aside = false;                             // no figure rests on it: its digest leaves it out
  const void* (*opened)(const void* object) = {}; // of an object: what is shared, or itself
  void* (*own)(void* object) = {};                // the same, to be changed

  // ---- in one struct, `in`. Each is only to be asked of a field of its type.
  [[nodiscard]] const void* at(const void* in) const { return static_cast<const std::byte*>(in) + offset; }
  [[nodiscard]] void* at(void* in) const { return static_cast<std::byte*>(in) + offset; }
  template <class T>
  [[nodiscard]] const T& get(const void* in) const {
    return *static_cast<const T*>(at(in));
  }
  template <class T>
  [[nodiscard]] T& get(void* in) const {
    return *static_cast<T*>(at(in));
  }
  [[nodiscard]] const std::string& text(const void* in) const { return get<std::string>(in); }
  [[nodiscard]] const Readings& readings(const void* in) const { return get<Readings>(in); }
  [[nodiscard]] const std::optional<HeightWish>& wish(const void* in) const {
    return get<std::optional<HeightWish>>(in);
  }
  [[nodiscard]] const Extra& extra(const void* in) const { return get<Extra>(in); }
  /// Of a number that may be absent and of one that may not.
  [[nodiscard]] std::optional<double> number(const void* in) const {
    return type == FieldType::number ? std::optional(get<double>(in)) : get<std::optional<double>>(in);
  }
  [[nodiscard]] double* number_to_change(void* in) const;       // nullptr: absent
  void set_number(void* in, std::optional<double> value) const; // an absent one only where it may be
  /// nullptr: a value without a name.
  [[nodiscard]] const Choices::Row* choice(const void* in) const {
    const auto row = choices->row_of(at(in));
    return row ? &choices->rows[*row] : nullptr;
  }
  [[nodiscard]] std::size_t size(const void* in) const { return list->size(at(in)); }
  [[nodiscard]] const void* entry(const void* in, std::size_t i) const { return list->at(at(in), i); }
  /// Of an index: how many there are to point at.
  [[nodiscard]] std::size_t count(const void* in) const {
    return list->size(static_cast<const std::byte*>(in) + list_offset);
  }
};

/// The fields of one struct, in the order of the file.
struct Table {
  std::vector<Field> fields;
  /// What an entry of a list is called by: its field `name`; nullptr where it has none.
  const Field* name = nullptr;

  [[nodiscard]] const Field* find(std::string_view key) const;
};

/// The table of a struct. Each struct that has one declares it where it is defined; made once, lives as long as the
/// program, may be read from any thread.
template <class T>
const Table& table_of() = delete;

template <class T>
concept HasTable = requires {
  table_of<T>();
};

/// A field found by its path.
struct FoundField {
  const Field* field;
  const void* in;
  Message label; // `front left weight`: what the path leads through, and the field itself

  /// The struct that the field is in, where it was found to be changed.
  [[nodiscard]] void* own() const { return const_cast<void*>(in); }
};

/// Paths are those of the file: `front.left.mass_kg`, `variants.0.brief.presets.1.rear`. A path may end at a list.
/// @param root   a struct of `table`, valid while what is found is used
/// @returns nothing where there is no such field
[[nodiscard]] std::optional<FoundField> find_field(const Table& table, const void* root, std::string_view path);
/// The same, all on the way made this copy's own.
[[nodiscard]] std::optional<FoundField> find_field_to_change(const Table& table, void* root, std::string_view path);

} // namespace mavrel::build
