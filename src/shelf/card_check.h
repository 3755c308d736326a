// Is a card's physics sound? Checks that need no file, so that cards from anywhere pass through them.
#pragma once

#include "air/bag_card.h"
#include "quantity/message.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace mavrel::shelf {

/// A doubt about a row of a card, or the stretch above it.
struct CardDoubt {
  std::size_t row = 0; // from 0; a stretch ends at row + 1
  Message what;
};

/// For a thin bag the area is dV/dh. Where ∫A dh and ΔV differ by more than `tolerance`, a load or a volume
/// was mistyped.
[[nodiscard]] std::vector<CardDoubt> check_volume_against_area(const air::BagCard& card, double tolerance = 0.15);

/// Could the bag be so? The diameter that its area stands for never lies above the outside one; halfway up it is 0.70
/// to 0.92 of it; a sleeve's outside hardly changes. A doubt stands at the row it is worst at. Source: docs/models.md,
/// "Plausible cards".
[[nodiscard]] std::vector<CardDoubt> check_plausible(const air::BagCard& card);

/// One figure of a card's table that looks mistyped.
struct SuspectCell {
  std::size_t row = 0;
  std::optional<std::size_t> column; // of the loads; none: the volume
  friend bool operator==(const SuspectCell&, const SuspectCell&) = default;
};

/// The cells behind the doubts, as far as the figures around them tell: a volume between two stretches that are off
/// opposite ways, a load whose area strays from what its column usually is beside the others; else both volumes.
[[nodiscard]] std::vector<SuspectCell> suspect_cells(const air::BagCard& card, double tolerance = 0.15);
/// Is a cell among them? @param column  of the loads; none: the volume
[[nodiscard]] bool is_suspect(const std::vector<SuspectCell>& suspects, std::size_t row,
                              const std::optional<std::size_t>& column);

/// Force must rise with pressure everywhere between the rows, or a load has no pressure or several.
/// @returns rows below which it doesn't
[[nodiscard]] std::vector<std::size_t> rows_where_force_falls(const air::BagCard& card);

} // namespace mavrel::shelf
