// A sentence with its parts as data: it is only put into words when somebody reads it, so that every part of it can be
// translated and every number shown in the reader's own units.
#pragma once

#include "quantity/kind.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace mavrel {

/// A number inside a sentence, SI.
struct Amount {
  double value = 0;
  Kind kind = Kind::plain;
  int decimals = -1; // -1: what is usual for the kind
  std::optional<double> unlike =
      std::nullopt; // another number it must not look the same as: shown with the digits that takes

  friend bool operator==(const Amount&, const Amount&) = default;
};

struct Argument;

/// English text with `{0}`, `{1}` … where the arguments go.
struct Message {
  std::string text;
  std::vector<Argument> args;

  [[nodiscard]] bool empty() const { return text.empty(); }
};

/// One part of a sentence: what somebody typed or named, which stays as it is; a number; or words of ours (a marked
/// literal, or a sentence of its own), which are translated with it.
struct Argument {
  Argument(std::string typed) : what(std::move(typed)) {}
  Argument(std::string_view typed) : what(std::string(typed)) {}
  Argument(Amount amount) : what(amount) {}
  Argument(Message part) : what(std::move(part)) {}
  Argument(const char* marked) : what(Message{marked, {}}) {}

  std::variant<std::string, Amount, Message> what;
};

[[nodiscard]] bool operator==(const Message& a, const Message& b);
[[nodiscard]] bool operator==(const Argument& a, const Argument& b);

/// Marks a literal for translation (`lupdate -tr-function-alias QT_TRANSLATE_NOOP+=words`); does nothing else.
constexpr const char* words(const char* text) {
  return text;
}

/// Looks up the translation of a marked literal. Empty: the English stands.
using Translate = std::function<std::string(const std::string&)>;

/// The sentence as one reader sees it: one line of valid UTF-8, whatever its parts were.
[[nodiscard]] std::string say(const Message& message, const UnitPrefs& prefs = {}, const Translate& translate = {});

/// `a, b, c` of parts that are sentences or words themselves. Empty for none.
[[nodiscard]] Message list_of(std::vector<Message> parts);

[[nodiscard]] inline Amount metres(double v, int decimals = -1) {
  return {v, Kind::length, decimals, {}};
}
[[nodiscard]] inline Amount kilograms(double v, int decimals = -1) {
  return {v, Kind::mass, decimals, {}};
}
[[nodiscard]] inline Amount pascals(double v, int decimals = -1) {
  return {v, Kind::pressure, decimals, {}};
}
[[nodiscard]] inline Amount hertz(double v, int decimals = -1) {
  return {v, Kind::frequency, decimals, {}};
}
[[nodiscard]] inline Amount share(double v, int decimals = -1) {
  return {v, Kind::share, decimals, {}};
}
[[nodiscard]] inline Amount number(double v, int decimals = -1) {
  return {v, Kind::plain, decimals, {}};
}
/// An amount that must be told from another in the same sentence: `61.98 mm … from 62.00 mm`.
[[nodiscard]] inline Amount told_from(Amount amount, double other) {
  amount.unlike = other;
  return amount;
}

} // namespace mavrel
