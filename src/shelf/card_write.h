// Bag cards to text and into folders, and many cards in one file.
#pragma once

#include "air/bag_card.h"
#include "quantity/expected.h"
#include "shelf/card_csv.h"

#include <filesystem>
#include <string>
#include <vector>

namespace mavrel::shelf {

/// The card as its file would hold it. Reading it back gives the card, to the digits written: 0.01 mm, 0.1 ml, 1 N.
[[nodiscard]] std::string card_text(const air::BagCard& card);

/// A text holding one card or several, each beginning with the line that says what it is. Lines count from the top of
/// the whole text.
[[nodiscard]] std::vector<CardReading> read_cards(std::string_view text);

/// File name for a card: its name in small letters, with dashes for what file names should not hold.
[[nodiscard]] std::string card_file_name(const air::BagCard& card);

/// Writes a card into a folder, which is made if need be, under its own file name; an older card there is replaced.
/// @returns the file; or why it could not be written
[[nodiscard]] Expected<std::filesystem::path> save_card(const air::BagCard& card, const std::filesystem::path& folder);

} // namespace mavrel::shelf
