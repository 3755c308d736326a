// What findings weigh once it is known how sure the answers are: a stop that is only likely says how likely, and what
// stands by less than its doubt is a caution.
#pragma once

#include "assess/doubt/doubt.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

/// The odds that a preset stands are safe from here on, and out below this.
constexpr double safe_odds = 0.95, out_odds = 0.05;
[[nodiscard]] constexpr bool in_doubt(double odds) {
  return odds > out_odds && odds < safe_odds;
}

/// The findings of the same build, each preset's with its odds, and cautions for presets that stand in doubt; worst
/// first.
/// Source: docs/models.md, "Doubt".
[[nodiscard]] Findings weighed(const Findings& findings, const build::Build& build, const Doubt& doubt);

} // namespace mavrel::assess
