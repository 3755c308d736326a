#include "assess/care/care_findings.h"

#include "assess/care/care_plan.h"
#include "assess/fit_up/checks.h"
#include "build/proving.h"
#include "work/day.h"

#include <fmt/format.h>

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr FindingRow rows[] = {
    {"care_unproved", &stages::care},
    {"care_other_car", &stages::car_in},
    {"care_log_day", &stages::care},
    {"care_typed", &stages::care},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

} // namespace

const std::span<const FindingRow> care_finding_rows = rows;

Findings find_in_care(const CareGiven& given) {
  Findings out;
  if (work::parse_day(given.care->from) && given.fit_up.proving->handed_over.empty()) {
    // On the road without a hand-over: what is not proved is not driven.
    std::size_t proofs = 0, stand = 0;
    std::vector<Message> some;
    for (const HoldPoint& p : hold_points(given.fit_up)) {
      if (!is_proof(p)) continue;
      ++proofs;
      if (p.state == CheckState::passed)
        ++stand;
      else if (some.size() < 4)
        some.push_back(p.name);
    }
    if (stand < proofs)
      add_finding(
          out, row("care_unproved"), Severity::stop, std::nullopt, "care.from",
          {words("On the road and not proved"), {}},
          {words("{0} of {1} proofs stand; among those that do not: {2}."),
           {std::to_string(stand), std::to_string(proofs), list_of(std::move(some))}},
          {words("Prove them on Proving and hand the car over, or clear the day it is on the road since."), {}});
  }
  if (!given.taken.empty()) {
    std::vector<Message> some;
    for (const StillTaken& t : given.taken)
      if (some.size() < 4) some.push_back(t.name);
    const bool usual = given.from_number.empty() && given.from_car.empty();
    const Message whose = given.from_number.empty() ? Message{words("{0}"), {given.from_car}}
                                                    : Message{words("{0} ({1})"), {given.from_car, given.from_number}};
    add_finding(
        out, row("care_other_car"), Severity::caution, std::nullopt,
        fmt::format("origin.taken.{}.path", given.taken.front().place),
        {usual ? words("Usual figures stand here: {0}") : words("Figures of another car stand here: {0}"),
         {std::to_string(given.taken.size())}},
        usual
            ? Message{words("Usual of such a car, not measured on this one: {0}, for one."), {list_of(std::move(some))}}
        : given.taken.size() > some.size()
            ? Message{words("From {0}, not measured on this one: {1} and more."), {whose, list_of(std::move(some))}}
            : Message{words("From {0}, not measured on this one: {1}."), {whose, list_of(std::move(some))}},
        {words("Measure them here, or confirm on Care that they are the same."), {}});
  }
  for (std::size_t i = 0; i < given.care->log.size(); ++i)
    if (const build::LogEntry& e = given.care->log[i]; !work::parse_moment(e.day)) {
      add_finding(out, row("care_log_day"), Severity::caution, std::nullopt, fmt::format("care.log.{}.day", i),
                  {words("An entry of the log has no day"), {}},
                  {words("“{0}” is none of the calendar’s, and the entry counts for nothing."), {e.day}},
                  {words("A day such as 2026-11-26, with a time or without."), {}});
      break; // one is enough to be taken there
    }
  const auto typed = [&](const std::string& field, const Message& why) {
    add_finding(out, row("care_typed"), Severity::caution, std::nullopt, "care." + field,
                {words("Something of the care can’t be read"), {}}, why, {words("Type it as it is shown."), {}});
  };
  if (!given.care->from.empty() && !work::parse_day(given.care->from))
    typed("from", {words("“{0}” is no day. One such as 2026-11-26 is right."), {given.care->from}});
  for (std::size_t i = 0; i < given.care->intervals.size(); ++i)
    if (const auto& one = given.care->intervals[i]; !care_task(one.task)) {
      typed(fmt::format("intervals.{}.task", i), {words("“{0}” is no task that comes round."), {one.task}});
      break;
    }
  return out;
}

} // namespace mavrel::assess
