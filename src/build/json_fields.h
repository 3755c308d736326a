// Reading and writing whatever has a table of its fields as JSON: the document, and cards that are kept the same way.
#pragma once

#include "build/table.h"

#include <nlohmann/json_fwd.hpp>

#include <initializer_list>
#include <optional>
#include <string>

namespace mavrel::build {

/// What is found while a file is read: its first mistake, and how much of it is unknown here.
struct Finds {
  std::optional<Message> mistake;
  std::size_t unknown_values = 0, unknown_bytes = 0;
};

/// Writes the fields of a struct into a JSON object, behind what stands there; keys unknown to this program last.
/// @param from  a struct of `table`
void write_fields(const Table& table, const void* from, nlohmann::ordered_json& to);

/// Reads an object's fields into a struct. Of several mistakes the first of the file is kept, and nothing is read on.
/// @param to     a struct of `table`, as a new one is
/// @param from   an object
/// @param path   where it stands in the file: `parts.3`; empty: the whole
/// @param known  keys that stand there besides and are read by somebody else
void read_fields(const Table& table, void* to, const nlohmann::ordered_json& from, const std::string& path,
                 Finds& finds, std::initializer_list<const char*> known = {});

} // namespace mavrel::build
