#include "app/stages/air/wiring_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/drawing.h"
#include "app/kit/list_table.h"
#include "app/stages/air/questions.h"
#include "app/theme/text_line.h"

#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

namespace mavrel::app {

WiringView::WiringView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("wiring_view");
  setAccessibleName(tr("Wiring"));
}

void WiringView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_backdrop(painter, rect(), look);
  const auto wiring = assess::wiring_of(air_of(desk_));
  if (!wiring) return paint_instead(painter, rect(), look, desk_.words_of(wiring.error()));
  painter.setRenderHint(QPainter::Antialiasing);
  const double W = width(), u = look.px(8);
  const auto box = [&](const QRectF& r, const QString& name, const QString& under = {}) {
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.panel);
    painter.drawRect(r);
    painter.setFont(look.font(TextSize::small, true));
    painter.setPen(t.ink);
    const QRectF first(r.left() + 3, r.top() + (under.isEmpty() ? 0 : u * 0.25), r.width() - 6,
                       under.isEmpty() ? r.height() : r.height() / 2);
    draw_line(painter, first, Qt::AlignCenter,
              painter.fontMetrics().elidedText(name, Qt::ElideRight, static_cast<int>(r.width() - 6)));
    if (under.isEmpty()) return;
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    draw_line(painter, {r.left() + 3, r.center().y() - u * 0.25, r.width() - 6, r.height() / 2}, Qt::AlignCenter,
              under);
  };
  // As thick as its copper.
  const auto wire = [&](double x0, double x1, double y, const std::optional<double>& section, const QString& text) {
    const double thick = section ? 1 + std::sqrt(*section) * 0.75 : 1;
    painter.setPen(QPen(section ? t.stop : t.second, thick, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(QPointF(x0, y), QPointF(x1, y));
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.ink);
    draw_line(painter, {x0, y - look.px(18) - thick / 2, x1 - x0, double(look.px(16))}, Qt::AlignCenter, text);
  };
  const double high = look.px(40), left = 2 * u, battery_w = W * 0.11;
  const int count = static_cast<int>(wiring->feeds.size());
  const double first_y = look.px(52), step = look.px(74);
  const QRectF battery(left, first_y - high / 2, battery_w, high + (count - 1) * step);
  box(battery, tr("battery"), desk_.shown(air_of(desk_).kit.volts, Kind::voltage));
  const double fuse_x = W * 0.20, relay_x = W * 0.58, pump_x = W * 0.78;
  for (int i = 0; i < count; ++i) {
    const assess::Feed& feed = wiring->feeds[static_cast<std::size_t>(i)];
    const double y = first_y + i * step;
    const auto section = feed.cable ? std::optional(feed.cable->section) : std::nullopt;
    wire(battery.right(), fuse_x, y, section, {});
    const QString awg =
        feed.cable && !feed.cable->awg.empty() ? tr(" (AWG %1)").arg(feed.cable->awg.c_str()) : QString();
    // As much of it as the wire has room for, the least needed left out first.
    QStringList said{tr("no standard cable does")};
    if (feed.cable) {
      const QString thick = desk_.shown(feed.cable->section * 1e-6, Kind::section, feed.cable->section < 1 ? 2 : 0);
      const QString along = desk_.shown(feed.length, Kind::altitude, 1);
      const QString lost = tr("drops %1").arg(desk_.shown(feed.cable->drop, Kind::voltage, 2));
      said = {QString("%1%2, %3, %4").arg(thick, awg, along, lost), QString("%1, %2, %3").arg(thick, along, lost),
              QString("%1, %2").arg(thick, along)};
    }
    const QFontMetricsF letters(look.font(TextSize::small));
    while (said.size() > 1 && letters.horizontalAdvance(said.front()) > relay_x - fuse_x - W * 0.09 - 4)
      said.removeFirst();
    wire(fuse_x + W * 0.09, relay_x, y, section, said.front());
    wire(relay_x + W * 0.14, pump_x, y, section, {});
    box({fuse_x, y - high * 0.32, W * 0.09, high * 0.64},
        feed.cable ? desk_.shown(feed.cable->fuse, Kind::current, 0) : "–");
    box({relay_x, y - high / 2, W * 0.14, high}, tr("relay"),
        tr("peak %1").arg(desk_.shown(feed.starting, Kind::current, 0)));
    std::string names;
    for (const std::string& name : feed.compressors)
      names += (names.empty() ? "" : " + ") + name;
    box({pump_x, y - high / 2, W - pump_x - 2 * u, high}, QString::fromStdString(names),
        tr("%1 at cut-out").arg(desk_.shown(feed.running, Kind::current)));
    // Back to the battery.
    painter.setPen(QPen(t.ink, section ? 1 + std::sqrt(*section) * 0.75 : 1));
    const double back = y + high / 2 + look.px(9);
    painter.drawLine(QPointF(W - 4 * u, y + high / 2), QPointF(W - 4 * u, back));
    painter.drawLine(QPointF(W - 4 * u, back), QPointF(battery.right() - battery_w / 2 + i * u, back));
    if (i + 1 == count)
      painter.drawLine(QPointF(battery.right() - battery_w / 2 + i * u, back),
                       QPointF(battery.right() - battery_w / 2 + i * u, battery.bottom()));
  }
  // What switches the relays.
  const double y = first_y + (count - 1) * step + look.px(96);
  box({left, y - high / 2, W * 0.18, high}, tr("switched feed"), tr("live in cranking"));
  const auto cut = assess::cut_pressures(air_of(desk_).parts);
  wire(left + W * 0.18, W * 0.31, y, std::nullopt, {});
  box({W * 0.31, y - high / 2, W * 0.21, high}, tr("pressure switch"),
      cut ? tr("%1 to %2").arg(desk_.shown(cut->first, Kind::pressure), desk_.shown(cut->second, Kind::pressure))
          : QString());
  wire(W * 0.52, relay_x + W * 0.07, y, std::nullopt, {});
  painter.setPen(QPen(t.second, 1, Qt::DashLine));
  painter.drawLine(QPointF(relay_x + W * 0.07, y), QPointF(relay_x + W * 0.07, first_y + high / 2));
  if (count > 1) {
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    draw_line(painter, {relay_x + W * 0.08, y - look.px(8), W * 0.3, double(look.px(16))},
              Qt::AlignLeft | Qt::AlignVCenter,
              tr("the second starts %1 later").arg(desk_.shown(air_of(desk_).kit.stagger, Kind::time, 0)));
  }
}

