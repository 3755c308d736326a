// Is a card's physics sound? Checks that need no file, so that cards from anywhere pass through them.
#pragma once

#include "air/bag_card.h"
#include "quantity/message.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace mavrel::shelf {

/// A doubt about the stretch between two rows of a card.
struct CardDoubt {
  std::size_t row = 0; // from 0, the lower one; the stretch ends at row + 1
  Message what;
};

/// For a thin bag the area is dV/dh. Where ∫A dh and ΔV differ by more than `tolerance`, a load or a volume
/// was mistyped.
[[nodiscard]] std::vector<CardDoubt> check_volume_against_area(const air::BagCard& card, double tolerance = 0.15);

/// One figure of a card's table that looks mistyped.
struct SuspectCell {
  std::size_t row = 0;
  std::optional<std::size_t> column; // of the loads; none: the volume
  friend bool operator==(const SuspectCell&, const SuspectCell&) = default;
};

/// The cells behind the doubts, as far as the figures around them tell: a volume between two stretches that are off
/// opposite ways, a load whose area strays from what its column usually is beside the others; else both volumes.
[[nodiscard]] std::vector<SuspectCell> suspect_cells(const air::BagCard& card, double tolerance = 0.15);

/// Force must rise with pressure everywhere between the rows, or a load has no pressure or several.
/// @returns rows below which it doesn't
[[nodiscard]] std::vector<std::size_t> rows_where_force_falls(const air::BagCard& card);

} // namespace mavrel::shelf
