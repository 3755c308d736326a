// Which heights are forbidden, by what, and the windows that are left.
#pragma once

#include "assess/assessment.h"
#include "assess/bag_on_end.h"
#include "assess/end_model.h"

#include <span>

namespace mavrel::assess {

struct Domain {
  double low = 0, high = 0; // m, H
};

/// The heights worth looking at: every bare limit that is known, the survey and the wishes, and a little beyond;
/// inside the map. None while there is no map.
[[nodiscard]] std::optional<Domain> domain_of(const EndModel& model, const BagOnEnd* bag, std::span<const double> also);

/// @param bag     none: the end's own limits only
/// @param prefer  H the chosen window should hold if a window does (road height)
/// @param only_case  the one load case that counts; none: every one must be satisfied
[[nodiscard]] Windows find_windows(const EndModel& model, const BagOnEnd* bag, const Domain& domain,
                                   std::optional<double> prefer, std::optional<std::size_t> only_case = {});

/// The free interval around `prefer`, else the widest; its edges named. None where nothing is left.
[[nodiscard]] std::optional<Window> window_between(std::span<const Stretch> blocked, const Domain& domain,
                                                   std::optional<double> prefer);

} // namespace mavrel::assess
