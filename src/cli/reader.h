// Reading the JSON files that the command line takes, with bounds.
#pragma once

#include "build/json_text.h"
#include "quantity/expected.h"
#include "space/point.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <array>
#include <cmath>
#include <functional>
#include <numbers>
#include <optional>
#include <string>

namespace mavrel::cli {

using Json = nlohmann::ordered_json;

constexpr double degree = std::numbers::pi / 180; // rad
constexpr double farthest = 10;                   // m that anything near a wheel may lie from its axle's middle

/// What stands there under a key; null where nothing does, or where nothing has keys.
[[nodiscard]] inline Json value_of(const Json& in, const char* key) {
  const auto found = in.find(key);
  return in.is_object() && found != in.end() ? *found : Json();
}

/// What one of these files may hold, read with bounds. The first mistake stays; what follows it is not read.
class Reader {
public:
  [[nodiscard]] const std::optional<Message>& mistake() const { return mistake_; }

  double number(const Json& in, const std::string& where, const char* key, double least, double most,
                std::optional<double> otherwise = {}) {
    if (!in.contains(key) && otherwise) return *otherwise;
    const Json value = value_of(in, key);
    if (value.is_number() && value.get<double>() >= least && value.get<double>() <= most) return value.get<double>();
    wrong(words("{0}: {1} is there; a number from {2} to {3} is right."),
          {path(where, key), build::kind_of(value), fmt::format("{:g}", least), fmt::format("{:g}", most)});
    return least;
  }
  std::string text(const Json& in, const std::string& where, const char* key) {
    const Json value = value_of(in, key);
    if (value.is_string() && !value.get<std::string>().empty()) return value.get<std::string>();
    wrong(words("{0}: {1} is there; {2} is right."), {path(where, key), build::kind_of(value), words("a text")});
    return {};
  }
  const Json& object(const Json& in, const std::string& where, const char* key) {
    static const Json none = Json::object();
    if (const auto found = in.find(key); found != in.end() && found->is_object()) return *found;
    wrong(words("{0}: {1} is there; {2} is right."),
          {path(where, key), build::kind_of(value_of(in, key)), words("an object")});
    return none;
  }
  const Json& list(const Json& in, const char* key, std::size_t most) {
    static const Json none = Json::array();
    const auto found = in.find(key);
    if (found == in.end() || !found->is_array()) {
      wrong(words("{0}: {1} is there; {2} is right."),
            {std::string(key), build::kind_of(value_of(in, key)), words("a list")});
      return none;
    }
    if (found->size() <= most) return *found;
    wrong(words("{0}: {1} are there; up to {2} are right."),
          {std::string(key), std::to_string(found->size()), std::to_string(most)});
    return none;
  }
  space::Point point(const Json& in, const std::string& where, const char* key) {
    const Json value = value_of(in, key);
    std::array<double, 3> p{};
    bool right = value.is_array() && value.size() == 3;
    for (std::size_t i = 0; right && i < 3; ++i) {
      right = value[i].is_number() && std::abs(value[i].get<double>()) <= farthest;
      if (right) p[i] = value[i].get<double>();
    }
    if (!right)
      wrong(words("{0}: three numbers in metres are right, none beyond {1} m."),
            {path(where, key), fmt::format("{:g}", farthest)});
    return {p[0], p[1], p[2]};
  }
  void wrong(const char* sentence, std::vector<Argument> arguments) {
    if (!mistake_) mistake_ = Message{sentence, std::move(arguments)};
  }
  static std::string path(const std::string& where, const char* key) {
    return where.empty() ? key : fmt::format("{}.{}", where, key);
  }

private:
  std::optional<Message> mistake_;
};

/// The answer to a JSON file, as text to print; or its first mistake behind the file's name.
[[nodiscard]] Expected<std::string> answer_file(const std::string& path,
                                                const std::function<Expected<Json>(const Json&)>& answer);

} // namespace mavrel::cli
