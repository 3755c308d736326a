// A sentence with numbers in it that is only put into words when somebody reads it, so that it can be
// translated and its numbers shown in the reader's own units.
#pragma once

#include "quantity/kind.h"

#include <functional>
#include <string>
#include <variant>
#include <vector>

namespace mavrel {

/// A number inside a sentence, SI.
struct Amount {
  double value = 0;
  Kind kind = Kind::plain;
  int decimals = -1; // -1: what is usual for the kind

  friend bool operator==(const Amount&, const Amount&) = default;
};

using Argument = std::variant<std::string, Amount>;

/// English text with `{0}`, `{1}` … where the arguments go.
struct Message {
  std::string text;
  std::vector<Argument> args;

  [[nodiscard]] bool empty() const { return text.empty(); }
  friend bool operator==(const Message&, const Message&) = default;
};

/// Marks a literal for translation (`lupdate -tr-function-alias QT_TRANSLATE_NOOP+=words`); does nothing else.
constexpr const char* words(const char* text) {
  return text;
}

/// Looks up the translation of a marked literal. Empty: the English stands.
using Translate = std::function<std::string(const std::string&)>;

/// The sentence as one reader sees it.
[[nodiscard]] std::string say(const Message& message, const UnitPrefs& prefs = {}, const Translate& translate = {});

[[nodiscard]] inline Amount metres(double v, int decimals = -1) {
  return {v, Kind::length, decimals};
}
[[nodiscard]] inline Amount kilograms(double v, int decimals = -1) {
  return {v, Kind::mass, decimals};
}
[[nodiscard]] inline Amount pascals(double v, int decimals = -1) {
  return {v, Kind::pressure, decimals};
}
[[nodiscard]] inline Amount hertz(double v, int decimals = -1) {
  return {v, Kind::frequency, decimals};
}
[[nodiscard]] inline Amount share(double v, int decimals = -1) {
  return {v, Kind::share, decimals};
}
[[nodiscard]] inline Amount number(double v, int decimals = -1) {
  return {v, Kind::plain, decimals};
}

} // namespace mavrel
