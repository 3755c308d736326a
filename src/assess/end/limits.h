// Which heights an end and its bag forbid, by what, and the windows that are left.
#pragma once

#include "assess/end/bag_at_heights.h"
#include "assess/height/window.h"

#include <span>

namespace mavrel::assess {

/// Rows of what stops an end by itself.
namespace limits {
extern const Limit bag_collapsed, bag_full, bump_stop, damper_shut, damper_open;
extern const Limit pressure_high; // the bag's maximum, or on the road the share of it allowed
extern const Limit pressure_low;  // the bag's minimum
extern const Limit card_unknown;  // the bag's card has no rows there: nobody knows what the bag does
extern const Limit tank_pressure; // what the full tank can give
extern const Limit map_end;       // no reading goes further: nobody knows how the end moves there
extern const Limit linkage_end;   // the joints themselves go no further
extern const Limit joint_angle, bar_link, brake_hose, shaft_angle, shaft_plunge;
extern const Limit bag_tilt, bag_offset; // beyond what the bag's card bears
extern const Limit on_the_ground;        // the underside, on flat ground
extern const Limit legal_height;
extern const Limit tyre_near, bag_near, arm_near, axle_near; // to something that must be kept clear of
} // namespace limits
extern const std::span<const Limit* const> end_limits;

/// The row that says what has come to its end.
[[nodiscard]] const Limit& limit_of(Runs what);
[[nodiscard]] const Limit& limit_of(Mover mover);

/// The bag as a body between its seats. Refers to the bag.
[[nodiscard]] BagBody bag_body(const BagOnEnd& bag);

/// The heights worth looking at: every bare limit that is known, the survey and the wishes, and a little beyond;
/// inside the map. None while there is no map.
[[nodiscard]] std::optional<Domain> domain_of(const EndModel& model, const BagOnEnd* bag, std::span<const double> also);

/// @param bag     none: the end's own limits only
/// @param at      the bag at heights close enough together that no pressure limit is stepped over; its load cases are
///                those that must be satisfied
/// @param prefer  H the chosen window should hold if a window does (road height)
/// @param bag_blocks  what the bag comes too near to, where that is known already
[[nodiscard]] Windows find_windows(const EndModel& model, const BagOnEnd* bag, const BagAtHeights& at,
                                   const Domain& domain, std::optional<double> prefer,
                                   const std::vector<Block>* bag_blocks = nullptr);

/// The same for who needs nothing else at those heights. @param only_case  the one load case that counts; none: all
[[nodiscard]] Windows find_windows(const EndModel& model, const BagOnEnd* bag, const Domain& domain,
                                   std::optional<double> prefer, std::optional<std::size_t> only_case = {});

} // namespace mavrel::assess
