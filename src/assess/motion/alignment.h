// How straight the bag stands between its plates as the end moves, and the bracket angles that stand it straight.
#pragma once

#include "air/bag_card.h"
#include "assess/motion/end_motion.h"

#include <array>

namespace mavrel::assess {

/// What a bag bears, by its card, else by its kind.
struct AlignmentLimits {
  double tilt = 0;                                       // rad between its plates
  double offset = 0;                                     // m of its plates' middles, across the bag
  bool tilt_from_card = false, offset_from_card = false; // else what is usual of its kind
};
[[nodiscard]] AlignmentLimits alignment_limits(const air::BagCard& card);

/// A gauge laid on a plate: rad from level.
struct GaugeAngles {
  double across = 0; // seen from the front, outer edge up positive
  double along = 0;  // seen from the side, front edge up positive
};

struct AlignedAt {
  double H = 0;      // m
  double tilt = 0;   // rad between the plates
  double offset = 0; // m
};

struct Alignment {
  double straight_at = 0;                     // m, H that the school wants it straight at
  GaugeAngles upper, lower;                   // as the plates stand with the car as surveyed: what is built
  GaugeAngles straight_upper, straight_lower; // the ones that would stand it straight there, as surveyed
  GaugeAngles lower_there;                    // of the lower plate at that height, for who builds it there
  std::vector<AlignedAt> over;                // rising in H
  [[nodiscard]] AlignedAt at(double H) const;
  /// Heights at which a figure lies over its limit, as pairs from–to.
  [[nodiscard]] std::vector<std::pair<double, double>> over_limit(double AlignedAt::*figure, double limit) const;
};

/// @param straight_at  m, H that the school wants the bag straight at
/// @returns none where the joints or the seats are not known
/// Source: docs/models.md, "Alignment".
[[nodiscard]] std::optional<Alignment> alignment_of(const EndMotion& motion, const build::Mounting& mounting,
                                                    double straight_at);

/// A bag whose foot stands on the upright turns with it: how it stands with the wheels steered fully, the worse way.
/// @param alignment  of the same end
/// @returns none where its foot does not steer, or no lock was measured
[[nodiscard]] std::optional<AlignedAt> aligned_at_lock(const EndMotion& motion, const Alignment& alignment, double H);

} // namespace mavrel::assess
