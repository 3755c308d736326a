// What is due as a calendar file (iCalendar, RFC 5545): a day each, with what is done and why then.
#pragma once

#include "assess/care/care_plan.h"
#include "quantity/expected.h"

#include <string>

namespace mavrel::report {

/// What is late stands on the shop's next working day, and says since when it is due; each rings on its morning.
/// @param now  moment that it is made at, `2026-11-26 10:15`
/// @returns the file's text; or that `now` is no moment. The same task of the same car has the same mark in every file,
/// so that a calendar moves what it has instead of doubling it
[[nodiscard]] Expected<std::string> calendar_file(const build::Job& job, const build::Shop& shop,
                                                  const assess::CarePlan& plan, const std::string& now,
                                                  const UnitPrefs& prefs);

} // namespace mavrel::report
