#include "assess/fit_up/plan.h"

#include "work/work_times.h"

#include "assess/fit_up/buying.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace mavrel::assess {

using build::JobState;

namespace {

constexpr double latest_hours = 24.0 * 3650;

/// The shop as schedules are made in it.
struct ShopDays {
  work::Shop shop;
  std::optional<work::Day> first;
  double from = 8, to = 17;
  std::vector<Message> mistakes;
  static constexpr std::size_t car = 5; // the resource behind the places

  explicit ShopDays(const build::Shop& told) {
    from = told.day_from / 3600, to = told.day_to / 3600;
    if (to - from < 0.25) {
      mistakes.push_back(
          {words("Work begins at {0} and ends at {1}: the plan goes by 8 to 17."), {hour(from), hour(to)}});
      from = 8, to = 17;
    }
    if (!told.first_day.empty()) {
      first = work::parse_day(told.first_day);
      if (!first) mistakes.push_back({words("The first day: “{0}” is none; 2026-11-30 is one."), {told.first_day}});
    }
    const auto count = [](double n) { return static_cast<int>(std::lround(n)); };
    shop.resources = {{"lift", count(told.lifts)},         {"floor", count(told.floors)},
                      {"bench", count(told.benches)},      {"welder", count(told.weld_bays)},
                      {"paint", count(told.paint_places)}, {"car", 2}};
    for (const build::ShopPerson& p : told.people) {
      work::Person one{p.name, 0, {}};
      if (p.welds == build::YesNo::yes) one.skills |= skill(build::Skill::welding);
      if (p.wires == build::YesNo::yes) one.skills |= skill(build::Skill::wiring);
      if (p.paints == build::YesNo::yes) one.skills |= skill(build::Skill::paint);
      shop.people.push_back(std::move(one));
    }
    std::vector<std::pair<work::Day, work::Day>> closed;
    for (const build::DaysOff& off : told.days_off) {
      const auto begin = work::parse_day(off.from), end = off.to.empty() ? begin : work::parse_day(off.to);
      if (!begin || !end || *end < *begin) {
        mistakes.push_back(
            {words("Days off from “{0}” to “{1}” are no days; 2026-12-24 to 2027-01-01 are."), {off.from, off.to}});
        continue;
      }
      if (!first) continue; // without dates there are no free days
      if (off.who.empty()) {
        closed.emplace_back(*begin, *end);
        continue;
      }
      bool known = false;
      for (std::size_t p = 0; p < told.people.size(); ++p)
        if (told.people[p].name == off.who) {
          known = true;
          shop.people[p].away.emplace_back(24.0 * (*begin - *first), 24.0 * (*end - *first + 1));
        }
      if (!known) mistakes.push_back({words("“{0}” has days off and is nobody of the shop."), {off.who}});
    }
    if (!first) {
      // Days are only counted, and a week has five.
      const bool six = told.saturdays == build::YesNo::yes, seven = told.sundays == build::YesNo::yes;
      shop.times = work::WorkTimes(
          to - from, [six, seven](int day) { return day % 7 < 5 || (day % 7 == 5 && six) || (day % 7 == 6 && seven); });
      return;
    }
    const bool six = told.saturdays == build::YesNo::yes, seven = told.sundays == build::YesNo::yes;
    shop.times = work::WorkTimes(to - from, [six, seven, closed, first = *first](int day) {
      const work::Day date = first + day;
      if (day > 3 * 3650) return true; // beyond any plan
      const int w = work::weekday(date);
      if ((w == 5 && !six) || (w == 6 && !seven)) return false;
      return std::none_of(closed.begin(), closed.end(),
                          [&](const auto& c) { return date >= c.first && date <= c.second; });
    });
  }
  static std::uint32_t skill(build::Skill s) { return s == build::Skill::none ? 0 : 1U << static_cast<unsigned>(s); }
  static Amount hour(double h) { return {h * 3600, Kind::hours, -1, {}}; }
  /// h since the first morning's start.
  [[nodiscard]] double at(const work::Moment& m) const { return 24.0 * (m.day - *first) + m.minute / 60.0 - from; }
};

std::optional<std::size_t> resource_of(build::WorkPlace place) {
  switch (place) {
  case build::WorkPlace::lift:
    return 0;
  case build::WorkPlace::floor:
    return 1;
  case build::WorkPlace::bench:
    return 2;
  case build::WorkPlace::weld_bay:
    return 3;
  case build::WorkPlace::paint:
    return 4;
  case build::WorkPlace::usual:
  case build::WorkPlace::none:
    break;
  }
  return std::nullopt;
}

/// Names typed with commas between.
std::vector<std::string> names_in(const std::string& typed) {
  std::vector<std::string> out;
  std::string now;
  for (const char c : typed + ",") {
    if (c != ',') {
      if (!now.empty() || c != ' ') now += c;
      continue;
    }
    while (!now.empty() && now.back() == ' ')
      now.pop_back();
    if (!now.empty()) out.push_back(now);
    now.clear();
  }
  return out;
}

work::Task task_of(const Job& job, const ShopDays& days, std::optional<double> now) {
  work::Task out;
  out.id = job.id;
  out.after = job.after;
  out.hours = job.hours;
  out.wait = job.wait;
  out.by_the_clock = job.by_the_clock;
  out.people = job.by_the_clock ? 0 : job.people;
  out.skill = ShopDays::skill(job.skill);
  out.skilled = out.skill && out.people > 0 ? 1 : 0;
  if (const auto place = resource_of(job.place)) out.needs.push_back({*place, 1});
  if (job.car != CarUse::none) out.needs.push_back({ShopDays::car, job.car == CarUse::alone ? 2 : 1});
  // Parts come on their own, from the first morning.
  const bool parts = job.from == JobFrom::rule && (job.id == "order_kit" || job.id.ends_with(".order"));
  out.not_before = parts ? 0 : std::fmax(0, now.value_or(0));
  if (!job.by_the_clock)
    for (const std::string& name : names_in(job.note.who))
      for (std::size_t p = 0; p < days.shop.people.size(); ++p)
        if (days.shop.people[p].name == name && static_cast<int>(out.who.size()) < out.people) out.who.push_back(p);
  const auto moment = [&](const std::string& text) -> std::optional<double> {
    const auto m = work::parse_moment(text);
    return m && days.first ? std::optional(std::clamp(days.at(*m), -latest_hours, latest_hours)) : std::nullopt;
  };
  if (const auto day = work::parse_day(job.note.not_before); day && days.first)
    out.not_before = std::fmax(out.not_before, 24.0 * (*day - *days.first));
  const auto& times = days.shop.times;
  switch (job.state()) {
  case JobState::done: {
    const double end = std::fmax(0, moment(job.note.ended).value_or(std::fmax(0, now.value_or(0))));
    const double start = std::clamp(moment(job.note.began).value_or(end), 0.0, end);
    out.fixed = {start, end};
    out.hours = 0; // what is behind it waits for nothing more of it
    break;
  }
  case JobState::running: {
    const double start = std::fmax(0, moment(job.note.began).value_or(now.value_or(0)));
    const double end = job.by_the_clock
                           ? start + job.hours
                           : work::hours_of(times.after(times.next(work::ticks(start)), work::ticks(job.hours)));
    out.fixed = {start, std::fmax(end, now.value_or(0))}; // it is not over before it is said to be
    break;
  }
  case JobState::open:
  case JobState::skipped:
    break;
  }
  return out;
}

} // namespace

