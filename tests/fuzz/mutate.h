// Damages text the way disks, editors and malice do.
#pragma once

#include <random>
#include <string>
#include <vector>

namespace mavrel::fuzz {

using Random = std::mt19937_64;

inline std::size_t below(Random& random, std::size_t most) {
  return most == 0 ? 0 : std::uniform_int_distribution<std::size_t>(0, most - 1)(random);
}

/// Pieces that readers are most likely to stumble over.
inline const std::vector<std::string>& spices() {
  static const std::vector<std::string> all = {"nan",
                                               "inf",
                                               "-inf",
                                               "1e999",
                                               "-1e308",
                                               "1e-400",
                                               "0",
                                               "-0",
                                               "null",
                                               "true",
                                               "{}",
                                               "[]",
                                               "[[[[",
                                               "}}}}",
                                               "\"",
                                               "\\",
                                               "\\u0000",
                                               "\n",
                                               "\r\n",
                                               ",",
                                               ";",
                                               ":",
                                               "#",
                                               "\xff",
                                               "\xc3",
                                               "½",
                                               "″",
                                               "−",
                                               "mm",
                                               "bar",
                                               "5/0",
                                               "1/",
                                               "e9",
                                               "\x01",
                                               "999999999999999999999999",
                                               "@Invalid()",
                                               "=",
                                               "[",
                                               "\t",
                                               "ж",
                                               std::string(3, '\0')};
  return all;
}

inline std::string mutated(std::string text, const std::string& other, Random& random) {
  const std::size_t times = 1 + below(random, 6);
  for (std::size_t i = 0; i < times; ++i) {
    const std::size_t at = below(random, text.size() + 1),
                      length = below(random, 1 + std::min<std::size_t>(40, text.size()));
    switch (below(random, 7)) {
    case 0: // a byte turned
      if (!text.empty()) text[below(random, text.size())] = static_cast<char>(random());
      break;
    case 1:
      text.erase(at, length);
      break;
    case 2:
      text.insert(at, spices()[below(random, spices().size())]);
      break;
    case 3: // doubled
      text.insert(at, text.substr(below(random, text.size() + 1), length));
      break;
    case 4:
      text.resize(at);
      break;
    case 5: { // another number
      const std::size_t digit = text.find_first_of("0123456789", at);
      if (digit != std::string::npos) text.replace(digit, 1, spices()[below(random, 12)]);
      break;
    }
    default:
      text.insert(at, other.substr(below(random, other.size() + 1), length));
    }
    if (text.size() > 200'000) text.resize(200'000);
  }
  return text;
}

} // namespace mavrel::fuzz
