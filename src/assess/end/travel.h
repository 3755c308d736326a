// What ends the travel of one end: metal and rubber. Pressures end none: a wheel rebounds past them, and a warming car
// rises past them.
#pragma once

#include "assess/end/limits.h"

namespace mavrel::assess {

struct Travel {
  double low = 0, high = 0;               // m, H
  const Limit* low_by = &limits::map_end; // of several, the one that comes first
  const Limit* high_by = &limits::map_end;
  [[nodiscard]] bool contains(double H) const { return H >= low - 1e-9 && H <= high + 1e-9; }
};

/// How hard the bump stop is met.
enum class Meeting {
  standing, // the car rests on it
  hit,      // driven into it until it gives no more
};

/// From the lowest to the highest the end can go: damper ends, bag ends, the bump stop; where none of them ends it, as
/// far as anybody knows how it moves.
/// @returns none where they leave nothing
/// Source: docs/models.md, "Travel".
[[nodiscard]] std::optional<Travel> free_travel(const BagOnEnd& bag, Meeting meeting);

/// Share of what a bump stop gives when it is hit that it gives under a parked car: it is taken to give evenly, and to
/// be hit with five times what stands on it.
constexpr double parked_squeeze = 0.2;
/// From where an end rests on what stops it, a bump stop squeezed by what stands on it, to where it goes no higher, as
/// far as its bag's card answers: m, H.
/// @returns none where nothing is left between
/// Source: docs/models.md, "Travel".
[[nodiscard]] std::optional<std::pair<double, double>> standing_travel(const BagOnEnd& bag);

/// H where the bag is down to what an outside stop must leave of it; none within the map.
[[nodiscard]] std::optional<double> height_of_bag_margin(const BagOnEnd& bag);

} // namespace mavrel::assess
