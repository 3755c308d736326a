// The jobs of a design: what its rules, the shop's habits and the shop itself ask for, each with what comes before it.
#pragma once

#include "assess/fit_up/job_rules.h"

namespace mavrel::assess {

enum class JobFrom { rule, habit, own, repair };

struct Job {
  std::string id; // `rear.tack`, `lines`, `habit.0`, `own.2`, `repair.rear.gaps`
  JobFrom from = JobFrom::rule;
  Message name;
  std::optional<End> end;
  double hours = 0, wait = 0; // h; of what runs by the clock, h of the clock
  int people = 1;
  build::Skill skill = build::Skill::none;
  build::WorkPlace place = build::WorkPlace::none;
  CarUse car = CarUse::none;
  bool by_the_clock = false;
  std::vector<std::string> after; // ids of jobs that are there: what is skipped or not asked for is passed through
  Message why, tools, parts;
  std::string sheet;               // template it is cut by
  std::vector<std::string> checks; // ids of hold points: `rear.gaps`
  build::JobNote note;             // what the shop says of it; blank where it says nothing
  std::size_t note_index = no_note;
  bool hours_told = false, hours_learned = false; // instead of the rule's

  static constexpr std::size_t no_note = static_cast<std::size_t>(-1);
  [[nodiscard]] build::JobState state() const { return note.state; }
};

struct JobList {
  std::vector<Job> jobs; // in the rules' order, then the shop's own
  std::vector<Job> skipped;
  std::vector<Message> mistakes; // of what the shop typed: ids that no job has, days that are none
};
/// What parts each group waits for, h of the clock from the first morning: front, rear, kit. From the parts list.
struct PartsWait {
  std::array<double, 3> hours{};
};
/// @param wait  for parts that are to come
/// Source: docs/models.md, "Jobs".
[[nodiscard]] JobList jobs_of(const FitUpGiven& given, const PartsWait& wait);

/// An id that none of the plan's own jobs has yet: `own.3`.
[[nodiscard]] std::string free_own_id(const build::FitUp& plan);
/// Words typed with commas or spaces between, `-` for none at all.
[[nodiscard]] std::vector<std::string> ids_in(const std::string& typed);

} // namespace mavrel::assess
