// A solid axle on its links, solved through heave and roll.
#pragma once

#include "motion/linkage/pose.h"

#include <tl/expected.hpp>

#include <memory>

namespace mavrel::motion {

/// A solid axle ready to be solved. The right side's links are the left's mirror image; the lateral bar lies as it
/// lies. A value; may be used from several threads at once.
class AxleLinkage {
public:
  /// @param geometry  of a solid axle; nothing of it is wrong (`mistake_in`)
  /// @param right     the right side's joints as they are measured (y negative), where they differ; only the links'
  explicit AxleLinkage(const Geometry& geometry, const Geometry* right = nullptr);
  ~AxleLinkage();
  AxleLinkage(AxleLinkage&&) noexcept;
  AxleLinkage& operator=(AxleLinkage&&) noexcept;

  /// The pose at a height, every bar as long as it was measured: the roll is what links and bar make of it, and where
  /// they leave it free the axle stays level. Links hold an axle weakly in roll: a tenth of a millimetre in a bar is a
  /// part of a degree.
  /// @param dh  m, H less the surveyed one, mean of both sides
  /// Source: docs/models.md, "Hard points".
  [[nodiscard]] tl::expected<AxlePose, OutOfReach> solve(double dh) const;

  /// The pose at a height with the axle level, as its springs hold it; what the joints then have to give is its misfit.
  /// @param near  such a pose to start from; the surveyed one when nullptr
  [[nodiscard]] tl::expected<AxlePose, OutOfReach> solve_level(double dh, const AxlePose* near = nullptr) const;
  /// The same with the axle rolled. @param roll  rad, left wheel up against the body positive
  [[nodiscard]] tl::expected<AxlePose, OutOfReach> solve_rolled(double dh, double roll) const;

  /// Where a joint lies in a pose, m. @param left  else the right side's
  [[nodiscard]] Point joint(Joint joint, const AxlePose& pose, bool left = true) const;
  [[nodiscard]] const Geometry& geometry() const;

private:
  struct Solver;
  std::unique_ptr<const Solver> solver_;
};

} // namespace mavrel::motion
