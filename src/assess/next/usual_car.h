// A car begun from what it is: usual readings stand in every field until they are taken, each told from a taken one.
#pragma once

#include "build/build.h"

#include <array>
#include <string>

namespace mavrel::assess {

/// What a car is built for.
enum class CarUsedFor { street, show, load, track };
[[nodiscard]] const char* name_of(CarUsedFor use);
inline constexpr std::array all_uses = {CarUsedFor::street, CarUsedFor::show, CarUsedFor::load, CarUsedFor::track};

struct WhatItIs {
  build::BodyStyle style = build::BodyStyle::hatchback;
  std::array<build::Layout, 2> layout{build::Layout::strut, build::Layout::twin_beam}; // front, rear
  CarUsedFor use = CarUsedFor::street;
};
/// What usually goes with a body: a pickup has its solid axle behind.
[[nodiscard]] WhatItIs usual_for(build::BodyStyle style);

/// A build with the usual figures of such a car: weights, heights, wheels, body, underside, what lies near its wheels,
/// the brief and where the kit goes. All that would be read of a car is marked as usual (`Origin::taken`, of no car),
/// until it is taken or said to be so.
/// Source: docs/models.md, "Usual car".
[[nodiscard]] build::Build usual_car(const WhatItIs& what);

/// Is it a usual figure that stands in the build's `taken` list, rather than one of another car?
[[nodiscard]] bool begun_from_usual(const build::Build& build);

} // namespace mavrel::assess
