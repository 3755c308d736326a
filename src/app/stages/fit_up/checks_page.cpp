#include "app/stages/fit_up/checks_page.h"

#include "app/checks/check_edits.h"
#include "app/stages/fit_up/questions.h"

#include <QVBoxLayout>

namespace mavrel::app {

using assess::CheckState;
using assess::HoldPoint;

namespace {

/// Those that stop the work; the proof of the whole car is Proving's.
std::vector<const HoldPoint*> hold_points(const Desk& desk) {
  std::vector<const HoldPoint*> out;
  for (const HoldPoint& p : checks_of(desk))
    if (p.row->stage != assess::CheckStage::proving) out.push_back(&p);
  return out;
}

} // namespace

ChecksPage::ChecksPage(Desk& desk, QWidget* parent)
    : CheckPage(
          desk,
          {"hold_points", "check_state", "begin_check", "signed_by", "sign_check", tr("Hold points"), tr("hold point")},
          [&desk] { return hold_points(desk); }, parent) {
  inside()->addStretch(1);
}

QString ChecksPage::summary(const Points& points) const {
  if (points.empty()) return tr("Nothing is to be checked yet: choose bags in Bags.");
  const auto those = [&](CheckState state) {
    return std::count_if(points.begin(), points.end(), [state](const HoldPoint* p) { return p->state == state; });
  };
  return tr("%1 hold points: %2 signed, %3 stale, %4 failed. A signature holds the figures it was made on; when what "
            "they come from changes it asks again by itself.")
      .arg(points.size())
      .arg(those(CheckState::passed))
      .arg(those(CheckState::stale))
      .arg(those(CheckState::failed));
}

void ChecksPage::sign() {
  const HoldPoint* p = point();
  if (!p) return;
  const auto now = now_in_plan(desk_);
  const HoldPoint checked = *p;
  const auto before = plan_of(desk_);
  if (!sign_check(desk_, this, checked, signed_by(), now ? work::moment_text(*now) : std::string())) return;
  const HoldPoint* after = point();
  if (!after || after->state != CheckState::failed)
    return desk_.tell(tr("Signed: %1").arg(desk_.words_of(checked.name)));
  // What the failed check moves.
  const auto& plan = plan_of(desk_);
  if (!before || !plan) return desk_.tell(tr("Failed: %1").arg(desk_.words_of(checked.name)));
  int moved = 0;
  for (std::size_t i = 0; i < plan->jobs.size(); ++i)
    if (const auto was = before->find(plan->jobs[i].id))
      moved += plan->planned[i].end > before->planned[*was].end + 1e-6;
  const double later = plan->shared_span - before->shared_span;
  desk_.tell(tr("Failed: %1. Putting it right is on the plan; it moves %2 jobs, %3.")
                 .arg(desk_.words_of(checked.name))
                 .arg(moved)
                 .arg(later < 0.05 ? tr("and they end no later")
                                   : tr("the end by %1").arg(desk_.shown(later * 3600, Kind::hours, 1))));
}

} // namespace mavrel::app
