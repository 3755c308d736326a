#include "app/stages/faults/odds_page.h"

#include "app/kit/half_typed.h"
#include "app/kit/list_table.h"
#include "app/stages/faults/edits.h"
#include "quantity/quantity.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using namespace assess;

namespace {

const build::FaultOften* said_of(const Desk& desk, const char* cause) {
  for (const build::FaultOften& o : desk.build().shop->faults)
    if (o.cause == cause) return &o;
  return nullptr;
}

} // namespace

OddsPage::OddsPage(Desk& desk, QWidget* parent) : Page(desk, parent), often_(new QLineEdit(this)) {
  QLabel* summary = words(nullptr, TextSize::normal);
  summary->setText(
      tr("How often each fault is before anything is known of a car, in parts of all. What this shop finds "
         "is counted on top, where it is told to."));
  column()->addWidget(summary);
  list_ = table("fault_odds", tr("How often each fault is"),
                {tr("fault"), tr("kind"), tr("usual"), tr("this shop"), tr("found"), tr("of all")});
  column()->addWidget(list_, 1);
  words_ = words("odds_words", TextSize::normal);
  column()->addWidget(words_);
  auto* line = row(column());
  QLabel* caption = small_words();
  caption->setText(tr("how often here, parts of all faults"));
  line->addWidget(caption);
  often_->setObjectName("fault_often");
  often_->setAccessibleName(caption->text());
  line->addWidget(often_);
  set_ = button(line, tr("Set"), "set_often", [this] { set(); });
  usual_ = button(line, tr("As usual"), "often_as_usual", [this] {
    if (const FaultCause* cause = held()) app::set_often(desk_, cause->key, std::nullopt);
  });
  forget_ = button(line, tr("Forget what was counted"), "forget_found", [this] {
    if (const FaultCause* cause = held()) forget_found(desk_, cause->key);
  });
  line->addStretch(1);
  connect(list_, &ListTable::chose, this, &OddsPage::say_cause);
  connect(often_, &QLineEdit::returnPressed, this, &OddsPage::set);
  connect(often_, &QLineEdit::textEdited, this, [this] { typed_for_ = held(); });
  settle_line(desk_, often_, [this] { return take(typed_for_); });
}

const FaultCause* OddsPage::held() const {
  const auto row = list_->held();
  return row && *row < fault_causes().size() ? &fault_causes()[*row] : nullptr;
}

void OddsPage::set() {
  const FaultCause* cause = often_->isModified() ? typed_for_ : held();
  often_->setModified(false); // taken once, whatever hears of the change
  if (const auto wrong = take(cause)) {
    often_->setModified(true);
    typed_for_ = cause;
    return desk_.refuse(*wrong);
  }
}

std::optional<QString> OddsPage::take(const FaultCause* cause) {
  if (!cause) return std::nullopt;
  const auto often = parse_quantity(often_->text().toStdString(), Kind::plain);
  if (!often) return desk_.words_of(often.error());
  if (!(*often >= 0 && *often <= 1000))
    return tr("“%1” is out of reason: parts from 0 to 1000 are right.").arg(often_->text().trimmed());
  set_often(desk_, cause->key, *often);
  return std::nullopt;
}

void OddsPage::say_cause() {
  const FaultCause* cause = held();
  for (QWidget* w : std::initializer_list<QWidget*>{often_, set_, usual_, forget_})
    w->setEnabled(cause);
  if (!cause) return words_->clear();
  words_->setText(desk_.words_of({cause->seen, {}}) + " " + desk_.words_of({cause->mend, {}}));
  if (often_->isModified() && typed_for_ != cause) { // another is looked at: what was typed is of the last
    often_->setModified(false);
    if (const auto wrong = take(typed_for_)) desk_.refuse(*wrong);
  }
  const build::FaultOften* said = said_of(desk_, cause->key);
  if (!often_->isModified())
    often_->setText(said && said->often ? QString::fromStdString(show_exact(*said->often, Kind::plain)) : QString());
  often_->setPlaceholderText(QString::fromStdString(show_exact(cause->often, Kind::plain)));
  forget_->setEnabled(said && said->found > 0);
  usual_->setEnabled(said && said->often);
}

void OddsPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const auto priors = shop_priors(*desk_.build().shop);
  double all = 0;
  for (const double p : priors)
    all += p;
  list_->fill(fault_causes().size(), [&](std::size_t r, ListTable::Row& row) {
    const FaultCause& cause = fault_causes()[r];
    const build::FaultOften* said = said_of(desk_, cause.key);
    const bool own = said && said->often;
    row.words(desk_.words_of({cause.name, {}}), t.ink)
        .words(desk_.words_of({family_name(cause.family), {}}), t.second)
        .figure(QString::fromStdString(show_exact(cause.often, Kind::plain)), t.second)
        .figure(own ? QString::fromStdString(show_exact(*said->often, Kind::plain)) : "–", own ? t.ink : t.second)
        .figure(said && said->found > 0 ? QString::number(said->found) : "–", t.second)
        .figure(desk_.shown(priors[r] / all, Kind::share, 1), t.ink);
  });
  say_cause();
}

} // namespace mavrel::app
