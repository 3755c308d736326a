// What every JSON of this folder is made with. Heavy; for its .cpp files alone.
#pragma once

#include <nlohmann/json.hpp>

#include <optional>
#include <string>

namespace mavrel::report {

using Json = nlohmann::ordered_json;

template <class T>
[[nodiscard]] Json or_null(const std::optional<T>& value) {
  return value ? Json(*value) : Json();
}

/// Its text, by lines. What is not UTF-8 is replaced.
[[nodiscard]] std::string printed(const Json& json, int indent = 1);

} // namespace mavrel::report
