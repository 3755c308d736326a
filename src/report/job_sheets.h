// Job sheets for the wall, as rich text: what each person does on a day in large type, hold points, the cut list, the
// labels. What fits on a page together is on one.
#pragma once

#include "assess/fit_up/buying.h"
#include "assess/fit_up/plan.h"

#include <string>
#include <vector>

namespace mavrel::report {

/// A piece of a sheet that stays whole where a page has room for it.
struct Leaf {
  std::string html;
  bool begins = false; // a page of its own begins with it
};
/// Texts of which each begins a page.
[[nodiscard]] std::vector<Leaf> page_each(const std::vector<std::string>& html);
struct JobSheets {
  std::vector<Leaf> leaves;
};
/// @param from  first day of the plan that is written; `days` of them at most that somebody works on
[[nodiscard]] JobSheets job_sheets(const assess::FitUpGiven& given, const assess::Plan& plan,
                                   const std::vector<assess::HoldPoint>& checks, const assess::CutList& cut,
                                   const std::vector<assess::JudgedRoute>& routes, const UnitPrefs& prefs, int from = 0,
                                   int days = 60);

} // namespace mavrel::report