const char* name_of(JobStands stands) {
  switch (stands) {
  case JobStands::waiting:
    return words("waits");
  case JobStands::ready:
    return words("ready");
  case JobStands::held:
    return words("held");
  case JobStands::running:
    return words("running");
  case JobStands::done:
    return words("done");
  }
  return "";
}

PlanGiven plan_given(const FitUpGiven& given, std::optional<work::Moment> now) {
  PlanGiven out{jobs_of(given, parts_wait(given, now)), {}, given.shop, now};
  for (const HoldPoint& point : hold_points(given))
    out.checks.emplace_back(point.id, point.state);
  return out;
}

namespace {

/// What keeps a job from going on. @param began  it was: then a check that has become stale since held nothing up
std::vector<Message> missing(const PlanGiven& given, const Job& job, bool began) {
  std::vector<Message> out;
  for (const std::string& id : job.after) {
    const auto before =
        std::find_if(given.list.jobs.begin(), given.list.jobs.end(), [&](const Job& j) { return j.id == id; });
    if (before == given.list.jobs.end()) continue;
    if (before->state() != JobState::done) {
      out.push_back({words("“{0}” is not done"), {before->name}});
      continue;
    }
    if (job.from == JobFrom::repair) continue; // it is there because a check failed
    for (const std::string& check : before->checks)
      for (const auto& [one, state] : given.checks)
        if (one == check && state != CheckState::passed && !(began && state == CheckState::stale))
          out.push_back({state == CheckState::failed  ? words("“{0}” has failed")
                         : state == CheckState::stale ? words("“{0}” was signed on another design")
                                                      : words("“{0}” is not signed"),
                         {check_name(check)}});
  }
  return out;
}

} // namespace

