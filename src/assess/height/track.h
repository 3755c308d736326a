// Quantities over height. What there is to be read over height stands in rows, defined by the topics that work it out
// and named in assess/rows.cpp; tables and files walk the rows.
#pragma once

#include "air/bag.h"
#include "quantity/kind.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>
#include <vector>

namespace mavrel::assess {

/// Rows live as long as the program and are told apart by where they stand: compare pointers.
struct TrackRow {
  const char* key;  // `bag_height`, without a unit
  const char* name; // `bag height`, for people
  Kind kind;
  const TrackRow* or_else = nullptr; // read where this one has no track of its own
};

/// Evenly spaced values over a stretch of height with an answer everywhere on it.
struct TrackPiece {
  double from = 0, step = 0; // m, H; step at most 1 mm
  std::vector<double> values;
  [[nodiscard]] double to() const { return from + step * static_cast<double>(values.size() - 1); }
};

/// A stretch of height over which a track's values lie beyond what the bag's card knows or allows.
struct BeyondStretch {
  double from = 0, to = 0; // m, H
  air::Beyond what = air::Beyond::nothing;
};

/// One quantity over height. Where it has no answer there is no piece.
struct Track {
  const TrackRow* what = nullptr; // a row, never nullptr in an answer
  std::vector<TrackPiece> pieces;
  std::vector<BeyondStretch> beyond; // rising in H; where none holds H the value rests on what was measured
  std::optional<double> jumps_at;    // m, H at which something comes into play or goes: it is not read across
  [[nodiscard]] air::Beyond beyond_at(double H) const;
  /// Value at H, linear between the samples, and beside a jump between those of its own side; none where there is no
  /// answer.
  [[nodiscard]] std::optional<double> at(double H) const;
  [[nodiscard]] std::optional<std::pair<double, double>> range() const; // least and greatest value
};

/// @returns the track of this row, or nullptr
[[nodiscard]] const Track* find_track(const std::vector<Track>& tracks, const TrackRow& what);

/// Heights evenly over [low, high], `most` apart at most, both ends among them. None where nothing is between.
struct Heights {
  double low = 0, high = 0, step = 0; // m, H
  std::size_t count = 0;

  static Heights over(double low, double high, double most, int least_steps = 1) {
    if (!(high > low)) return {low, high, 0, 0};
    const auto steps = std::max(least_steps, static_cast<int>(std::ceil((high - low) / most)));
    return {low, high, (high - low) / steps, static_cast<std::size_t>(steps) + 1};
  }
  [[nodiscard]] double H(std::size_t i) const { return std::min(low + step * static_cast<double>(i), high); }
};

/// A track from a value at each of the heights; where there is none it is split.
/// @param value  of the i-th height
template <class F>
[[nodiscard]] Track track_of(const TrackRow& what, const Heights& heights, const F& value) {
  Track out{&what, {}, {}, {}};
  TrackPiece piece{heights.low, heights.step, {}};
  const auto close = [&](std::size_t next) {
    if (piece.values.size() >= 2) out.pieces.push_back(std::move(piece));
    piece = {heights.low + heights.step * static_cast<double>(next), heights.step, {}};
  };
  for (std::size_t i = 0; i < heights.count; ++i) {
    if (const std::optional<double> v = value(i))
      piece.values.push_back(*v);
    else
      close(i + 1);
  }
  close(heights.count);
  return out;
}

} // namespace mavrel::assess
