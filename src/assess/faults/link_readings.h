// What a linked car says of faults as it stands: how far its heights and gauges are off what is right at road height.
#pragma once

#include "assess/faults/practice.h"
#include "assess/proving/series.h"
#include "build/faults.h"

#include <vector>

namespace mavrel::assess {

/// Only corners that stand near road height tell of it, and only those that stand at it of their pressure; what the car
/// can't be judged by is left out.
/// @param car   as it is when nothing is wrong
/// @param look  heights (m, H) and pressures (Pa gauge) FL FR RL RR, as they are read; none: not read
/// @param room  so many notes are left for them
/// @returns notes of the document, `height_off` before `pressure_off`, corner by corner; none: it stands elsewhere
/// Source: handbook, reading over the link; live_near and live_pressure_at
[[nodiscard]] std::vector<build::FaultNote> link_readings(const PracticeShop& car, const LiveLook& look,
                                                          std::size_t room);

} // namespace mavrel::assess
