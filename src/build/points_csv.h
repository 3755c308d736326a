// Hard points as files: where the joints of one end stand.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <string>
#include <string_view>

namespace mavrel::build {

/// Columns `joint`, `x_mm`, `y_mm`, `z_mm` (or `_in`), and if wanted `side` (`left`, `right`; left when absent) and
/// `turn_allowed_deg`; x forward, y left, z up, from the middle of the axle on the ground. Joints are named as in
/// docs/formats/hard-points.md; which of them the layout has is not asked here.
/// @returns the left and the right side's joints; or the first mistake with its line and column
struct ReadPoints {
  std::vector<HardPoint> left, right;
};
[[nodiscard]] Expected<ReadPoints> read_points_csv(std::string_view text);

/// The same table, in millimetres and degrees.
[[nodiscard]] std::string points_csv(const HardPoints& points);

} // namespace mavrel::build