std::vector<Message> missing_before(const PlanGiven& given, std::string_view job) {
  for (const Job& j : given.list.jobs)
    if (j.id == job) return missing(given, j, false);
  return {};
}

std::vector<Message> missing_before_check(const PlanGiven& given, std::string_view check) {
  std::vector<Message> out;
  for (const Job& j : given.list.jobs)
    if (std::find(j.checks.begin(), j.checks.end(), check) != j.checks.end())
      for (Message& m : missing(given, j, false))
        if (std::find(out.begin(), out.end(), m) == out.end()) out.push_back(std::move(m));
  return out;
}

std::vector<Message> taken_on(const FitUpGiven& given) {
  std::vector<Message> out;
  const JobList list = jobs_of(given, {});
  const auto say = [&](const Message& what, const std::string& by, const std::string& why) {
    out.push_back({words("{0}: gone on with by {1} before everything was ready. {2}"), {what, by, why}});
  };
  for (const Job& j : list.jobs)
    if (!j.note.taken_by.empty()) say(j.name, j.note.taken_by, j.note.taken_why);
  for (const build::HoldCheck& c : given.fit_up->checks)
    if (!c.taken_by.empty()) say(check_name(c.check), c.taken_by, c.taken_why);
  return out;
}

std::optional<Message> plan_trouble(const PlanGiven& given) {
  const ShopDays days(*given.shop);
  std::vector<work::Task> tasks;
  for (const Job& job : given.list.jobs)
    tasks.push_back(task_of(job, days, std::nullopt));
  if (const auto order = work::order_of(tasks); !order) return order.error();
  return work::impossible(tasks, days.shop);
}

