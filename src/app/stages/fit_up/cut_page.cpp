#include "app/stages/fit_up/cut_page.h"

#include "app/kit/drawing.h"
#include "app/kit/field.h"
#include "app/kit/height_scale.h"
#include "app/kit/list_table.h"
#include "app/stages/fit_up/edits.h"
#include "app/stages/fit_up/questions.h"
#include "app/theme/text_line.h"
#include "report/fit_up_files.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using assess::BuyLine;
using assess::CutStock;

BarsView::BarsView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("bars_view");
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      if (!isVisible()) return;
      describe();
      setMinimumHeight(static_cast<int>(height_needed()));
      update();
    });
}

double BarsView::height_needed() const {
  double y = desk_.look().px(8);
  for (const CutStock& stock : cut_list_of(desk_).stocks)
    y += desk_.look().px(22) + desk_.look().px(28) * static_cast<double>(stock.plan ? stock.plan->bars.size() : 1);
  return std::max(y, static_cast<double>(desk_.look().px(80)));
}

QSize BarsView::sizeHint() const {
  return {desk_.look().px(500), static_cast<int>(height_needed())};
}

void BarsView::describe() {
  QStringList said;
  for (const CutStock& stock : cut_list_of(desk_).stocks)
    if (stock.plan)
      said << tr("%1: %2 pieces from %3 bars")
                  .arg(QString::fromStdString(stock.name))
                  .arg(stock.pieces.size())
                  .arg(stock.plan->bars.size());
  setAccessibleName(tr("Bars and what is cut from them. %1").arg(said.join(". ")));
}

void BarsView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_backdrop(painter, rect(), look);
  const auto& cut = cut_list_of(desk_);
  if (cut.stocks.empty())
    return paint_instead(painter, rect(), look,
                         tr("Nothing is to be cut yet: plates follow from bags, lines from the air kit."));
  const double left = look.px(10), right = width() - look.px(10);
  // From a metre on lengths are so many metres.
  const auto length_of = [&](double v) {
    return v >= 2 ? desk_.shown(v, Kind::altitude, 2) : desk_.shown(v, Kind::length, 0);
  };
  double y = look.px(8);
  for (const CutStock& stock : cut.stocks) {
    painter.setPen(t.ink);
    painter.setFont(look.font(TextSize::normal, true));
    QString head = QString::fromStdString(stock.name) + "  ";
    draw_line(painter, QRectF(left, y, right - left, look.px(20)), Qt::AlignLeft | Qt::AlignVCenter, head);
    const double used = QFontMetricsF(painter.font()).horizontalAdvance(head);
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    const QString how = !stock.plan ? desk_.words_of(stock.plan.error())
                                    : tr("%1 pieces, %2 new of %3%4")
                                          .arg(stock.pieces.size())
                                          .arg(stock.plan->fresh)
                                          .arg(desk_.shown(stock.bar, Kind::altitude, 1),
                                               stock.plan->proven ? tr(", no fewer is possible") : QString());
    draw_line(painter, QRectF(left + used, y, right - left - used, look.px(20)), Qt::AlignLeft | Qt::AlignVCenter, how);
    y += look.px(22);
    if (!stock.plan) {
      y += look.px(28);
      continue;
    }
    // One scale for each stock: its longest bar is as wide as there is room.
    double longest = stock.bar;
    for (const work::CutBar& bar : stock.plan->bars)
      longest = std::max(longest, bar.length);
    // Of a coil only what is cut of it is worth looking at.
    const bool coil = stock.kind == assess::StockKind::line || stock.kind == assess::StockKind::cable;
    if (coil) longest = std::min(longest, stock.total() * 1.15);
    const double scale = (right - left) / longest;
    for (const work::CutBar& bar : stock.plan->bars) {
      double x = left;
      const double high = look.px(22);
      for (const std::size_t i : bar.pieces) {
        const assess::CutPiece& piece = stock.pieces[i];
        const QRectF r(x, y, std::max(1.0, piece.length * scale), high);
        painter.setPen(QPen(t.ink, 1));
        painter.setBrush(bar.leftover ? t.ground : t.panel);
        painter.drawRect(r);
        painter.setBrush(Qt::NoBrush);
        const QString length = length_of(piece.length), mark = QString::fromStdString(piece.mark);
        const auto wide = [&](const QString& text) {
          return QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(6);
        };
        const bool long_name = wide(desk_.words_of(piece.what) + "  " + length) <= r.width();
        const QString text = long_name                                ? desk_.words_of(piece.what) + "  " + length
                             : wide(mark + " " + length) <= r.width() ? mark + " " + length
                             : wide(length) <= r.width()              ? length
                                                                      : QString();
        draw_line(painter, r.adjusted(look.px(3), 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, text);
        x += (piece.length + stock.kerf) * scale;
      }
      if (bar.left > 0 && x < right - 2) {
        const QRectF rest(x, y, std::min(right - x, bar.left * scale), high);
        hatch(painter, rest, t.rule, false, look.px(7));
        painter.setPen(t.second);
        const QString text = tr("left %1").arg(length_of(bar.left));
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(8);
        // In the rest where there is room, else behind the bar.
        const double at = rest.width() > wide ? rest.right() - wide : rest.right() + look.px(4);
        if (at + wide <= right + 1) {
          if (rest.width() > wide) painter.fillRect(QRectF(at, y + 3, wide, high - 6), t.panel);
          draw_line(painter, QRectF(at + look.px(4), y, wide, high), Qt::AlignLeft | Qt::AlignVCenter, text);
        }
      }
      y += look.px(28);
    }
  }
}

