// What could be done to an end, a row each: a trial on a copy of the build.
#pragma once

#include "assess/why/why.h"

namespace mavrel::assess {

/// One trial: how it is called, and the build with it done.
struct Trial {
  Message what;
  build::Build build;
  bool bag = false; // one of many other bags
};
/// Everything that can be tried at this end for an edge that this limit governs, likely ones first.
/// @param governing  none: nothing known limits it
[[nodiscard]] std::vector<Trial> trials_for(const WhyGiven& given, const AnsweredEnd& end,
                                            const std::optional<Stretch>& governing);

} // namespace mavrel::assess
