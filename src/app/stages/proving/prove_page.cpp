#include "app/stages/proving/prove_page.h"

#include "app/checks/check_edits.h"
#include "app/desk/clock.h"
#include "app/stages/proving/live_box.h"
#include "app/stages/proving/questions.h"
#include "app/stages/proving/readings_box.h"
#include "assess/proving/pointing.h"

#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::CheckState;
using assess::HoldPoint;

namespace {

std::vector<const HoldPoint*> proofs(const Desk& desk) {
  std::vector<const HoldPoint*> out;
  for (const HoldPoint& p : proofs_of(desk))
    out.push_back(&p);
  return out;
}

} // namespace

ProvePage::ProvePage(Desk& desk, QWidget* parent)
    : CheckPage(
          desk,
          {"proofs", "proof_state", "begin_proof", "proof_signed_by", "sign_proof", tr("Proof of the car"),
           tr("proof")},
          [&desk] { return proofs(desk); }, parent),
      readings_(new ReadingsBox(desk, this)), live_(new LiveBox(desk, this)) {
  points_ = rich_words("proof_points");
  inside()->insertWidget(0, points_);
  inside()->addWidget(live_);
  inside()->addWidget(readings_);
  inside()->addStretch(1);
}

void ProvePage::sign() {
  const HoldPoint* p = point();
  if (!p) return;
  const HoldPoint checked = *p;
  if (!sign_check(desk_, this, checked, signed_by(), work::moment_text(clock_now()))) return;
  const HoldPoint* after = point();
  desk_.tell(after && after->state == CheckState::failed
                 ? tr("Failed: %1. Putting it right is on the plan.").arg(desk_.words_of(checked.name))
                 : tr("Signed: %1").arg(desk_.words_of(checked.name)));
}

QString ProvePage::summary(const Points& points) const {
  if (points.empty()) return tr("Nothing is to be proved yet: choose bags in Bags and a kit in Air.");
  int passed = 0, failed = 0;
  QStringList again;
  for (const HoldPoint* p : points) {
    passed += p->state == CheckState::passed, failed += p->state == CheckState::failed;
    if (p->state == CheckState::stale) again << desk_.words_of(p->name);
  }
  QString text = tr("%1 of %2 proved").arg(passed).arg(points.size());
  if (failed > 0) text += tr(", %1 failed").arg(failed);
  text += ". ";
  if (!again.isEmpty()) text += tr("≠ To be made again: %1. ").arg(again.join(", "));
  if (desk_.answers().of_the_car<PredictQuestion>().is_running()) text += tr("Times are being predicted …");
  const auto trouble = trouble_of_predictions(desk_);
  if (!trouble.empty()) text += tr("Not predicted: %1").arg(desk_.words_of(trouble.front()));
  return text;
}

void ProvePage::fill_more(const HoldPoint* p) {
  readings_->show_check(held());
  live_->show_check(held());
  QString points;
  if (p)
    for (const assess::Pointer& one : assess::points_to(*p))
      points += QString("<p><b>%1</b>: %2<br>%3</p>")
                    .arg(desk_.words_of(one.where).toHtmlEscaped(), desk_.words_of(one.cause).toHtmlEscaped(),
                         tr("Next: %1").arg(desk_.words_of(one.next)).toHtmlEscaped());
  points_->setText(points);
  points_->setVisible(!points.isEmpty());
}

} // namespace mavrel::app
