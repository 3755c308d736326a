#include "assess/book_notes.h"

#include "assess/assess.h"
#include "assess/assessment.h"
#include "assess/care/air_use.h"
#include "assess/care/care_findings.h"
#include "assess/care/care_plan.h"
#include "assess/fit_up/checks.h"

namespace mavrel::assess {

BookNotes book_notes(const build::Build& build, const shelf::Shelf& shelf, work::Day today) {
  BookNotes out;
  const Assessment assessed = assess(build, shelf);
  for (const Finding& f : assessed.findings)
    out.findings += say(f.title) + " " + say(f.reason) + "\n";
  const CareGiven& given = assessed.care.given();
  for (const HoldPoint& p : hold_points(given.fit_up)) {
    if (!is_proof(p)) continue;
    ++out.proofs;
    out.proved += p.state == CheckState::passed;
  }
  if (build.care->from.empty()) return out;
  const auto air = air_a_day(given.fit_up.air(), {});
  const auto plan = care_plan(given, air && *air ? std::optional(**air) : std::nullopt, today);
  if (plan && !plan->due.empty()) out.due = work::day_text(plan->due.front().due);
  return out;
}

} // namespace mavrel::assess
