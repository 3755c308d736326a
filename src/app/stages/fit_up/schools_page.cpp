#include "app/stages/fit_up/schools_page.h"

#include "app/kit/plain.h"

#include <QApplication>
#include <QFrame>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::SchoolCard;

SchoolsPage::SchoolsPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); },
                              // The hour of the day moves no school: the plan is reckoned from its first morning.
                              [this] {
                                return assess::SchoolsGiven{desk_.build(), desk_.shelf(), std::nullopt};
                              }),
      cards_(new QWidget(this)) {
  follow(answer_);
  summary_ = words("schools_summary", TextSize::normal);
  column()->addWidget(summary_);
  cards_->setObjectName("school_cards");
  auto* inside = new QVBoxLayout(cards_);
  inside->setContentsMargins(0, 0, 0, 0);
  column()->addWidget(scrolled(cards_, this), 1);
}

void SchoolsPage::take(const std::string& key, std::size_t way) {
  const auto made = assess::with_school(desk_.build(), desk_.shelf(), key, way);
  if (!made) return desk_.tell(desk_.words_of(made.error()));
  desk_.edit(tr("Go the other way"), *made);
}

void SchoolsPage::fill() {
  const assess::Schools* now = schools();
  summary_->setText(
      answer_.is_running() ? tr("Both ways of each are worked out on this car …")
      : answer_.trouble()  ? desk_.words_of(*answer_.trouble())
      : now && now->cards.empty()
          ? tr("Nothing is decided yet: choose bags in Bags and a kit in Air.")
          : tr("Both ways of what builders disagree on, worked out on this very car. ● is the way it goes."));
  if (now) build_cards(*now);
}

void SchoolsPage::build_cards(const assess::Schools& schools) {
  const Look& look = desk_.look();
  const QWidget* focus = QApplication::focusWidget();
  const QString held = focus && page_ && page_->isAncestorOf(focus) ? focus->objectName() : QString();
  if (page_) {
    for (QWidget* widget : page_->findChildren<QWidget*>())
      widget->setObjectName({}); // what is looked for by name is on the new page
    page_->hide();
    page_->deleteLater();
  }
  page_ = new QWidget(cards_);
  auto* all = new QVBoxLayout(page_);
  all->setContentsMargins(0, 0, look.unit(), 0);
  all->setSpacing(look.unit());
  for (const SchoolCard& card : schools.cards)
    all->addWidget(make_card(card));
  all->addStretch(1);
  cards_->layout()->addWidget(page_);
  page_->show();
  if (auto* again = held.isEmpty() ? nullptr : page_->findChild<QWidget*>(held)) again->setFocus(Qt::OtherFocusReason);
}

QString SchoolsPage::shown(const assess::CostRow& what, const std::optional<double>& cost) const {
  if (!cost) return tr("not known");
  switch (what.what) {
  case assess::CostOf::days:
  case assess::CostOf::stands:
    return tr("%1 days").arg(*cost / 86400, 0, 'f', 1);
  case assess::CostOf::money:
    return tr("%1 %2").arg(*cost, 0, 'f', 0).arg(QString::fromStdString(desk_.build().shop->money)).trimmed();
  case assess::CostOf::load_drop:
  case assess::CostOf::hours:
  case assess::CostOf::burst:
    return desk_.shown(*cost, what.kind, 1);
  default:
    return desk_.shown(*cost, what.kind);
  }
}

QWidget* SchoolsPage::make_card(const SchoolCard& card) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto word = [&](const char* text) { return desk_.words_of({text, {}}); };
  auto* frame = new QWidget(page_);
  frame->setObjectName(QString("school_%1").arg(card.row->key));
  auto* cell = new QGridLayout(frame);
  cell->setContentsMargins(0, 0, 0, look.unit() / 2);
  cell->setHorizontalSpacing(look.unit() * 2);
  cell->setVerticalSpacing(look.px(2));
  auto* line = new QFrame(frame);
  line->setFrameShape(QFrame::HLine);
  cell->addWidget(line, 0, 0, 1, 3);
  int row = 1;
  const auto label = [&](const QString& text, int column, bool bold, const QColor& ink,
                         TextSize size = TextSize::small) {
    auto* made = new PlainLabel(text, frame);
    made->setFont(look.font(size, bold));
    made->setWordWrap(true);
    QPalette palette = made->palette();
    palette.setColor(QPalette::WindowText, ink);
    made->setPalette(palette);
    cell->addWidget(made, row, column, Qt::AlignTop);
  };
  label(word(card.row->name), 0, true, t.ink, TextSize::normal);
  for (std::size_t way = 0; way < 2; ++way)
    label((way == card.taken ? "● " : "○ ") + word(card.row->ways[way]), static_cast<int>(way) + 1, way == card.taken,
          t.ink, TextSize::normal);
  ++row;
  for (const assess::SchoolCost& cost : card.costs) {
    const assess::CostRow& what = assess::row_of(cost.what);
    label(word(what.name), 0, false, t.second);
    for (std::size_t way = 0; way < 2; ++way) {
      const auto &v = cost.figure[way], &other = cost.figure[1 - way];
      const bool better = v && other && (what.less_is_better ? *v < *other : *v > *other);
      label(shown(what, v) + (better ? "  ✓" : ""), static_cast<int>(way) + 1, better, better ? t.good : t.ink);
    }
    ++row;
  }
  if (card.costs.empty()) {
    label(tr("On this car both come out alike in hours, money and millimetres."), 0, false, t.second);
    ++row;
  }
  label(tr("risk"), 0, false, t.second);
  for (std::size_t way = 0; way < 2; ++way)
    label(card.no_way[way] ? desk_.words_of(*card.no_way[way]) : word(card.row->risks[way]), static_cast<int>(way) + 1,
          false, t.second);
  const std::size_t other = 1 - card.taken;
  if (!card.no_way[other]) {
    auto* go = new QPushButton(tr("Go this way"), frame);
    go->setObjectName(QString("take_%1").arg(card.row->key));
    go->setAccessibleName(tr("Go this way: %1").arg(word(card.row->ways[other])));
    connect(go, &QPushButton::clicked, this, [this, key = std::string(card.row->key), other] { take(key, other); });
    cell->addWidget(go, row + 1, static_cast<int>(other) + 1, Qt::AlignLeft);
  }
  cell->setColumnStretch(0, 3);
  cell->setColumnStretch(1, 4);
  cell->setColumnStretch(2, 4);
  return frame;
}

} // namespace mavrel::app