Expected<Plan> plan_of(const PlanGiven& given) {
  const ShopDays days(*given.shop);
  Plan out;
  out.jobs = given.list.jobs;
  out.mistakes = given.list.mistakes;
  out.mistakes.insert(out.mistakes.end(), days.mistakes.begin(), days.mistakes.end());
  out.first_day = days.first;
  out.day_from = days.from, out.day_to = days.to;
  out.places.assign(days.shop.resources.begin(), days.shop.resources.begin() + ShopDays::car);
  if (given.now && days.first) out.now = std::clamp(days.at(*given.now), -latest_hours, latest_hours);
  std::vector<work::Task> tasks;
  for (const Job& job : out.jobs) {
    for (const std::string& name : names_in(job.note.who))
      if (std::none_of(days.shop.people.begin(), days.shop.people.end(), [&](const auto& p) { return p.name == name; }))
        out.mistakes.push_back({words("{0}: “{1}” is to do it and is nobody of the shop."), {job.name, name}});
    if ((job.state() == JobState::running || job.state() == JobState::done) && job.note.taken_by.empty())
      if (const auto lacks = missing(given, job, true); !lacks.empty())
        out.mistakes.push_back({job.state() == JobState::done
                                    ? words("{0} is done and {1}: nobody has taken that on.")
                                    : words("{0} is begun and {1}: nobody has taken that on."),
                                {job.name, lacks.front()}});
    tasks.push_back(task_of(job, days, out.now));
    if (!job.by_the_clock && job.state() != JobState::done) out.work_hours += job.hours * job.people;
  }
  const auto order = work::order_of(tasks);
  if (!order) return refuse(order.error());
  const auto placed = work::schedule(tasks, days.shop);
  if (!placed) return refuse(placed.error());
  const auto path = work::critical_path(tasks, *order);
  out.span = path.span;
  out.shared_span = placed->span;
  out.proven = placed->proven;

  std::map<std::string, CheckState> checks(given.checks.begin(), given.checks.end());
  // The check that keeps what is behind a job from going on, if any.
  const auto holds = [&](const Job& job) -> std::optional<std::string> {
    for (const std::string& id : job.checks)
      if (const auto found = checks.find(id); found != checks.end() && found->second != CheckState::passed) return id;
    return std::nullopt;
  };
  for (std::size_t i = 0; i < tasks.size(); ++i) {
    PlannedJob p;
    p.path = path.tasks[i];
    p.start = placed->tasks[i].start, p.end = placed->tasks[i].end;
    for (const std::size_t person : placed->tasks[i].people)
      p.who.push_back(days.shop.people[person].name);
    if (out.jobs[i].state() == JobState::done && !out.jobs[i].note.who.empty()) p.who = names_in(out.jobs[i].note.who);
    switch (out.jobs[i].state()) {
    case JobState::done:
      p.stands = JobStands::done;
      break;
    case JobState::running:
      p.stands = JobStands::running;
      break;
    case JobState::open:
    case JobState::skipped: {
      const bool all_done = std::all_of(order->before[i].begin(), order->before[i].end(),
                                        [&](std::size_t b) { return out.jobs[b].state() == JobState::done; });
      p.stands = all_done ? JobStands::ready : JobStands::waiting;
      if (all_done && out.jobs[i].from != JobFrom::repair)
        for (const std::size_t b : order->before[i])
          if (const auto check = holds(out.jobs[b])) p.stands = JobStands::held, p.held_by = check_name(*check);
      break;
    }
    }
    out.planned.push_back(std::move(p));
  }
  const int count = out.days();
  for (int d = 0; d < count; ++d)
    out.worked_days.push_back(days.shop.times.works(d) ? 1 : 0);
  return out;
}

int Plan::days() const {
  double end = std::fmax(shared_span, now.value_or(0));
  for (const PlannedJob& p : planned)
    end = std::fmax(end, p.end);
  return std::clamp(static_cast<int>(std::floor(end / 24)) + 1, 1, 3660);
}
bool Plan::worked(int day) const {
  return day < 0 || static_cast<std::size_t>(day) >= worked_days.size() || worked_days[static_cast<std::size_t>(day)];
}
std::optional<std::size_t> Plan::find(std::string_view id) const {
  for (std::size_t i = 0; i < jobs.size(); ++i)
    if (jobs[i].id == id) return i;
  return std::nullopt;
}

work::Day working_day_from(const build::Shop& shop, work::Day from) {
  const auto closed = [&](work::Day day) {
    return std::any_of(shop.days_off.begin(), shop.days_off.end(), [&](const build::DaysOff& off) {
      const auto begin = work::parse_day(off.from), end = off.to.empty() ? begin : work::parse_day(off.to);
      return off.who.empty() && begin && end && *begin <= day && day <= *end;
    });
  };
  for (work::Day day = from; day < from + 366; ++day) {
    const int of_week = work::weekday(day); // from Monday, 0
    if ((of_week == 5 && shop.saturdays == build::YesNo::no) || (of_week == 6 && shop.sundays == build::YesNo::no))
      continue;
    if (!closed(day)) return day;
  }
  return from;
}

int clock_minute(const Plan& plan, double hours) {
  return static_cast<int>(std::lround((hours - 24 * std::floor(hours / 24) + plan.day_from) * 60)) % 1440;
}

std::optional<int> today_of(const Plan& plan) {
  if (!plan.now) return std::nullopt;
  const int day = static_cast<int>(std::floor((*plan.now + plan.day_from) / 24 + 1e-9));
  return day < 0 ? std::nullopt : std::optional(day);
}

