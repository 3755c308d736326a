// The bench's sums for one end, said as a builder would: caster, shims, wedges, squareness, links, notches, the lateral
// bar, the track rod against the damper.
#pragma once

#include "assess/end/end_answer.h"

#include <vector>

namespace mavrel::assess {

struct BenchSum {
  const char* key; // `caster`, for who shows it beside its fields
  Message said;    // the answer, or what is wrong with the figures
  bool wrong = false;
};

/// Those whose figures are all there; what is missing is left out.
/// Source: docs/models.md, "Workshop".
[[nodiscard]] std::vector<BenchSum> bench_sums(const Answered<EndQuestion>& answer, const build::Workshop& workshop);

} // namespace mavrel::assess