WiringPage::WiringPage(Desk& desk, QWidget* parent) : Page(desk, parent), view_(new WiringView(desk, this)) {
  auto* head = row(column());
  head->addWidget(new ChoiceBox(desk_, "@.air.feeds", tr("Feeds"), rows_of(build::Feeds{}), this));
  fields(head, "@.air.",
         {{"volts", tr("at the battery")},
          {"drop_allowed", tr("drop at most")},
          {"stagger_s", tr("second starts later")},
          {"battery_at.x_m", tr("battery, behind")},
          {"battery_at.y_m", tr("to the left")}});
  auto* battery = row(column());
  fields(battery, "@.air.",
         {{"battery_as", tr("battery when new")},
          {"battery_age_s", tr("its age")},
          {"battery_cut_v", tr("kit off below")}});
  battery->addStretch(1);
  column()->addWidget(view_, 3);
  about_ = words("wiring_about", TextSize::normal);
  column()->addWidget(about_);
  table_ =
      table("wires", tr("Wiring list"), {tr("from"), tr("to"), tr("length"), tr("section"), tr("fuse"), tr("how")});
  table_->stretch(5);
  column()->addWidget(table_, 4);
  column()->addWidget(
      quiet(tr("A fuse belongs within a hand of the battery. Sections are for bundled copper cable; local "
               "rules for vehicle wiring go before them.")));
}

void WiringPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const bool two =
      air_of(desk_).kit.feeds == build::Feeds::each && air_of(desk_).parts[assess::KitRole::second_compressor];
  view_->setFixedHeight(desk_.look().px(two ? 264 : 190));
  view_->update();
  const auto wiring = assess::wiring_of(air_of(desk_));
  about_->setText(
      wiring ? tr("%1 at cut-out, %2 at worst while one starts. %3 reach the compressor: filling takes %4 longer than "
                  "with no drop at all.")
                   .arg(desk_.shown(wiring->running, Kind::current), desk_.shown(wiring->starting, Kind::current, 0),
                        desk_.shown(wiring->volts, Kind::voltage, 2), desk_.shown(wiring->slower, Kind::share, 1))
             : QString());
  view_->setAccessibleDescription(wiring ? about_->text() : desk_.words_of(wiring.error()));
  table_->fill(wiring ? wiring->rows.size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const assess::WireRow& wire = wiring->rows[r];
    row.words(tr(wire.from.c_str()), t.ink)
        .words(tr(wire.to.c_str()), t.ink)
        .figure(desk_.shown(wire.length, Kind::altitude, 1), t.ink)
        .figure(wire.section ? desk_.shown(*wire.section * 1e-6, Kind::section, -2) : "–", t.ink)
        .figure(wire.fuse ? desk_.shown(*wire.fuse, Kind::current, -2) : "–", t.ink)
        .words(desk_.words_of(wire.what), t.second);
  });
}

} // namespace mavrel::app
