// What a check says by itself: that its signature no longer stands, or that it failed.
#pragma once

#include "assess/finding/finding.h"
#include "assess/fit_up/checks.h"

namespace mavrel::assess {

/// Adds what is to be said of a check, as a finding of one row or the other.
void tell_of_check(const FitUpGiven& given, const HoldPoint& point, const FindingRow& stale, const FindingRow& failed,
                   Findings& out);

} // namespace mavrel::assess
