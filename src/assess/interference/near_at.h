// What comes near to what at one height and lock, with the places where it does: for the section that is drawn.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

/// One gap at one pose.
struct NearAt {
  Mover mover = Mover::tyre;
  Near near;
  GapSource source = GapSource::solid;
  space::Gap gap;                    // of a sheet's or a taped one only `apart`
  bool placed = false;               // its places are known
  bool other_side = false;           // at the right wheel, of what stands for both
  std::optional<space::Solid> solid; // where it stands at this pose; of what is fixed to the body or is a rod
  [[nodiscard]] double spare() const { return gap.apart - near.room; }
};

/// All gaps of an end at H with the wheels steered by `angle` (rad, left positive), the least to spare first. Taped
/// gaps are given at their own lock and at those wider than half of it.
[[nodiscard]] std::vector<NearAt> near_at(const AnsweredEnd& end, double H, double angle);

/// The same with each wheel at a height of its own, straight ahead: of what lies at both sides the nearer.
/// @param left, right  m, H of the two wheels
[[nodiscard]] std::vector<NearAt> near_uneven(const AnsweredEnd& end, double left, double right);

/// The end's parts at a pose, and the bag between them.
struct PosedParts {
  Stand stand;
  std::optional<space::Cylinder> bag;
};
[[nodiscard]] std::optional<PosedParts> parts_at(const AnsweredEnd& end, double H, double angle);

/// m that the tyre's outer shoulder stands outside the arch's inner edge; below 0 it is tucked in.
/// @returns none while wheel or arch is unknown
[[nodiscard]] std::optional<double> poke_at(const AnsweredEnd& end, double H);

} // namespace mavrel::assess
