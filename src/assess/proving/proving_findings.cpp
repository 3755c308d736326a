#include "assess/proving/proving_findings.h"

#include "assess/fit_up/check_findings.h"
#include "assess/proving/hand_over.h"
#include "assess/proving/series.h"
#include "work/day.h"

#include <fmt/format.h>

namespace mavrel::assess {

namespace {

constexpr FindingRow rows[] = {
    {"proving_stale", &stages::proving},    {"proving_failed", &stages::proving},
    {"proving_unproved", &stages::proving}, {"proving_readings", &stages::proving},
    {"proving_learned", &stages::proving},  {"proving_typed", &stages::proving},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

} // namespace

const std::span<const FindingRow> proving_finding_rows = rows;

Findings find_in_proving(const FitUpGiven& given) {
  Findings out;
  const build::Proving& proving = *given.proving;
  const auto field = [&](const std::string& rest) {
    return fmt::format("variants.{}.proving.{}", given.variant, rest);
  };
  if (!given.fit_up->checks.empty() || !proving.handed_over.empty()) {
    std::vector<Message> open;
    for (const HoldPoint& point : hold_points(given)) {
      if (!is_proof(point)) continue;
      if (point.row->stage == CheckStage::proving)
        tell_of_check(given, point, row("proving_stale"), row("proving_failed"), out);
      if (point.state != CheckState::passed) open.push_back(point.name);
    }
    if (!proving.handed_over.empty() && !open.empty()) {
      const std::size_t count = open.size();
      if (open.size() > 3) open.resize(3);
      add_finding(out, row("proving_unproved"), Severity::stop, std::nullopt, field("handed_over"),
                  {words("Handed over, and not proved"), {}},
                  count > 3 ? Message{words("{0} checks do not stand, among them {1}."),
                                      {std::to_string(count), list_of(std::move(open))}}
                            : Message{words("Not standing: {0}."), {list_of(std::move(open))}},
                  {words("Call the car back for them; until they pass it is not to be driven."), {}});
    }
  }
  if (!proving.handed_over.empty() && !work::parse_day(proving.handed_over))
    add_finding(out, row("proving_typed"), Severity::caution, std::nullopt, field("handed_over"),
                {words("The day of the hand-over can’t be read"), {}},
                {words("“{0}” is no day. One such as 2026-12-18 is right."), {proving.handed_over}},
                {words("Type it as it is shown."), {}});
  for (std::size_t i = 0; i < proving.series.size(); ++i)
    if (const auto trouble = trouble_of(proving.series[i]))
      add_finding(out, row("proving_readings"), Severity::caution, std::nullopt,
                  field(fmt::format("series.{}.from", i)), {words("Readings out of order"), {}}, *trouble,
                  {words("Times that go on, the first at 0."), {}});
  if (!proving.learned.empty()) {
    HandOver said = hand_over(given, {}, std::nullopt);
    if (said.learned.size() > 4) said.learned.resize(4);
    add_finding(out, row("proving_learned"), Severity::note, std::nullopt, field("learned.0.by"),
                {words("Predictions follow this car"), {}},
                {words("Learned from what was measured: {0}."), {list_of(std::move(said.learned))}},
                {words("Forget it on Proving, and they are the design’s again."), {}});
  }
  return out;
}

} // namespace mavrel::assess
