#include "app/shell/next_line.h"

#include "app/desk/clock.h"
#include "app/desk/desk.h"
#include "app/kit/plain.h"
#include "app/theme/look.h"

#include <QHBoxLayout>
#include <QPushButton>

namespace mavrel::app {

namespace {

assess::NextGiven given_of(const Desk& desk) {
  return {desk.build(), desk.assessment(), desk.shelf(), clock_now(), {}};
}

} // namespace

NextLine::NextLine(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), caption_(new PlainLabel(tr("Next"), this)), why_(new PlainLabel(this)),
      what_(new QPushButton(this)), later_(new QPushButton(tr("Put off"), this)) {
  setObjectName("next_line");
  setAttribute(Qt::WA_StyledBackground);
  auto* row = new QHBoxLayout(this);
  const int u = desk_.look().unit();
  row->setContentsMargins(2 * u, 0, u, 0);
  row->setSpacing(u);
  caption_->setProperty("quiet", true);
  why_->setProperty("quiet", true);
  row->addWidget(caption_);
  row->addWidget(what_);
  row->addWidget(why_);
  row->addStretch(1);
  row->addWidget(later_);
  what_->setObjectName("next_step");
  what_->setProperty("plain", true);
  later_->setObjectName("put_off");
  later_->setProperty("plain", true);
  later_->setToolTip(tr("Leave this and show what comes after it. What was put off comes again from the Edit menu."));
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed); // words give way, no page does
  connect(what_, &QPushButton::clicked, this, &NextLine::take);
  connect(later_, &QPushButton::clicked, this, &NextLine::put_off);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &NextLine::refresh);
  refresh();
}

void NextLine::refresh() {
  const Look& look = desk_.look();
  for (QWidget* one : {static_cast<QWidget*>(caption_), static_cast<QWidget*>(why_), static_cast<QWidget*>(later_)})
    one->setFont(look.font(TextSize::small));
  what_->setFont(look.font(TextSize::normal, true));
  step_ = assess::next_step(given_of(desk_));
  what_->setVisible(step_.has_value());
  later_->setVisible(step_.has_value());
  if (step_) {
    const QString what = desk_.words_of(step_->what), why = desk_.words_of(step_->why);
    what_->setText(on_button(what));
    what_->setAccessibleName(tr("Next: %1").arg(what));
    what_->setAccessibleDescription(why);
    why_->setText(why);
  } else {
    why_->setText(desk_.build().job.put_off.empty()
                      ? tr("Nothing waits: everything is done for now.")
                      : tr("Nothing else waits. What was put off comes again from the Edit menu."));
  }
  arrange();
}

/// The reason stands beside the step where it has room, else in the step's tip: it is never cut.
void NextLine::arrange() {
  const int u = desk_.look().unit();
  if (step_) what_->setText(on_button(desk_.words_of(step_->what)));
  int taken = 6 * u;
  for (QWidget* one : {static_cast<QWidget*>(caption_), static_cast<QWidget*>(what_), static_cast<QWidget*>(later_)})
    if (one->isVisibleTo(this)) taken += one->sizeHint().width() + u;
  why_->setVisible(why_->sizeHint().width() + taken <= width());
  if (!step_) return;
  // A step longer than the row, in large text, ends in “…”: its tip has all of it.
  const QString what = desk_.words_of(step_->what);
  int room = width() - 6 * u - caption_->sizeHint().width() - later_->sizeHint().width();
  if (const int around = what_->sizeHint().width() - what_->fontMetrics().horizontalAdvance(what_->text()); around > 0)
    room -= around;
  const QString fits = what_->fontMetrics().elidedText(what, Qt::ElideRight, std::max(0, room));
  what_->setText(on_button(fits));
  const QString why = desk_.words_of(step_->why);
  const QString tip = fits == what ? why : what + '\n' + why;
  what_->setToolTip(tip.isEmpty() ? tr("Ctrl+Enter") : tr("%1\nCtrl+Enter").arg(tip));
}

void NextLine::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  arrange();
}

void NextLine::take() {
  if (!step_) return;
  const assess::NextStep step = *step_; // an edit makes another one
  if (auto built = assess::done(given_of(desk_), step)) {
    desk_.edit(desk_.words_of(step.what), std::move(*built));
    return;
  }
  emit desk_.went_to(step.stage->key, QString::fromStdString(step.place));
}

void NextLine::put_off() {
  if (step_) desk_.edit(tr("Put off: %1").arg(desk_.words_of(step_->what)), assess::put_off(desk_.build(), *step_));
}

void NextLine::take_up() {
  if (desk_.build().job.put_off.empty()) return desk_.tell(tr("Nothing was put off."));
  desk_.edit(tr("Show again what was put off"), assess::taken_up(desk_.build()));
}

} // namespace mavrel::app
