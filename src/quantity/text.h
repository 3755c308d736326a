// Pieces of text as people and files bring them: trimmed, counted and cut by letters, and made fit to be read aloud.
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>

namespace mavrel {

/// Without blanks, tabs and line ends on either side.
[[nodiscard]] std::string_view trimmed(std::string_view text);

/// Offset of the first byte that is not UTF-8; none if all is well.
[[nodiscard]] std::optional<std::size_t> first_bad_utf8(std::string_view text);

/// Which letter, from 1, is the first that is no writing: a control character other than a tab or a line's end; none.
[[nodiscard]] std::optional<std::size_t> first_control(std::string_view text);

/// Letters (code points) in a UTF-8 text; a byte that is none counts as one.
[[nodiscard]] std::size_t letters(std::string_view text);

/// At most so many letters from the front, a `…` for what was left off. Never cuts a letter in half.
[[nodiscard]] std::string excerpt(std::string_view text, std::size_t most);

/// Fit for one line of a terminal, a label or JSON: valid UTF-8, a `�` for what is not, a blank for a control character
/// or a mark that turns the direction of writing.
[[nodiscard]] std::string presentable(std::string_view text);

/// The same with a capital in front, where one exists.
[[nodiscard]] std::string capitalised(std::string text);

} // namespace mavrel
