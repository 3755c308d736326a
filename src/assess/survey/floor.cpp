#include "assess/survey/floor.h"

namespace mavrel::assess {

Floors floors_of(const build::Build& build) {
  Floors out;
  for (const build::End end : build::both_ends)
    for (const build::Side side : build::both_sides)
      out[build::at(end)][build::at(side)] = build.end(end).corners[build::at(side)].floor;
  return out;
}

std::optional<double> floor_twist(const Floors& z) {
  for (const auto& end : z)
    for (const auto& side : end)
      if (!side) return std::nullopt;
  // A plane follows any tilt; what four points leave of it is pure twist.
  return (*z[0][0] - *z[0][1] - *z[1][0] + *z[1][1]) / 4;
}

std::array<std::array<double, 2>, 2> floor_corrections(const Floors& floors) {
  const double twist = floor_twist(floors).value_or(0);
  return {{{twist, -twist}, {-twist, twist}}};
}

} // namespace mavrel::assess
