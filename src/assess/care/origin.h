// Figures that a build has from another car: which they are, whether they still stand as they were taken over, and how
// a build is begun from an earlier one.
#pragma once

#include "build/build.h"
#include "quantity/message.h"

#include <string>
#include <vector>

namespace mavrel::assess {

/// One measured figure, or list of them, of a build's survey.
struct Leaf {
  std::string path; // `front.left.mass_kg`, `rear.obstacles`
  Message name;
  std::string digest;
};
/// Everything that was measured of the car: what is filled of both ends and of the body. Lists are one leaf each.
[[nodiscard]] std::vector<Leaf> measured_leaves(const build::Build& build);

/// Places among the origin's figures that are what they were when they were taken over, with their names.
[[nodiscard]] std::vector<std::pair<std::size_t, Message>> still_taken(const build::Build& build);

/// A new build of a car alike: geometry, obstacles, design, plan and lessons are taken over; whose car it is, what was
/// done and signed, read and learned of it is not.
/// @param file  that the earlier build is in
/// @param day   of today
/// Source: docs/models.md, "Cars alike".
[[nodiscard]] build::Build begun_from(const build::Build& earlier, const std::string& file, const std::string& day);

/// The build with a figure said to be so on this car too. @param place  among the origin's figures
[[nodiscard]] build::Build confirmed(const build::Build& build, std::size_t place);

} // namespace mavrel::assess
