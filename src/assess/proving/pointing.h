// What a difference between what was predicted and what was measured points to: rules as rows, each looking at one
// check's figures.
#pragma once

#include "assess/fit_up/checks.h"

namespace mavrel::assess {

/// Something that a check's figures point to, and how to be sure of it.
struct Pointer {
  Message where, cause, next; // `Front left`, what it may be, what would tell
};
/// In the rows' order; none where everything is right, or nothing known fits.
/// Source: docs/models.md, "Proving".
[[nodiscard]] std::vector<Pointer> points_to(const HoldPoint& point);

} // namespace mavrel::assess
