// Tyre and rim from their printed code, and the space they take.
#pragma once

#include "quantity/expected.h"
#include "space/wheel_solid.h"

#include <optional>
#include <string_view>

namespace mavrel::motion {

/// `205/45R17 7.5 ET35`: tyre width mm, aspect %, rim diameter in; rim width in; offset mm. SI inside.
struct WheelCode {
  double tyre_width = 0;   // m, as printed
  double aspect = 0;       // 1
  double rim_diameter = 0; // m
  double rim_width = 0;    // m
  double offset = 0;       // m, hub face outboard of the rim's middle is positive
};

/// @returns the code's figures; or what is wrong with it and an example
[[nodiscard]] Expected<WheelCode> parse_wheel(std::string_view text);

/// m that a tyre's section is wider on a rim a metre wider.
constexpr double wider_per_rim = 0.4;

struct WheelSpace {
  double section_width = 0; // m, mounted on this rim
  double widest = 0;        // m, section or rim over its flanges
  double diameter = 0;      // m, unloaded
  double measuring_rim = 0; // m
  double inner_face = 0;    // m inboard of the hub face
  double outer_face = 0;    // m outboard of it
};

/// @param measured_width  m across the tyre as mounted, where somebody has measured it: it stands for the section
/// Source: docs/models.md, "Tyre and wheel".
[[nodiscard]] WheelSpace wheel_space(const WheelCode& code, std::optional<double> measured_width = {});

/// The same as a solid.
/// @param grow  m that the tyre may grow and squirm by
[[nodiscard]] space::WheelSolid wheel_solid(const WheelCode& code, std::optional<double> measured_width, double grow);

/// Second wheel less first.
struct WheelChange {
  double inner_face = 0, outer_face = 0, radius = 0; // m
  double speedometer_percent = 0;                    // the shown speed's error grows by
};
[[nodiscard]] WheelChange wheel_change(const WheelSpace& from, const WheelSpace& to);

} // namespace mavrel::motion
