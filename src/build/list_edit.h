// Edits to the document's lists. Every list knows from the table of its fields how few and how many entries it holds,
// so that nothing is made here that a file could not hold.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <memory>
#include <string_view>

namespace mavrel::build {

/// A new entry of some list of the document: whatever has a table of its fields.
class Entry {
public:
  template <class T>
  Entry(T value) // NOLINT: stands in for its value
      : table_(&table_of<T>()), value_(std::make_shared<const T>(std::move(value))) {}
  [[nodiscard]] const Table& table() const { return *table_; }
  [[nodiscard]] const void* value() const { return value_.get(); }

private:
  const Table* table_;
  std::shared_ptr<const void> value_;
};

/// @param list  path of the list: `load_cases`, `load_cases.0.masses`, `variants.1.brief.presets`
/// @returns the build with the entry at the list's end; or that the list is full, or does not exist
[[nodiscard]] Expected<Build> with_entry(const Build& build, std::string_view list, Entry entry);

/// Without one entry. When a variant goes, the active one stays active, or its neighbour becomes so.
/// @param entry  path of the entry: `variants.2`
/// @returns the build; or that it must stay, or does not exist
[[nodiscard]] Expected<Build> without_entry(const Build& build, std::string_view entry);

/// The same build with another variant active: how it is looked at, not what it says.
/// @param index  of a variant it has
[[nodiscard]] Build with_active(const Build& build, std::size_t index);

} // namespace mavrel::build
