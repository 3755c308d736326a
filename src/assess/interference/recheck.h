// Which clearances were looked at on the car, and which of them are to be looked at again.
#pragma once

#include "assess/end/end_answer.h"
#include "motion/wheel.h"

namespace mavrel::assess {

/// How a clearance stands that somebody may have looked at.
enum class RecheckState { never, good, stale };

/// One clearance to be looked at on the car.
struct Recheck {
  std::string what; // `tyre|liner behind`, as the build keeps it
  Mover mover = Mover::tyre;
  Near near;
  std::string digest;           // of what its figure reads now
  std::optional<double> figure; // m, the least over the heights the car uses, at any lock; none: not known there
  double height = 0;            // m, H where that is
  RecheckState state = RecheckState::never;
  std::optional<double> was;    // m it said when it was ticked
  std::optional<double> before; // m, the least with the surveyed wheel; none while the design keeps that
};

/// Every clearance of this end. A tick whose figures have other grounds now is stale by itself.
[[nodiscard]] std::vector<Recheck> rechecks(const AnsweredEnd& end, const std::vector<build::Check>& ticked);

/// Today's wheel against the surveyed one: what gets nearer to what.
struct WheelNews {
  std::string before, after; // codes
  motion::WheelChange change;
  double poke = 0; // m further past the arch than before
};
/// @returns none while the design fits no other wheel, or one of both can't be read
[[nodiscard]] std::optional<WheelNews> wheel_news(const AnsweredEnd& end);

} // namespace mavrel::assess
