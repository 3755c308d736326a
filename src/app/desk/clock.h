// What day and minute it is: the machine's clock, or what a test says it is.
#pragma once

#include "work/day.h"

namespace mavrel::app {

/// `MAVREL_NOW` where it holds a moment, else the clock.
[[nodiscard]] work::Moment clock_now();

} // namespace mavrel::app
