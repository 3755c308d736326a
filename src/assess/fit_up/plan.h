// The plan: the jobs of a design in their order, on the days of the shop, with who does what.
#pragma once

#include "assess/fit_up/checks.h"
#include "assess/fit_up/jobs.h"
#include "work/day.h"
#include "work/schedule.h"

namespace mavrel::assess {

/// How a job stands, beyond what the shop says of it.
enum class JobStands {
  waiting, // something before it is not done
  ready,   // it may begin
  held,    // what is before it is done, and a check behind that has failed or is not signed
  running,
  done,
};
[[nodiscard]] const char* name_of(JobStands stands);

struct PlannedJob {
  work::PathTask path;       // unshared, round the clock, h
  double start = 0, end = 0; // h of the clock since the first morning; the end is that of its work
  std::vector<std::string> who;
  JobStands stands = JobStands::waiting;
  std::optional<Message> held_by; // the check
  /// A part of it lies on this day, counted from 0.
  [[nodiscard]] bool on_day(int day) const {
    return start < 24.0 * (day + 1) && (end > 24.0 * day || start >= 24.0 * day);
  }
};

/// All that a plan is made from.
struct PlanGiven {
  JobList list;
  std::vector<std::pair<std::string, CheckState>> checks; // of hold points, by id
  Shared<build::Shop> shop;
  std::optional<work::Moment> now; // nothing begins before; none: from the first morning
};

struct Plan {
  std::vector<Job> jobs;
  std::vector<PlannedJob> planned;    // one a job
  std::vector<Message> mistakes;      // what was typed wrong and is not counted; the plan stands without
  std::optional<work::Day> first_day; // none: days are only counted
  double day_from = 8, day_to = 17;   // h of the clock
  std::optional<double> now;          // h since the first morning, within the plan's days
  double span = 0, shared_span = 0;   // h: unshared; with people and places shared, nights included
  double work_hours = 0;              // h of people, all jobs together
  bool proven = false;                // nothing shorter is possible
  std::vector<work::Resource> places; // with how many jobs at once
  [[nodiscard]] int days() const;     // that it reaches over
  /// Does somebody work on this day of the plan?
  [[nodiscard]] bool worked(int day) const;
  std::vector<char> worked_days; // one a day
  [[nodiscard]] std::optional<std::size_t> find(std::string_view id) const;
};
/// @returns the plan; or the circle, or the job that nobody can do
/// Source: docs/models.md, "Order of jobs", "Jobs on days".
[[nodiscard]] Expected<Plan> plan_of(const PlanGiven& given);
/// Why there can be no plan, without making one; none: there can.
[[nodiscard]] std::optional<Message> plan_trouble(const PlanGiven& given);
[[nodiscard]] PlanGiven plan_given(const FitUpGiven& given, std::optional<work::Moment> now);

/// What must be true before a job is begun or done, and is not: jobs before it that are not done, checks of those that
/// have not passed. Work stops there until it is true, or somebody takes it on by name.
/// Source: docs/models.md, "Hold points".
[[nodiscard]] std::vector<Message> missing_before(const PlanGiven& given, std::string_view job);
/// The same before a check is signed: what its own job waits for.
[[nodiscard]] std::vector<Message> missing_before_check(const PlanGiven& given, std::string_view check);
/// Jobs that were gone on with and checks that were signed although something was missing, who took it on and why.
[[nodiscard]] std::vector<Message> taken_on(const FitUpGiven& given);

/// The first day from one on that the whole shop works, by its week and its days off; that day itself where a year of
/// days off stands behind it.
[[nodiscard]] work::Day working_day_from(const build::Shop& shop, work::Day from);

/// A day of the plan for people: `Mon 30 Nov`, or `Day 1` where it has no dates.
[[nodiscard]] Message day_name(const Plan& plan, int day);
/// `Mon 30 Nov 10:30`
[[nodiscard]] Message moment_name(const Plan& plan, double hours);
/// The clock of a moment of the plan, minutes since midnight.
[[nodiscard]] int clock_minute(const Plan& plan, double hours);

/// Today by the calendar, as a day of the plan: before work begins too, when the plan's own day is still yesterday's.
/// @returns none where the plan has no dates or begins later
[[nodiscard]] std::optional<int> today_of(const Plan& plan);

/// What is done, or goes on, on a day, in the order it begins.
[[nodiscard]] std::vector<std::size_t> jobs_on(const Plan& plan, int day);
/// Jobs that go on while another's wait passes: while its paint dries.
[[nodiscard]] std::vector<std::size_t> meanwhile(const Plan& plan, std::size_t job);

/// What a job that takes longer, or comes later, moves.
struct MovedJob {
  std::size_t job = 0;
  double later = 0; // h of the clock
};
struct WhatMoves {
  std::vector<MovedJob> jobs; // those that end later than they did, in their order
  double whole = 0;           // h that the whole ends later
};
/// @param hours  h more that the job takes
[[nodiscard]] Expected<WhatMoves> what_moves(const PlanGiven& given, const Plan& plan, std::size_t job, double hours);

/// s of the shop's hours that were worked between two moments. @returns none where the plan has no dates, or nothing
/// was
[[nodiscard]] std::optional<double> worked_between(const Plan& plan, const work::Moment& from, const work::Moment& to);

} // namespace mavrel::assess
