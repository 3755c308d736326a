// Job sheets for the wall, as rich text: a page a day in large type, a page a hold point, the cut list, the labels.
#pragma once

#include "assess/fit_up/buying.h"
#include "assess/fit_up/plan.h"

#include <string>
#include <vector>

namespace mavrel::report {

struct JobSheets {
  std::vector<std::string> pages; // HTML, each begins a page
};
/// @param from  first day of the plan that gets a page; `days` of them at most that somebody works on
[[nodiscard]] JobSheets job_sheets(const assess::FitUpGiven& given, const assess::Plan& plan,
                                   const std::vector<assess::HoldPoint>& checks, const assess::CutList& cut,
                                   const std::vector<assess::JudgedRoute>& routes, const UnitPrefs& prefs, int from = 0,
                                   int days = 60);

} // namespace mavrel::report
