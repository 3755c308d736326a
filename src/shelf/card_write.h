// Bag cards to text and into folders, and many cards in one file.
#pragma once

#include "air/bag_card.h"
#include "quantity/expected.h"
#include "shelf/card_csv.h"

#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace mavrel::shelf {

/// The card as its file would hold it. Reading it back gives the card, to the digits written: 0.01 mm, 0.1 ml, 1 N.
[[nodiscard]] std::string card_text(const air::BagCard& card);

/// A text holding one card or several, each beginning with the line that says what it is. Lines count from the top of
/// the whole text. Of more than `most_cards` the first are read, and the last reading says so.
[[nodiscard]] std::vector<CardReading> read_cards(std::string_view text);

/// File name for a card: its name in small letters, with dashes for what file names should not hold.
[[nodiscard]] std::string card_file_name(const air::BagCard& card);

/// Which files of a folder hold which cards, looked up once; and cards written there. One use: files that others write
/// meanwhile are not seen.
class CardFiles {
public:
  explicit CardFiles(std::filesystem::path folder);
  /// The file that a card of this name would replace; none where there is none.
  [[nodiscard]] std::optional<std::filesystem::path> of(const std::string& name) const;
  /// As `save_card`.
  [[nodiscard]] Expected<std::filesystem::path> save(const air::BagCard& card);

private:
  std::filesystem::path folder_;
  std::map<std::string, std::filesystem::path> files_;
};

/// The file in a folder that holds a card of this name: the one a card of that name would replace.
/// @returns none where there is none, or the folder is missing
[[nodiscard]] std::optional<std::filesystem::path> file_of_card(const std::string& name,
                                                                const std::filesystem::path& folder);

/// Writes a card into a folder, which is made if need be: over the file that holds a card of its name, else under a
/// file name of its own. Never over anything else: another bag's card, one of a newer format, a file that is no card.
/// What is written reads back as the card.
/// @returns the file; or why it could not be written
[[nodiscard]] Expected<std::filesystem::path> save_card(const air::BagCard& card, const std::filesystem::path& folder);

/// Most cards that one file is read for: a shop's shelf, and what is put on one while somebody waits.
constexpr std::size_t most_cards = 300;

} // namespace mavrel::shelf
