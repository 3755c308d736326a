#include "app/stages/fit_up/schools_page.h"

#include "app/kit/paged_stage.h"
#include "app/stages/fit_up/answers.h"

#include <QFrame>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::SchoolCard;

SchoolsPage::SchoolsPage(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : QWidget(parent), desk_(desk), answers_(answers), answer_(desk.runner(), [this] { refresh(); }),
      summary_(new QLabel(this)), cards_(new QWidget(this)), column_(nullptr), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* column = new QVBoxLayout;
  column->setContentsMargins(0, 0, u, 0);
  column->setSpacing(u);
  whole->addLayout(column, 1);
  whole->addWidget(beside_);
  summary_->setWordWrap(true);
  column->addWidget(summary_);
  cards_->setObjectName("school_cards");
  column_ = new QVBoxLayout(cards_);
  column_->setContentsMargins(0, 0, 0, 0);
  column->addWidget(scrolled(cards_, this), 1);
  connect(&desk_, &Desk::changed, this, &SchoolsPage::ask);
  connect(&desk_, &Desk::restyled, this, &SchoolsPage::refresh);
  refresh();
}

void SchoolsPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}
bool SchoolsPage::go_to(const QString&) {
  return false;
}

void SchoolsPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

void SchoolsPage::ask() {
  if (!isVisible()) return;
  // The hour of the day moves no school: the plan is reckoned from its first morning.
  assess::SchoolsGiven now{desk_.build(), desk_.shelf(), std::nullopt};
  if (!answer_.was_asked() || answer_.keep_only_for(now)) return answer_.ask(std::move(now));
  refresh();
}

void SchoolsPage::take(std::string key, std::size_t way) {
  const auto made = assess::with_school(desk_.build(), desk_.shelf(), key, way);
  if (!made) return desk_.tell(desk_.words_of(made.error()));
  desk_.edit(tr("Go the other way"), *made);
}

void SchoolsPage::refresh() {
  summary_->setFont(desk_.look().font(TextSize::normal));
  if (answer_.answer() && *answer_.answer()) shown_ = **answer_.answer();
  summary_->setText(
      answer_.is_running() ? tr("Both ways of each are worked out on this car …")
      : answer_.trouble()  ? desk_.words_of(*answer_.trouble())
      : shown_ && shown_->cards.empty()
          ? tr("Nothing is decided yet: choose bags in Bags and a kit in Air.")
          : tr("Both ways of what builders disagree on, worked out on this very car. ● is the way it goes."));
  if (shown_) build_cards();
}

void SchoolsPage::build_cards() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  if (page_) {
    page_->hide();
    page_->deleteLater();
  }
  page_ = new QWidget(cards_);
  auto* grid = new QVBoxLayout(page_);
  grid->setContentsMargins(0, 0, look.unit(), 0);
  grid->setSpacing(look.unit());
  const auto word = [&](const char* text) { return desk_.words_of({text, {}}); };
  for (const SchoolCard& card : shown_->cards) {
    auto* frame = new QWidget(page_);
    frame->setObjectName(QString("school_%1").arg(card.row->key));
    auto* cell = new QGridLayout(frame);
    cell->setContentsMargins(0, 0, 0, look.unit() / 2);
    cell->setHorizontalSpacing(look.unit() * 2);
    cell->setVerticalSpacing(look.px(2));
    auto* line = new QFrame(frame);
    line->setFrameShape(QFrame::HLine);
    cell->addWidget(line, 0, 0, 1, 3);
    const auto label = [&](const QString& text, int row, int column, bool bold, const QColor& ink,
                           TextSize size = TextSize::small) {
      auto* made = new QLabel(text, frame);
      made->setFont(look.font(size, bold));
      made->setWordWrap(true);
      QPalette palette = made->palette();
      palette.setColor(QPalette::WindowText, ink);
      made->setPalette(palette);
      cell->addWidget(made, row, column, Qt::AlignTop);
      return made;
    };
    label(word(card.row->name), 1, 0, true, t.ink, TextSize::normal);
    for (std::size_t way = 0; way < 2; ++way) {
      const int c = static_cast<int>(way) + 1;
      label((way == card.taken ? "● " : "○ ") + word(card.row->ways[way]), 1, c, way == card.taken, t.ink,
            TextSize::normal);
    }
    int row = 2;
    for (const assess::SchoolCost& cost : card.costs) {
      const assess::CostRow& what = assess::row_of(cost.what);
      label(word(what.name), row, 0, false, t.second);
      for (std::size_t way = 0; way < 2; ++way) {
        const auto& v = cost.figure[way];
        const auto& other = cost.figure[1 - way];
        const bool of_days = what.what == assess::CostOf::days || what.what == assess::CostOf::stands;
        const bool fine = what.what == assess::CostOf::load_drop || what.what == assess::CostOf::hours ||
                          what.what == assess::CostOf::burst;
        const QString money = QString::fromStdString(desk_.build().shop->money);
        const QString text = !v                                   ? tr("not known")
                             : of_days                            ? tr("%1 days").arg(*v / 86400, 0, 'f', 1)
                             : what.what == assess::CostOf::money ? tr("%1 %2").arg(*v, 0, 'f', 0).arg(money).trimmed()
                             : fine                               ? desk_.shown(*v, what.kind, 1)
                                                                  : desk_.shown(*v, what.kind);
        const bool better = v && other && (what.less_is_better ? *v < *other : *v > *other);
        label(better ? text + "  ✓" : text, row, static_cast<int>(way) + 1, better, better ? t.good : t.ink);
      }
      ++row;
    }
    if (card.costs.empty()) {
      label(tr("On this car both come out alike in hours, money and millimetres."), row, 0, false, t.second);
      ++row;
    }
    label(tr("risk"), row, 0, false, t.second);
    for (std::size_t way = 0; way < 2; ++way)
      label(card.no_way[way] ? desk_.words_of(*card.no_way[way]) : word(card.row->risks[way]), row,
            static_cast<int>(way) + 1, false, t.second);
    const std::size_t other = 1 - card.taken;
    if (!card.no_way[other]) {
      auto* button = new QPushButton(tr("Go this way"), frame);
      button->setObjectName(QString("take_%1").arg(card.row->key));
      button->setAccessibleName(tr("Go this way: %1").arg(word(card.row->ways[other])));
      connect(button, &QPushButton::clicked, this,
              [this, key = std::string(card.row->key), other] { take(key, other); });
      cell->addWidget(button, row + 1, static_cast<int>(other) + 1, Qt::AlignLeft);
    }
    cell->setColumnStretch(0, 3);
    cell->setColumnStretch(1, 4);
    cell->setColumnStretch(2, 4);
    grid->addWidget(frame);
  }
  grid->addStretch(1);
  column_->addWidget(page_);
  page_->show();
}

} // namespace mavrel::app
