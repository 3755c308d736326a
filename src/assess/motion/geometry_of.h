// From the joints somebody measured to what a linkage is solved from.
#pragma once

#include "build/build.h"
#include "motion/linkage/geometry.h"
#include "quantity/expected.h"

#include <string>

namespace mavrel::assess {

using build::Side;

[[nodiscard]] motion::Shape shape_of(build::Layout layout);

/// Why an end's joints are no linkage, and which of them to look at.
struct PointTrouble {
  Message what;
  std::string joint; // `lower_front`; empty: a carrier
  Side side = Side::left;
};

/// The joints of both sides; a right side that was not measured mirrors the left. Each is given as a left side.
struct Joints {
  std::array<motion::Geometry, 2> side; // left, right mirrored to the left
  bool differ = false;
};
/// @returns the joints; or what is wrong with them: one is missing, unknown, there twice, or lies on another
[[nodiscard]] tl::expected<Joints, PointTrouble> joints_of_end(const build::EndSurvey& survey);

/// What carries the lower end of a spring, where nobody said so.
[[nodiscard]] motion::Part usual_spring_carrier(const build::EndSurvey& survey, const motion::Geometry& geometry);

/// Joints a newcomer starts from: usual places for the layout, fitted to this car's track and tyre.
/// @param track, radius  m; usual ones when absent
[[nodiscard]] std::vector<build::HardPoint> usual_points(build::Layout layout, std::optional<double> track,
                                                         std::optional<double> radius);

} // namespace mavrel::assess
