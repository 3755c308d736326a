// What the list of fields is written in: what a number may be, and what a text may.
#pragma once

#include "build/basics.h"
#include "quantity/kind.h"
#include "quantity/message.h"
#include "quantity/text.h"

#include <concepts>
#include <type_traits>

namespace mavrel::build {

/// What a number may be. Values outside are refused, in files as in typing.
struct NumberSpec {
  Kind kind;
  double least, most; // SI, inclusive
  const char* label;
};

template <class T, class U>
concept Is = std::same_as<std::remove_const_t<T>, U>;

constexpr std::size_t most_readings = 40;

/// What is wrong with a text, in files as in typing: too long, or holding what no text holds.
[[nodiscard]] inline std::optional<Message> mistake_in_text(std::string_view text, const Argument& where,
                                                            std::size_t most_letters) {
  if (const std::size_t count = letters(text); count > most_letters)
    return Message{words("{0}: that is {1} letters long; up to {2} is right."),
                   {where, std::to_string(count), std::to_string(most_letters)}};
  if (const auto at = first_control(text)) // no sheet, table or drawing could hold it
    return Message{words("{0}: letter {1} is a control character, which is no text. Without it, it is right."),
                   {where, std::to_string(*at)}};
  return std::nullopt;
}

} // namespace mavrel::build
