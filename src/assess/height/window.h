// Stretches of height that are forbidden, and the window that is left between them.
#pragma once

#include "assess/height/limit.h"

#include <span>
#include <string>
#include <vector>

namespace mavrel::assess {

/// The heights looked at.
struct Domain {
  double low = 0, high = 0; // m, H
};

/// A stretch of height that one limit forbids.
struct Stretch {
  const Limit* limit = nullptr;         // a row, never nullptr in an answer
  double from = 0, to = 0;              // m, H; clipped to the domain
  std::optional<std::size_t> load_case; // for limits that depend on the load
  double reserve = 0;                   // m of travel kept free in front of the bare limit (road only)
  const char* part = nullptr;           // which part it is, for people; none where the limit says it all
  std::string near = {};                // or the name somebody gave to what it meets
  std::optional<double> gain = {};      // m of height for a metre of the part, where that was found with the stretch
  bool right = false;                   // at the right side, where that is not the left's mirror image
};

/// What forbids it, with the part it is: `joint at its angle: lower ball joint`.
[[nodiscard]] Message name_of(const Stretch& stretch);

/// One end of a window.
struct Edge {
  double height = 0;                // m, H
  std::optional<Stretch> governing; // none: nothing known limits the end on this side
  std::optional<Stretch> next;      // what would limit if the governing one were gone
  double next_height = 0;           // m, where that would be
  std::optional<double>
      height_per_metre; // m of height gained for each m of part gained (damper, stack, stop); none for pressures
};

/// What ends a window there, in few letters for narrow places: `bag full`; `bump kept` where a reserve does; `open`.
[[nodiscard]] const char* short_name(const Edge& edge);

struct Window {
  Edge low, high;
  [[nodiscard]] double width() const { return high.height - low.height; }
  [[nodiscard]] bool contains(double H) const { return H >= low.height - 1e-9 && H <= high.height + 1e-9; }
};

struct Windows {
  std::vector<Stretch> reach_blocked, road_blocked; // road includes the reserves
  std::optional<Window> reach, road;                // none: no height is left
};

/// Removes stretches of no length.
void drop_empty(std::vector<Stretch>& blocked);

/// The free interval around `prefer`, else the widest; its edges named. None where nothing is left.
[[nodiscard]] std::optional<Window> window_between(std::span<const Stretch> blocked, const Domain& domain,
                                                   std::optional<double> prefer);

/// That a height is none the end stands at: `431 mm lies outside the reach window, 306 mm to 419 mm.`
[[nodiscard]] Message outside_reach(double H, const Window& reach);

} // namespace mavrel::assess
