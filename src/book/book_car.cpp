// What of a build stands in the book.
#include "book/book.h"
#include "build/care.h"
#include "build/fit_up.h"
#include "build/names.h"
#include "build/names_care.h"
#include "build/names_fit_up.h"
#include "build/proving.h"
#include "work/day.h"

#include <algorithm>
#include <map>

namespace mavrel::book {

namespace {

constexpr std::size_t most_text = 400'000; // letters of one build that are searched

/// The day of what comes round next by intervals that somebody set; the rest wants an assessment.
std::string next_due(const build::Build& build) {
  const build::Care& care = *build.care;
  const auto from = work::parse_day(care.from);
  if (!from) return {};
  std::optional<work::Day> next;
  const auto last = [&](const std::string& task) {
    work::Day out = *from;
    for (const build::LogEntry& e : care.log)
      if (e.kind == build::LogKind::work && e.what == task)
        if (const auto at = work::parse_moment(e.day)) out = std::max(out, at->day);
    return out;
  };
  // Twice a year somebody looks at its bags, whatever else was set.
  std::map<std::string, double> days{{"bags", 182}};
  for (const build::CareInterval& i : care.intervals)
    if (i.wanted == build::YesNo::no)
      days.erase(i.task);
    else if (i.days)
      days[i.task] = *i.days / 86400;
  for (const auto& [task, every] : days) {
    const work::Day due = last(task) + static_cast<work::Day>(every);
    if (!next || due < *next) next = due;
  }
  return next ? work::day_text(*next) : std::string();
}

} // namespace

BookCar car_of(const std::string& file, const build::Build& build) {
  BookCar out;
  out.file = file;
  out.car = build.job.car, out.number = build.job.number, out.owner = build.job.owner;
  out.platform = build.job.platform, out.shop = build.job.shop;
  for (const build::End end : build::both_ends) {
    for (const auto& row : build::names_of(build.end(end).layout))
      if (row.value == build.end(end).layout) out.layout[build::at(end)] = row.key;
    out.bag[build::at(end)] = build.variant().fit[build::at(end)].bag;
  }
  for (const build::JobNote& j : build.variant().fit_up->jobs)
    if (j.took) out.hours += *j.took;
  out.handed_over = build.variant().proving->handed_over;
  for (const build::HoldCheck& c : build.variant().fit_up->checks) {
    out.checks += c.result != build::CheckResult::open;
    out.proved += c.result == build::CheckResult::passed;
  }
  out.due = next_due(build);
  out.lessons = static_cast<int>(build.care->lessons.size());
  return out;
}

std::string words_of(const build::Build& build) {
  std::string out;
  const auto add = [&](const std::string& text) {
    if (!text.empty() && out.size() < most_text) out += text + "\n";
  };
  const build::Job& job = build.job;
  for (const std::string* text : {&job.car, &job.number, &job.owner, &job.shop, &job.platform, &job.notes})
    add(*text);
  for (const build::Variant& v : build.variants) {
    add(v.name);
    add(v.brief.notes);
    for (const build::EndFit& fit : v.fit)
      add(fit.bag), add(fit.wheel);
    for (const build::Preset& p : v.brief.presets)
      add(p.name);
    for (const std::string* part :
         {&v.air.compressor, &v.air.second_compressor, &v.air.tank, &v.air.valves, &v.air.dryer})
      add(*part);
    for (const build::JobNote& j : v.fit_up->jobs)
      add(j.name), add(j.reason);
    for (const build::HoldCheck& c : v.fit_up->checks)
      add(c.notes), add(c.by);
  }
  for (const build::End end : build::both_ends)
    for (const build::Obstacle& o : build.end(end).obstacles)
      add(o.name);
  for (const build::Lesson& l : build.care->lessons)
    add(l.what), add(l.why);
  for (const build::LogEntry& e : build.care->log)
    add(e.text);
  return out;
}

} // namespace mavrel::book
