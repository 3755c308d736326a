// The demo estate on the road, with lines in its log.
#pragma once

#include "assess/care/care_plan.h"
#include "assess/fit_up/cars.h"

namespace mavrel::assess {

inline Build on_the_road(const char* from = "2025-03-01") {
  Build b = fresh_estate();
  build::Care& care = b.care.own();
  care = build::Care{};
  care.from = from;
  return b;
}
inline build::LogEntry& logged(Build& b, build::LogKind kind, const char* what, const char* day) {
  build::LogEntry e;
  e.id = std::string(what) + day + std::to_string(b.care->log.size());
  e.kind = kind, e.what = what, e.day = day;
  b.care.own().log.push_back(e);
  return b.care.own().log.back();
}
inline CarePlan care_on(const Build& b, const char* today, std::optional<double> air = 0.05) {
  const auto plan = care_plan(care_given(b, fit_up_of(b)), air, *work::parse_day(today));
  if (!plan) throw std::runtime_error("not on the road");
  return *plan;
}
inline const CareDue& due_in(const CarePlan& plan, const char* task) {
  for (const CareDue& d : plan.due)
    if (std::string_view(d.task->key) == task) return d;
  throw std::runtime_error(std::string("no task ") + task);
}
inline std::string day_of(const CareDue& d) {
  return work::day_text(d.due);
}

} // namespace mavrel::assess
