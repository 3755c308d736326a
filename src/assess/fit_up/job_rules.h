// What a design asks to be done: one row a job. A shop's habit is a row of the same kind.
#pragma once

#include "assess/fit_up/features.h"

#include <span>

namespace mavrel::assess {

/// Is a job done once, or at each end that asks for it?
enum class JobScope { car, end };
/// What of the car a job takes: nothing, a place beside others, or all of it: nobody knocks what is tacked.
enum class CarUse { none, shared, alone };
/// What some jobs take longer for, each.
enum class JobCounts { nothing, circuits, links, wires };

struct JobRule {
  const char* key;  // `tack`; ids are `rear.tack`, or the key alone of a car's job
  const char* name; // for people
  JobScope scope;
  FeatureSet when, unless; // all of the first, none of the second
  double hours, each;      // h; and h more for each of what it counts
  JobCounts counts;
  int people;
  build::Skill skill;
  build::WorkPlace place;
  CarUse car;
  double wait;       // h of the clock after it
  bool by_the_clock; // it runs on through the night
  const char* after; // keys, with spaces; of an end's job the same end's, of a car's job both ends'
  const char* why;   // why it comes now
  const char* tools;
  const char* parts;  // what must be there; empty: nothing
  const char* sheet;  // key of the template it is cut by; empty: none
  const char* checks; // keys of hold points after it, with spaces
};

/// In working order.
[[nodiscard]] std::span<const JobRule> job_rules();
/// @returns the row; none of that key
[[nodiscard]] const JobRule* job_rule(std::string_view key);

} // namespace mavrel::assess
