// The least gap of an end over height and steer: where it may stand, and where it meets something.
#pragma once

#include "assess/end/end_answer.h"

#include <stop_token>

namespace mavrel::assess {

struct MapCell {
  double gap = 0;                 // m, of what has least to spare; 0: they overlap
  double spare = 0;               // m, that gap less what is wanted; below 0 it is blocked
  std::size_t which = not_listed; // of `ClearanceMap::what`; none: nothing is near
  bool reached = true;            // the joints stand there
};
struct ClearanceMap {
  std::vector<double> heights, steers; // m rising, rad rising
  std::vector<GapCurve> what;          // the gaps that it is made of
  std::vector<MapCell> cells;          // row by row: heights, then steers
  std::size_t worst = 0;               // of the cells at heights the car uses, the one with least to spare
  [[nodiscard]] const MapCell& at(std::size_t height, std::size_t steer) const {
    return cells[height * steers.size() + steer];
  }
};

/// All that a map is worked out from.
struct MapGiven {
  AnsweredEnd end;
  double low = 0, high = 0; // m, H
  std::size_t heights = 60, steers = 21;
  [[nodiscard]] auto parts() const { return std::tie(end, low, high, heights, steers); }
  friend bool operator==(const MapGiven&, const MapGiven&) = default;
};

/// @param stop  set from elsewhere: give up
/// @returns none where nothing is known to be near, or when stopped
/// Source: docs/models.md, "Clearance".
[[nodiscard]] std::optional<ClearanceMap> clearance_map(const MapGiven& given, const std::stop_token& stop = {});

} // namespace mavrel::assess
