#include "app/stages/faults/odds_page.h"

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

OddsPage::OddsPage(Desk& desk, QWidget* parent)
    : PlainPage(desk, parent), summary_(new QLabel(this)), words_(new QLabel(this)),
      list_(list_table("fault_odds", tr("How often each fault is"),
                       {tr("fault"), tr("kind"), tr("usual"), tr("this shop"), tr("found"), tr("of all")}, this)),
      often_(new QLineEdit(this)), set_(new QPushButton(tr("Set"), this)),
      usual_(new QPushButton(tr("As usual"), this)), forget_(new QPushButton(tr("Forget what was counted"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  list_->setWordWrap(false);
  both->addWidget(list_, 1);
  words_->setWordWrap(true);
  both->addWidget(words_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  auto* caption = new QLabel(tr("how often here, parts of all faults"), this);
  row->addWidget(caption);
  often_->setObjectName("fault_often");
  often_->setAccessibleName(caption->text());
  row->addWidget(often_);
  set_->setObjectName("set_often");
  usual_->setObjectName("often_as_usual");
  forget_->setObjectName("forget_found");
  for (QPushButton* button : {set_, usual_, forget_})
    row->addWidget(button);
  row->addStretch(1);
  both->addLayout(row);
  connect(list_, &QTableWidget::currentCellChanged, this, &OddsPage::say_cause);
  connect(set_, &QPushButton::clicked, this, &OddsPage::set);
  connect(often_, &QLineEdit::returnPressed, this, &OddsPage::set);
  connect(usual_, &QPushButton::clicked, this, [this] {
    if (const int r = list_->currentRow(); r >= 0)
      set_often(desk_, fault_causes()[static_cast<std::size_t>(r)].key, std::nullopt);
  });
  connect(forget_, &QPushButton::clicked, this, [this] {
    if (const int r = list_->currentRow(); r >= 0) forget_found(desk_, fault_causes()[static_cast<std::size_t>(r)].key);
  });
  refresh();
}

void OddsPage::set() {
  const int r = list_->currentRow();
  if (r < 0) return;
  const auto often = parse_quantity(often_->text().toStdString(), Kind::plain);
  if (!often) return desk_.tell(desk_.words_of(often.error()));
  if (!(*often >= 0 && *often <= 1000))
    return desk_.tell(tr("“%1” is out of reason: parts from 0 to 1000 are right.").arg(often_->text().trimmed()));
  set_often(desk_, fault_causes()[static_cast<std::size_t>(r)].key, *often);
}

void OddsPage::say_cause() {
  const int r = list_->currentRow();
  const bool any = r >= 0;
  for (QWidget* w : std::initializer_list<QWidget*>{often_, set_, usual_, forget_})
    w->setEnabled(any);
  if (!any) return words_->clear();
  const FaultCause& cause = fault_causes()[static_cast<std::size_t>(r)];
  words_->setText(desk_.words_of({cause.seen, {}}) + " " + desk_.words_of({cause.mend, {}}));
  const build::FaultOften* said = said_of(desk_, cause.key);
  often_->setText(said && said->often ? QString::fromStdString(show_exact(*said->often, Kind::plain)) : QString());
  often_->setPlaceholderText(QString::fromStdString(show_exact(cause.often, Kind::plain)));
  forget_->setEnabled(said && said->found > 0);
  usual_->setEnabled(said && said->often);
}

void OddsPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const auto priors = shop_priors(*desk_.build().shop);
  double all = 0;
  for (const double p : priors)
    all += p;
  list_->setFont(desk_.look().font(TextSize::small));
  {
    const QSignalBlocker quiet(list_);
    const int held = std::max(0, list_->currentRow());
    list_->setRowCount(static_cast<int>(fault_causes().size()));
    for (int r = 0; r < list_->rowCount(); ++r) {
      const FaultCause& cause = fault_causes()[static_cast<std::size_t>(r)];
      const build::FaultOften* said = said_of(desk_, cause.key);
      put_cell(list_, r, 0, desk_.words_of({cause.name, {}}), t.ink);
      put_cell(list_, r, 1, desk_.words_of({family_name(cause.family), {}}), t.second, true);
      put_cell(list_, r, 2, QString::fromStdString(show_exact(cause.often, Kind::plain)), t.second);
      put_cell(list_, r, 3, said && said->often ? QString::fromStdString(show_exact(*said->often, Kind::plain)) : "–",
               said && said->often ? t.ink : t.second);
      put_cell(list_, r, 4, said && said->found > 0 ? QString::number(said->found) : "–", t.second);
      put_cell(list_, r, 5, desk_.shown(priors[static_cast<std::size_t>(r)] / all, Kind::share, 1), t.ink);
    }
    list_->setCurrentCell(held, 0);
  }
  summary_->setText(
      tr("How often each fault is before anything is known of a car, in parts of all. What this shop finds "
         "is counted on top, where it is told to."));
  say_cause();
}

} // namespace mavrel::app
