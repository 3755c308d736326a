// Of the readings that usual figures stand in for, which one would firm the windows up most.
#pragma once

#include "assess/end/end_model.h"
#include "assess/height/window.h"

namespace mavrel::assess {

struct Firming;

/// Each usual figure is moved by its doubt, either way, and the windows' edges are looked at; a bump stop nobody looked
/// for is put where it usually is.
/// @param windows  as they are found with the usual figures
/// @returns the reading that moves them most; none where nothing is estimated
/// Source: docs/models.md, "Stand-ins".
[[nodiscard]] std::optional<Firming> firms_most(const EndGiven& given, const Windows& windows);

} // namespace mavrel::assess