CutPage::CutPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), bars_(new BarsView(desk, this)), fields_row_(new QWidget(this)) {
  auto* head = row(column());
  summary_ = words("cut_summary", TextSize::normal);
  head->addWidget(summary_, 1);
  button(head, tr("Cut list …"), "write_cut", [this] { write_cut(); });
  button(head, tr("Parts list …"), "write_buy", [this] { write_buy(); });
  keep_ = button(head, tr("Cut: keep what is left"), "keep_leftovers", [this] {
    take_from_stock(desk_, cut_list_of(desk_));
    desk_.tell(tr("What is left of bars and coils is in the shop's stock now, and used first by the next cut list."));
  });
  troubles_ = small_words("cut_troubles");
  column()->addWidget(troubles_);
  column()->addWidget(scrolled(bars_, this), 5);
  list_ = table("parts_list", tr("Parts list"),
                {tr("part"), tr("for"), tr("needed"), tr("there"), tr("to order"), tr("each"), tr("order by")});
  list_->setMinimumHeight(desk_.look().px(140));
  column()->addWidget(list_, 5);
  auto* below = new QHBoxLayout(fields_row_);
  below->setContentsMargins(0, 0, 0, 0);
  below->setSpacing(desk_.look().unit() / 2);
  sealing_ = small_words("sealing");
  below->addWidget(sealing_, 3);
  const std::pair<const char*, QString> captions[] = {{"on_shelf", tr("there")},         {"price", tr("price each")},
                                                      {"lead_s", tr("comes after")},     {"ordered", tr("ordered on")},
                                                      {"ordered_count", tr("how many")}, {"supplier", tr("supplier")}};
  for (const auto& [key, caption] : captions) {
    fields_.emplace_back(new Field(desk_, "@.fit_up.order", caption, fields_row_), key);
    if (QString(key) == "ordered_count") fields_.back().first->set_placeholder(tr("all"));
    if (QString(key) == "ordered") fields_.back().first->set_placeholder(tr("2026-11-30"));
    below->addWidget(fields_.back().first, 1);
  }
  ordered_ = button(below, tr("Ordered"), "order_part", [this] {
    if (const BuyLine* l = held()) order_part(desk_, *l);
  });
  came_ = button(below, tr("Came"), "part_came", [this] {
    if (const BuyLine* l = held()) part_came(desk_, *l);
  });
  note_ = button(below, tr("Say more …"), "note_part", [this] {
    if (const BuyLine* l = held()) note_part(desk_, std::string(l->part));
  });
  column()->addWidget(fields_row_);
  connect(list_, &ListTable::chose, this, &CutPage::fill_note);
}

const BuyLine* CutPage::held() const {
  const auto& lines = buy_list_of(desk_).lines;
  const auto row = list_->held();
  return row && *row < lines.size() ? &lines[*row] : nullptr;
}

