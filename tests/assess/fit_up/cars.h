// The demo cars on the bench, for the tests of fit-up.
#pragma once

#include "assess/fit_up/buying.h"
#include "assess/fit_up/check_figures.h"
#include "assess/fit_up/plan.h"
#include "support.h"

#include <algorithm>
#include <functional>

namespace mavrel::assess {

using build::Build;

inline Build changed(Build build, const std::function<void(Build&)>& change) {
  change(build);
  return build;
}
/// A demo car with nothing of its fit-up done yet.
inline Build fresh(Build build) {
  build::FitUp& f = build.variant().fit_up.own();
  f.jobs.clear(), f.checks.clear(), f.parts.clear();
  build.shop.own().habits.clear();
  build.shop.own().days_off.clear();
  return build;
}
inline Build fresh_estate() {
  return fresh(test::demo_whole());
}
inline Build fresh_half_ton() {
  return fresh(test::pickup_whole());
}
inline FitUpGiven fit_up_of(const Build& build) {
  return fit_up_given(build, test::demo_shelf());
}
inline JobList jobs_in(const Build& build) {
  return jobs_of(fit_up_of(build), {});
}
inline Plan plan_in(const Build& build, const char* now = "") {
  const auto plan = plan_of(plan_given(fit_up_of(build), work::parse_moment(now)));
  if (!plan) throw std::runtime_error(say(plan.error()));
  return *plan;
}
inline const Job* job_in(const JobList& list, const std::string& id) {
  const auto found = std::find_if(list.jobs.begin(), list.jobs.end(), [&](const Job& j) { return j.id == id; });
  return found == list.jobs.end() ? nullptr : &*found;
}
inline const HoldPoint& point_in(const std::vector<HoldPoint>& points, const std::string& id) {
  const auto found = std::find_if(points.begin(), points.end(), [&](const HoldPoint& p) { return p.id == id; });
  if (found == points.end()) throw std::runtime_error("no check " + id);
  return *found;
}
inline build::JobNote& note_on(Build& build, const std::string& id) {
  auto& jobs = build.variant().fit_up.own().jobs;
  build::JobNote note;
  note.id = id;
  jobs.push_back(note);
  return jobs.back();
}

/// A figure that is right where it can be; or one that is not.
inline double measured_for(const AskedFigure& f, bool right) {
  const double middle = f.designed          ? *f.designed
                        : f.least && f.most ? (*f.least + *f.most) / 2
                        : f.least           ? *f.least
                        : f.most            ? *f.most
                                            : 0.3;
  const double good = f.right(middle) ? middle : f.least ? *f.least : *f.most;
  if (right) return good;
  return f.yes_no ? 0 : f.least ? *f.least - 0.01 : f.most ? *f.most + 0.01 : good + 1;
}
/// Stand-ins for what simulations say: five seconds everywhere.
inline Predictions some_predictions(const FitUpGiven& given) {
  Predictions out;
  for (const HoldPoint& p : hold_points(given))
    for (const AskedFigure& f : p.figures)
      if (f.awaited) out[p.id + "/" + f.key] = 5;
  return out;
}
/// The car with a check signed, and what must have passed before it. @param right  else its first figure is measured
/// wrong
inline Build signed_off(Build build, const std::string& id, bool right = true) {
  for (;;) { // what must have passed first
    const auto points = hold_points(fit_up_of(build));
    const auto& before = point_in(points, id).before;
    if (before.empty()) break;
    build = signed_off(std::move(build), before.front());
  }
  const Predictions said = some_predictions(fit_up_of(build));
  const auto points = hold_points(fit_up_of(build), &said);
  const HoldPoint& point = point_in(points, id);
  build::HoldCheck note;
  note.check = id;
  for (std::size_t i = 0; i < point.figures.size(); ++i)
    note.figures.push_back(figure_of(point.figures[i], measured_for(point.figures[i], right || i > 0)));
  const auto done = signed_check(point, note, {}, "Tamsin", "2026-12-01 15:20");
  if (!done) throw std::runtime_error(say(done.error()));
  auto& checks = build.variant().fit_up.own().checks;
  std::erase_if(checks, [&](const build::HoldCheck& c) { return c.check == id; });
  checks.push_back(*done);
  return build;
}
inline CheckState state_of(const Build& build, const std::string& id) {
  return point_in(hold_points(fit_up_of(build)), id).state;
}

/// Every job done and every check of the work signed: what is left is to prove it.
inline Build released(Build build) {
  std::vector<std::string> ids;
  for (const Job& j : jobs_in(build).jobs)
    ids.push_back(j.id);
  for (const std::string& id : ids)
    note_on(build, id).state = build::JobState::done;
  for (const HoldPoint& p : hold_points(fit_up_of(build)))
    if (p.row->stage != CheckStage::proving) build = signed_off(std::move(build), p.id);
  return build;
}

} // namespace mavrel::assess
