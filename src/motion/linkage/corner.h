// One wheel on its joints, solved through travel and steer.
#pragma once

#include "motion/linkage/pose.h"

#include <tl/expected.hpp>

#include <memory>
#include <vector>

namespace mavrel::motion {

/// A corner ready to be solved. A value; may be used from several threads at once.
class CornerLinkage {
public:
  /// @param geometry  of any shape but a solid axle; nothing of it is wrong (`mistake_in`)
  explicit CornerLinkage(const Geometry& geometry);
  ~CornerLinkage();
  CornerLinkage(CornerLinkage&&) noexcept;
  CornerLinkage& operator=(CornerLinkage&&) noexcept;

  /// The pose at a height.
  /// @param dh    m, H less the surveyed one
  /// @param rack  m that the rods' inner ends are moved to the left; only where there are rods
  /// @param near  a solved pose to start from; the surveyed one when nullptr
  /// @returns the pose with every bar as long as it was measured, to 1e-10 m; or the joint that stops it
  /// Source: docs/models.md, "Hard points".
  [[nodiscard]] tl::expected<CornerPose, OutOfReach> solve(double dh, double rack = 0,
                                                           const CornerPose* near = nullptr) const;

  /// Can it be steered?
  [[nodiscard]] bool steers() const;
  /// m of rack that turns the wheel by `angle` at the surveyed height, left positive; none where nothing steers or no
  /// rack does.
  [[nodiscard]] std::optional<double> rack_for(double angle) const;

  /// Where a part stands in a pose.
  [[nodiscard]] Placed part(Part part, const CornerPose& pose) const;
  /// Where a joint lies in a pose, m; joints of the body lie still, but for the rod's inner end.
  [[nodiscard]] Point joint(Joint joint, const CornerPose& pose) const;
  [[nodiscard]] const Geometry& geometry() const;

private:
  struct Solver;
  std::unique_ptr<const Solver> solver_;
};

/// One row of poses a height, one column a rack position; what can't be reached is absent.
struct PoseGrid {
  std::vector<double> dh, rack; // m, rising
  std::vector<std::optional<CornerPose>> poses;
  [[nodiscard]] const std::optional<CornerPose>& at(std::size_t height, std::size_t steer) const {
    return poses[height * rack.size() + steer];
  }
};
/// @param dh, rack  rising, not empty
[[nodiscard]] PoseGrid solve_grid(const CornerLinkage& linkage, std::vector<double> dh, std::vector<double> rack);

} // namespace mavrel::motion
