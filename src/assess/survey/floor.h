// The floor the car was surveyed on: what of it the heights must be rid of.
#pragma once

#include "build/build.h"

#include <array>
#include <optional>

namespace mavrel::assess {

/// Floor under each wheel as it was read, m: [end][side].
using Floors = std::array<std::array<std::optional<double>, 2>, 2>;
[[nodiscard]] Floors floors_of(const build::Build& build);

/// Half the diagonal difference, m: what the best plane through all four leaves, equal at all corners but for its sign.
/// @returns none without four readings
[[nodiscard]] std::optional<double> floor_twist(const Floors& floors);

/// How far the floor under each corner stands off the best plane through all four, m: [end][side]. Zero without
/// four floor readings. A hub on a high spot sits closer to its arch by this much, a low one farther.
[[nodiscard]] std::array<std::array<double, 2>, 2> floor_corrections(const Floors& floors);

} // namespace mavrel::assess