void CutPage::fill() {
  bars_->setMinimumHeight(bars_->sizeHint().height());
  const Tokens& t = desk_.look().tokens();
  const auto& buy = buy_list_of(desk_);
  const QString money = QString::fromStdString(desk_.build().shop->money);
  const auto priced = [&](double v) { return tr("%1 %2").arg(v, 0, 'f', 2).arg(money).trimmed(); };
  QString said = tr("%1 lines").arg(buy.lines.size());
  // A sum over the lines that have a price says so, and is none where no line has one.
  if (buy.unpriced < buy.lines.size())
    said += tr(" · wanted %1%2, ordered %3, still to order and pay %4%5")
                .arg(buy.unpriced > 0 ? tr("at least ") : QString(), priced(buy.parts), priced(buy.ordered),
                     buy.unpriced_to_order > 0 ? tr("at least ") : QString(), priced(buy.to_pay));
  if (buy.unpriced > 0)
    said += tr(" · %1 without a price, %2 of them still to order").arg(buy.unpriced).arg(buy.unpriced_to_order);
  summary_->setText(said);
  QStringList troubles;
  for (const Message& m : cut_list_of(desk_).troubles)
    troubles << desk_.words_of(m);
  troubles_->setText(troubles.join("\n"));
  troubles_->setVisible(!troubles.isEmpty());
  const auto now = now_in_plan(desk_);
  list_->fill(buy.lines.size(), [&](std::size_t r, ListTable::Row& row) {
    const BuyLine& l = buy.lines[r];
    const auto many = [&](double n) { return l.metres ? tr("%1 m").arg(n, 0, 'f', 1) : QString::number(n, 'g', 6); };
    row.words(QString::fromStdString(l.part) + " · " + desk_.words_of(l.what), t.ink)
        .words(desk_.words_of({assess::name_of(l.group), {}}), t.second)
        .figure(many(l.count), t.ink)
        .figure(l.on_shelf > 0 ? many(l.on_shelf) : QString("–"), t.ink)
        .figure(l.too_many > 0                  ? tr("%1 ordered, %2 too many").arg(many(l.on_order), many(l.too_many))
                : l.on_order > 0 && l.order > 0 ? tr("%1, and %2 ordered").arg(many(l.order), many(l.on_order))
                : l.on_order > 0                ? tr("%1 ordered").arg(many(l.on_order))
                : l.order > 0                   ? many(l.order)
                                                : QString("✓"),
                l.too_many > 0                  ? t.caution
                : l.order > 0 || l.on_order > 0 ? t.ink
                                                : t.good)
        .figure(l.price ? QString::number(*l.price, 'f', 2) : QString("–"), t.ink)
        .figure(l.ordered
                    ? tr("comes %1").arg(l.comes ? QString::fromStdString(work::day_text(*l.comes)) : tr("some day"))
                : l.order_by ? QString::fromStdString(work::day_text(*l.order_by))
                             : QString("–"),
                l.order_by && now && *l.order_by < now->day && l.order > 0 ? t.stop : t.ink);
  });
  keep_->setEnabled(!cut_list_of(desk_).stocks.empty());
  fill_note();
}

void CutPage::fill_note() {
  const BuyLine* l = held();
  note_->setVisible(l && !l->note);
  ordered_->setEnabled(l && l->order > 0);
  came_->setEnabled(l && l->on_order > 0);
  sealing_->setText(!l ? QString()
                       : QString::fromStdString(l->part) +
                             (l->thread.empty() ? QString() : ", " + QString::fromStdString(l->thread)) +
                             (l->sealing.text.empty() ? QString() : ": " + desk_.words_of(l->sealing)));
  for (const auto& [field, key] : fields_) {
    field->setVisible(l && l->note);
    if (l && l->note) field->bind(QString("@.fit_up.parts.%1.%2").arg(*l->note).arg(key));
  }
}

void CutPage::write_cut() {
  save_csv(tr("Write the cut list"), report::cut_csv(cut_list_of(desk_)));
}
void CutPage::write_buy() {
  save_csv(tr("Write the parts list"), report::buy_csv(buy_list_of(desk_)));
}

} // namespace mavrel::app
