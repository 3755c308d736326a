// The shelf: every bag there is to choose from, shipped and the user's own.
#pragma once

#include "air/bag_card.h"
#include "quantity/expected.h"
#include "quantity/shared.h"
#include "shelf/card_csv.h"
#include "shelf/part.h"

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

  /// Do both say the same of a bag? The curve is made from the card, and where the file lies is no matter.
  [[nodiscard]] auto parts() const { return std::tie(card); }
  friend bool operator==(const ShelfBag& a, const ShelfBag& b) { return a.card == b.card && a.doubts == b.doubts; }
};

/// A part of an air kit, with what is doubtful about its card.
struct ShelfPart {
  Part part;
  std::filesystem::path file;
  std::vector<Message> doubts;
  friend bool operator==(const ShelfPart& a, const ShelfPart& b) { return a.part == b.part; }
};

/// A file in a shelf folder that could not be used, and why.
struct ShelfProblem {
  std::filesystem::path file;
  Message what;
};

struct Shelf {
  List<ShelfBag> bags;   // by name
  List<ShelfPart> parts; // by kind, then by name
  std::vector<ShelfProblem> problems;

  /// @returns the bag of this name, or nullptr
  [[nodiscard]] const ShelfBag* find(std::string_view name) const;
  /// @returns the part of this kind and name, or nullptr
  [[nodiscard]] const Part* find(PartKind kind, std::string_view name) const;
  /// The same to be kept: it stays as it is when the shelf is read anew.
  [[nodiscard]] std::optional<Shared<ShelfBag>> take(std::string_view name) const;
};

/// Reads one card file.
/// @returns the bag; or the file's first mistake with its place
[[nodiscard]] Expected<ShelfBag> read_bag_file(const std::filesystem::path& file);

/// Reads every `*.csv` (a bag) and `*.parts.json` (air parts) in the folders, later ones first: a user's card of the
/// same name stands in for a shipped one. Folders that don't exist are no problem; cards with mistakes are, and are
/// left out.
[[nodiscard]] Shelf load_shelf(std::span<const std::filesystem::path> folders);

} // namespace mavrel::shelf
