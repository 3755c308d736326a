#include "quantity/text.h"

namespace mavrel {

namespace {

bool is_blank(char c) {
  return c == ' ' || c == '\t' || c == '\n' || c == '\r';
}

/// One letter from the front of a text: its bytes and its number; none where the bytes are no UTF-8.
struct Letter {
  std::size_t bytes = 1;
  std::optional<unsigned> code;
};

Letter letter_at(std::string_view text, std::size_t i) {
  const auto c = static_cast<unsigned char>(text[i]);
  const std::size_t length = c < 0x80 ? 1 : (c >> 5) == 6 ? 2 : (c >> 4) == 14 ? 3 : (c >> 3) == 30 ? 4 : 0;
  if (length == 0 || i + length > text.size()) return {};
  unsigned code = length == 1 ? c : c & (0x7Fu >> length);
  for (std::size_t k = 1; k < length; ++k) {
    const auto next = static_cast<unsigned char>(text[i + k]);
    if ((next >> 6) != 2) return {};
    code = (code << 6) | (next & 0x3Fu);
  }
  static constexpr unsigned least[] = {0, 0, 0x80, 0x800, 0x10000};
  if (code < least[length] || code > 0x10FFFF || (code >= 0xD800 && code <= 0xDFFF)) return {};
  return {length, code};
}

/// Control characters, and the marks that turn the direction of what follows: a name could hide a sentence with them.
bool misleads(unsigned code) {
  return code < 0x20 || (code >= 0x7F && code < 0xA0) || code == 0x2028 || code == 0x2029 ||
         (code >= 0x202A && code <= 0x202E) || (code >= 0x2066 && code <= 0x2069);
}

} // namespace

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && is_blank(text.front()))
    text.remove_prefix(1);
  while (!text.empty() && is_blank(text.back()))
    text.remove_suffix(1);
  return text;
}

std::optional<std::size_t> first_bad_utf8(std::string_view text) {
  for (std::size_t i = 0; i < text.size();) {
    if (static_cast<unsigned char>(text[i]) < 0x80) { // most of any file
      ++i;
      continue;
    }
    const Letter letter = letter_at(text, i);
    if (!letter.code) return i;
    i += letter.bytes;
  }
  return std::nullopt;
}

std::optional<std::size_t> first_control(std::string_view text) {
  std::size_t place = 1;
  for (std::size_t i = 0; i < text.size(); ++place) {
    const Letter letter = letter_at(text, i);
    const unsigned code = letter.code.value_or(' ');
    if ((code < 0x20 && code != '\t' && code != '\n' && code != '\r') || (code >= 0x7F && code < 0xA0)) return place;
    i += letter.bytes;
  }
  return std::nullopt;
}

std::size_t letters(std::string_view text) {
  std::size_t out = 0;
  for (std::size_t i = 0; i < text.size(); i += letter_at(text, i).bytes)
    ++out;
  return out;
}

std::string excerpt(std::string_view text, std::size_t most) {
  std::size_t i = 0;
  for (std::size_t n = 0; n < most && i < text.size(); ++n)
    i += letter_at(text, i).bytes;
  std::string out(text.substr(0, i));
  if (i < text.size()) out += "…";
  return out;
}

std::string presentable(std::string_view text) {
  std::string out;
  out.reserve(text.size());
  for (std::size_t i = 0; i < text.size();) {
    const Letter letter = letter_at(text, i);
    if (!letter.code)
      out += "\uFFFD";
    else if (misleads(*letter.code))
      out += ' ';
    else
      out += text.substr(i, letter.bytes);
    i += letter.bytes;
  }
  return out;
}

std::string capitalised(std::string text) {
  if (!text.empty() && text.front() >= 'a' && text.front() <= 'z')
    text.front() = static_cast<char>(text.front() - 'a' + 'A');
  return text;
}

} // namespace mavrel
