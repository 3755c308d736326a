#include "app/checks/check_edits.h"

#include "app/checks/take_on.h"
#include "assess/fit_up/check_figures.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/fit_up/plan.h"

#include <algorithm>

namespace mavrel::app {

namespace {

constexpr int most_signer = 40; // letters

/// The build with a note on a check, a line for each figure in it.
build::HoldCheck* with_check(Desk& desk, build::Build& build, const assess::HoldPoint& point) {
  auto& checks = build.variant().fit_up.own().checks;
  auto found = std::find_if(checks.begin(), checks.end(), [&](const auto& c) { return c.check == point.id; });
  if (found == checks.end()) {
    if (checks.size() >= build::most_hold_checks) {
      desk.tell(Desk::tr("%1 checks are the most that are kept.").arg(build::most_hold_checks));
      return nullptr;
    }
    build::HoldCheck made;
    made.check = point.id;
    checks.push_back(std::move(made));
    found = std::prev(checks.end());
  }
  std::vector<build::CheckFigure> figures;
  for (const assess::AskedFigure& f : point.figures) {
    const auto old =
        std::find_if(found->figures.begin(), found->figures.end(), [&](const auto& g) { return g.what == f.key; });
    build::CheckFigure figure;
    figure.what = f.key;
    figures.push_back(old == found->figures.end() ? figure : *old);
  }
  found->figures = std::move(figures);
  return &*found;
}

} // namespace

bool is_of_proof(const Desk& desk, const QString& path) {
  const QStringList steps = desk.resolve(path).split('.');
  const int at = static_cast<int>(steps.indexOf("checks"));
  if (at < 1 || steps[at - 1] != "fit_up" || at + 1 >= steps.size()) return false;
  const auto& checks = desk.build().variant().fit_up->checks;
  const std::size_t place = steps[at + 1].toUInt();
  if (place >= checks.size()) return false;
  const assess::CheckRow* row = assess::row_of_check(checks[place].check).first;
  return row && row->stage == assess::CheckStage::proving;
}

void begin_check(Desk& desk, const assess::HoldPoint& point) {
  build::Build build = desk.build();
  build::HoldCheck* check = with_check(desk, build, point);
  if (!check) return;
  check->result = build::CheckResult::open;
  desk.edit(Desk::tr("Start a check"), std::move(build));
}

void tick_figure(Desk& desk, const assess::HoldPoint& point, std::size_t figure, bool yes) {
  build::Build build = desk.build();
  build::HoldCheck* check = with_check(desk, build, point);
  if (!check || figure >= check->figures.size()) return;
  check->figures[figure].number = yes ? 1 : 0;
  desk.edit(Desk::tr("Answer a check"), std::move(build));
}

void measure_figures(Desk& desk, const assess::HoldPoint& point,
                     const std::vector<std::pair<std::size_t, double>>& measured) {
  build::Build build = desk.build();
  build::HoldCheck* check = with_check(desk, build, point);
  if (!check || measured.empty()) return;
  check->result = build::CheckResult::open;
  for (const auto& [place, value] : measured)
    if (place < check->figures.size()) check->figures[place] = assess::figure_of(point.figures[place], value);
  desk.edit(Desk::tr("Measure for a check"), std::move(build));
}

bool keep_series(Desk& desk, const assess::HoldPoint& point, std::vector<build::ProofSeries> series) {
  build::Build build = desk.build();
  build::HoldCheck* check = with_check(desk, build, point);
  if (!check || series.empty()) return false;
  check->result = build::CheckResult::open;
  auto& all = build.variant().proving.own().series;
  for (build::ProofSeries& one : series) {
    one.check = point.id;
    std::erase_if(all, [&](const build::ProofSeries& s) { return s.check == one.check && s.gauge == one.gauge; });
    all.push_back(std::move(one));
  }
  if (all.size() > build::most_series) {
    desk.tell(Desk::tr("%1 series of readings are the most that are kept.").arg(build::most_series));
    return false;
  }
  desk.edit(Desk::tr("Readings of a check"), std::move(build));
  return true;
}

bool sign_check(Desk& desk, QWidget* asks, const assess::HoldPoint& point, const QString& by,
                const std::string& moment) {
  build::Build build = desk.build();
  build::HoldCheck* check = with_check(desk, build, point);
  if (!check) return false;
  auto done = assess::signed_check(point, *check, desk.build().variant().proving->series,
                                   by.trimmed().left(most_signer).toStdString(), moment);
  if (!done) {
    desk.tell(desk.words_of(done.error()));
    return false;
  }
  const assess::PlanGiven plan = assess::plan_given(desk.assessment().fit_up.given(), std::nullopt);
  if (const auto missing = assess::missing_before_check(plan, point.id); !missing.empty()) {
    const auto taken = ask_to_take_on(asks, desk, Desk::tr("Sign “%1”").arg(desk.words_of(point.name)), missing);
    if (!taken) {
      desk.tell(Desk::tr("Not signed: %1.").arg(desk.words_of(missing.front())));
      return false;
    }
    done->taken_by = taken->by.toStdString(), done->taken_why = taken->why.toStdString();
  }
  *check = std::move(*done);
  desk.edit(Desk::tr("Sign a check"), std::move(build));
  return true;
}

} // namespace mavrel::app
