// The shelf: every bag there is to choose from, shipped and the user's own.
#pragma once

#include "air/bag_card.h"
#include "quantity/expected.h"
#include "shelf/card_csv.h"

#include <filesystem>
#include <span>
#include <string>
#include <vector>

namespace mavrel::shelf {

struct ShelfBag {
  air::BagCard card;
  air::BagCurve curve;
  std::filesystem::path file;
  std::vector<CardNote> doubts;
};

/// A file in a shelf folder that could not be used, and why.
struct ShelfProblem {
  std::filesystem::path file;
  Message what;
};

struct Shelf {
  std::vector<ShelfBag> bags; // by name
  std::vector<ShelfProblem> problems;

  /// @returns the bag of this name, or nullptr
  [[nodiscard]] const ShelfBag* find(std::string_view name) const;
};

/// Reads one card file.
/// @returns the bag; or the file's first mistake with its place
[[nodiscard]] Expected<ShelfBag> read_bag_file(const std::filesystem::path& file);

/// Reads every `*.csv` in the folders, later ones first: a user's card of the same name stands in for a shipped
/// one. Folders that don't exist are no problem; cards with mistakes are, and are left out.
[[nodiscard]] Shelf load_shelf(std::span<const std::filesystem::path> folders);

} // namespace mavrel::shelf
