// Bag cards as files: CSV with `# key: value` lines on top. The format is promised in docs/formats/bag-card.md.
#pragma once

#include "air/bag_card.h"
#include "quantity/expected.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel::shelf {

/// Something wrong, or doubtful, at a place in a card file. Lines and columns count from 1.
struct CardNote {
  std::size_t line = 0;
  std::size_t column = 0;
  Message what;
  friend bool operator==(const CardNote&, const CardNote&) = default;
};

struct CardReading {
  std::optional<air::BagCard> card; // none when there are mistakes
  std::vector<CardNote> mistakes;   // each must be mended before the card can be used
  std::vector<CardNote> doubts;     // the card works, but a figure was probably mistyped
};

/// Reads the text of one card. Never throws; every mistake found is named.
[[nodiscard]] CardReading read_card(std::string_view text);

/// `line 7, column 12: …`
[[nodiscard]] Message with_place(const CardNote& note);

/// Largest card file read, bytes.
constexpr std::size_t card_limit = 256 * 1024;

} // namespace mavrel::shelf