Message day_name(const Plan& plan, int day) {
  if (!plan.first_day) return {words("Day {0}"), {std::to_string(day + 1)}};
  constexpr const char* week[] = {words("Mon"), words("Tue"), words("Wed"), words("Thu"),
                                  words("Fri"), words("Sat"), words("Sun")};
  constexpr const char* months[] = {words("Jan"), words("Feb"), words("Mar"), words("Apr"), words("May"), words("Jun"),
                                    words("Jul"), words("Aug"), words("Sep"), words("Oct"), words("Nov"), words("Dec")};
  const work::Day date = *plan.first_day + day;
  return {words("{0} {1} {2}"),
          {week[work::weekday(date)], std::to_string(work::day_of_month(date)), months[work::month(date) - 1]}};
}

Message moment_name(const Plan& plan, double hours) {
  // Past midnight it is the next day's morning.
  const double clock = hours + plan.day_from;
  const int day = static_cast<int>(std::floor((clock + 1e-6) / 24));
  const int minute = clock_minute(plan, hours);
  return {words("{0} {1}"), {day_name(plan, day), fmt::format("{:02}:{:02}", minute / 60, minute % 60)}};
}

std::vector<std::size_t> jobs_on(const Plan& plan, int day) {
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < plan.jobs.size(); ++i)
    if (plan.planned[i].on_day(day)) out.push_back(i);
  std::stable_sort(out.begin(), out.end(),
                   [&](std::size_t a, std::size_t b) { return plan.planned[a].start < plan.planned[b].start; });
  return out;
}

std::vector<std::size_t> meanwhile(const Plan& plan, std::size_t job) {
  std::vector<std::size_t> out;
  const PlannedJob& p = plan.planned[job];
  // Of what runs by the clock it is all of it, else the wait behind it.
  const double from = plan.jobs[job].by_the_clock ? p.start : p.end, to = p.end + plan.jobs[job].wait;
  for (std::size_t i = 0; i < plan.jobs.size(); ++i)
    if (i != job && !plan.jobs[i].by_the_clock && plan.planned[i].start < to - 1e-9 &&
        plan.planned[i].end > from + 1e-9 && plan.jobs[i].state() != JobState::done)
      out.push_back(i);
  std::stable_sort(out.begin(), out.end(),
                   [&](std::size_t a, std::size_t b) { return plan.planned[a].start < plan.planned[b].start; });
  return out;
}

Expected<WhatMoves> what_moves(const PlanGiven& given, const Plan& plan, std::size_t job, double hours) {
  PlanGiven later = given;
  Job& held = later.list.jobs[job];
  if (held.state() == JobState::done)
    held.wait += hours; // what was done keeps others waiting
  else
    held.hours += hours;
  const auto moved = plan_of(later);
  if (!moved) return refuse(moved.error());
  WhatMoves out;
  out.whole = moved->shared_span - plan.shared_span;
  for (std::size_t i = 0; i < plan.planned.size(); ++i)
    if (const double by = moved->planned[i].end - plan.planned[i].end; i != job && by > 1e-6)
      out.jobs.push_back({i, by});
  std::stable_sort(out.jobs.begin(), out.jobs.end(), [&](const MovedJob& a, const MovedJob& b) {
    return plan.planned[a.job].start < plan.planned[b.job].start;
  });
  return out;
}

std::optional<double> worked_between(const Plan& plan, const work::Moment& from, const work::Moment& to) {
  if (!plan.first_day) return std::nullopt;
  const work::WorkTimes times(plan.day_to - plan.day_from, [&](int day) { return plan.worked(day); });
  const auto hours = [&](const work::Moment& m) {
    return 24.0 * (m.day - *plan.first_day) + m.minute / 60.0 - plan.day_from;
  };
  const double worked = work::hours_of(times.worked(work::ticks(hours(from)), work::ticks(hours(to)))) * 3600;
  return worked > 0 ? std::optional(worked) : std::nullopt;
}

} // namespace mavrel::assess
