// The tables of what there is: stages, limits, tracks, findings. A new one is a row in its own folder, named here once;
// reports, files and tests walk these.
#pragma once

#include "assess/finding/finding.h"
#include "assess/height/limit.h"
#include "assess/height/track.h"

#include <span>
#include <vector>

namespace mavrel::assess {

/// In working order.
[[nodiscard]] std::span<const StageRow* const> all_stages();
[[nodiscard]] std::vector<const Limit*> all_limits();
/// In the order tables have them as columns.
[[nodiscard]] std::vector<const TrackRow*> all_tracks();
[[nodiscard]] std::vector<const FindingRow*> all_findings();

} // namespace mavrel::assess
