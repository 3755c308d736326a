// How much air goes through a kit a day: what water and dryers are reckoned by.
#pragma once

#include "assess/air/figures.h"

#include <stop_token>

namespace mavrel::assess {

/// kg a day, by the moves that the brief speaks of.
/// @param stop  looked at now and then; may be null
/// @returns it; or why the day can't be worked out. None where it was stopped
[[nodiscard]] std::optional<Expected<double>> air_a_day(const AirGiven& given, const std::stop_token& stop);

} // namespace mavrel::assess
