// What brings a car forward most: the one thing to do next, from nothing measured to a car on the road, and why.
#pragma once

#include "assess/assessment.h"
#include "build/build.h"
#include "shelf/shelf.h"
#include "work/day.h"

#include <optional>
#include <string>

namespace mavrel::assess {

/// What a step can do by itself; else it is gone to.
enum class StepDoes {
  nothing,
  wish_road,   // a road height in the middle of its window, where none is wished for
  wish_parked, // parked as low as the window lets it
  wish_ramp,   // as high as the window lets it, for ramps
};

struct NextStep {
  std::string id; // stable: it is put off by it; no spaces
  Message what;   // `Take height and weight of the four corners`
  Message why;
  const StageRow* stage = nullptr;
  std::string place; // the field there; or `job:rear.tack`, `hold:rear.gaps`, `check:leak_minutes`, `care:drain`
  StepDoes does = StepDoes::nothing;
};

struct NextGiven {
  const build::Build& build;
  const Assessment& assessment; // of that build
  const shelf::Shelf& shelf;
  std::optional<work::Moment> now;
  std::optional<double> air_a_day; // kg that go through, for what comes round by water; none: by the month
};

/// In working order, the first thing that is not put off: readings, wishes and bags, what stops it, what is near, the
/// air kit, what a careful builder would mend, parts, jobs with their hold points, proofs, the hand-over, care.
/// @returns none where all of it is done or put off
[[nodiscard]] std::optional<NextStep> next_step(const NextGiven& given);

/// The build with it done. @returns none where it does nothing by itself, or its window is not known any more
[[nodiscard]] std::optional<build::Build> done(const NextGiven& given, const NextStep& step);

/// The build with a step put off; and with all of them taken up again.
[[nodiscard]] build::Build put_off(build::Build build, const NextStep& step);
[[nodiscard]] build::Build taken_up(build::Build build);
[[nodiscard]] bool is_put_off(const build::Build& build, const std::string& id);

} // namespace mavrel::assess
