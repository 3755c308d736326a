// The moment that a command is asked at: as it was given, else the machine's clock.
#pragma once

#include "quantity/expected.h"
#include "work/day.h"

#include <string>

namespace mavrel::cli {

/// `2026-11-30 10:30` of the machine's clock.
[[nodiscard]] std::string clock_text();
/// @param typed  after the option; empty: the clock  @returns the moment, or what would be right
[[nodiscard]] Expected<work::Moment> moment_of(const std::string& typed, const char* option = "--now");

} // namespace mavrel::cli
