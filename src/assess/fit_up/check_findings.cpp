#include "assess/fit_up/check_findings.h"

#include <fmt/format.h>

namespace mavrel::assess {

void tell_of_check(const FitUpGiven& given, const HoldPoint& point, const FindingRow& stale, const FindingRow& failed,
                   Findings& out) {
  if (!point.note) return;
  const build::HoldCheck& note = given.fit_up->checks[*point.note];
  const auto add = [&](const FindingRow& what, Severity severity, Message title, Message reason, Message way_out) {
    add_finding(out, what, severity, point.end,
                fmt::format("variants.{}.fit_up.checks.{}.result", given.variant, *point.note), std::move(title),
                std::move(reason), std::move(way_out));
  };
  if (point.state == CheckState::stale) {
    std::vector<Message> moved;
    for (const MovedFigure& m : point.moved) {
      const AskedFigure& f = point.figures[m.figure];
      const auto told = [&](const std::optional<double>& v, const std::optional<double>& other) -> Argument {
        if (!v) return words("nothing");
        Amount a{*v, f.kind, -1, {}};
        return other ? told_from(a, *other) : a;
      };
      if (moved.size() < 3)
        moved.push_back({words("{0}: {1}, was {2}"), {name_of_moved(f, m.what), told(m.is, m.was), told(m.was, m.is)}});
    }
    add(stale, Severity::caution, {words("Signed on other figures: {0}"), {point.name}},
        moved.empty() ? Message{words("What it reads has changed since {0} signed it; its own figures came out the "
                                      "same."),
                                {note.by}}
                      : Message{words("Since {0} signed it: {1}."), {note.by, list_of(std::move(moved))}},
        {words("Measure and sign it again."), {}});
  } else if (point.state == CheckState::failed) {
    std::vector<Message> wrong;
    for (const std::size_t i : point.wrong)
      if (wrong.size() < 3)
        wrong.push_back(
            {words("{0}: {1}"),
             {point.figures[i].name, point.figures[i].yes_no
                                         ? Argument(words("no"))
                                         : Argument(Amount{*point.measured[i], point.figures[i].kind, -1, {}})}});
    add(failed, Severity::stop, {words("Failed: {0}"), {point.name}},
        wrong.empty() ? Message{words("It was signed as failed."), {}}
                      : Message{words("Not right: {0}."), {list_of(std::move(wrong))}},
        {words("Put it right, measure and sign again; nothing behind it goes on before."), {}});
  }
}

} // namespace mavrel::assess
