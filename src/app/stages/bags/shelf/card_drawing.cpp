#include "app/stages/bags/shelf/card_drawing.h"

#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
#include "quantity/quantity.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

/// One column of the drawing: values along, bag heights up.
struct CardDrawing::Frame {
  QRectF rect;
  double low, high; // values at its edges, in shown units
  HeightScale heights;
  [[nodiscard]] QPointF at(double value, double height) const {
    return {rect.left() + (value - low) / (high - low) * rect.width(), heights.y(height)};
  }
};

CardDrawing::CardDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("card_drawing");
  setMinimumHeight(desk_.look().px(180));
  connect(&desk_, &Desk::restyled, this, [this] { update(); });
}

void CardDrawing::show_card(const std::optional<air::BagCard>& card) {
  card_ = card;
  doubts_.clear();
  suspects_.clear();
  if (card_) {
    curve_ = air::BagCurve(*card_);
    doubts_ = shelf::check_volume_against_area(*card_);
    suspects_ = shelf::suspect_cells(*card_);
    setAccessibleName(tr("%1: loads, area and volume over height").arg(QString::fromStdString(card_->name)));
  }
  update();
}

void CardDrawing::paint_frame(QPainter& painter, const Frame& frame, const QString& name, const QString& unit) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.fillRect(frame.rect, t.panel);
  for (const auto& doubt : doubts_) {
    const double from = frame.heights.y(card_->heights[doubt.row + 1]), to = frame.heights.y(card_->heights[doubt.row]);
    hatch(painter, QRectF(frame.rect.left(), from, frame.rect.width(), to - from), t.hatch_reserve, true, look.px(7));
  }
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(frame.rect);
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.ink);
  painter.drawText(QRectF(frame.rect.left(), frame.rect.top() - look.px(18), frame.rect.width(), look.px(16)),
                   Qt::AlignLeft | Qt::AlignVCenter, QString("%1, %2").arg(name, unit));
  const double step = tick_step((frame.high - frame.low) / frame.rect.width(), look.px(42));
  painter.setPen(t.second);
  for (double v = std::ceil(frame.low / step) * step; v <= frame.high; v += step) {
    const double x = frame.at(v, 0).x();
    painter.drawLine(QPointF(x, frame.rect.bottom()), QPointF(x, frame.rect.bottom() + look.px(3)));
    // Never over the first figure of the next one.
    if (x + painter.fontMetrics().horizontalAdvance(tick_text(v, step)) / 2.0 <= frame.rect.right())
      painter.drawText(QRectF(x - 36, frame.rect.bottom() + look.px(3), 72, look.px(14)), Qt::AlignCenter,
                       tick_text(v, step));
  }
}

void CardDrawing::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.fillRect(rect(), t.ground);
  if (!card_) {
    painter.setPen(t.second);
    painter.drawText(rect(), Qt::AlignCenter, tr("No drawing until its mistakes are mended."));
    return;
  }
  const UnitPrefs& prefs = desk_.prefs();
  const air::BagCard& card = *card_;
  const double left = look.px(36), top = look.px(20), foot = look.px(20), gap = look.px(8);
  const double room = (card.heights.back() - card.heights.front()) * 0.04;
  const HeightScale heights{card.heights.front() - room, card.heights.back() + room, top, height() - foot};
  const double widths[] = {0.46, 0.27, 0.27};
  double most_load = 0, most_area = 0;
  for (std::size_t j = 0; j < card.loads.size(); ++j)
    for (const double load : card.loads[j])
      most_load = std::max(most_load, load), most_area = std::max(most_area, load / card.pressures[j]);
  const double per_area = prefs.length == LengthUnit::inch ? 1 / (0.0254 * 0.0254) : 1e4;
  const double most[] = {in_shown_unit(most_load, Kind::force, prefs), most_area * per_area,
                         in_shown_unit(card.volumes.back(), Kind::volume, prefs)};
  const QString names[] = {tr("load"), tr("area"), tr("volume")};
  const QString units[] = {QString::fromStdString(unit_name(Kind::force, prefs)),
                           prefs.length == LengthUnit::inch ? "in²" : "cm²",
                           QString::fromStdString(unit_name(Kind::volume, prefs))};
  std::vector<Frame> frames;
  double x = left;
  for (int i = 0; i < 3; ++i) {
    const double w = (width() - left - 2 * gap - 2) * widths[i];
    frames.push_back({QRectF(x, top, w, height() - top - foot), 0, most[i] * 1.1, heights});
    x += w + gap;
    paint_frame(painter, frames.back(), names[i], units[i]);
  }
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  const double factor = shown_step(Kind::length, prefs, 0),
               step = tick_step((heights.high - heights.low) / factor / (heights.bottom - heights.top), look.px(30));
  for (double v = std::ceil(heights.low / factor / step) * step; v * factor <= heights.high; v += step)
    painter.drawText(QRectF(0, heights.y(v * factor) - 8, left - look.px(6), 16), Qt::AlignRight | Qt::AlignVCenter,
                     tick_text(v, step));

  painter.setRenderHint(QPainter::Antialiasing);
  const double low = std::max(curve_.lowest(), card.heights.front()),
               high = std::min(curve_.highest(), card.heights.back());
  const auto draw = [&](const Frame& frame, const std::function<double(const air::BagSection&)>& value,
                        const QPen& pen) {
    QPolygonF line;
    for (int i = 0; i <= 60; ++i) {
      const double h = std::lerp(low, high, i / 60.0);
      line << frame.at(value(curve_.section(h)), h);
    }
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
  };
  for (std::size_t j = 0; j < card.loads.size(); ++j) {
    const double weight = 1 + 1.2 * static_cast<double>(j) / static_cast<double>(card.loads.size());
    draw(
        frames[0],
        [&](const air::BagSection& s) { return in_shown_unit(s.area[j] * card.pressures[j], Kind::force, prefs); },
        QPen(t.front, weight));
    draw(
        frames[1], [&](const air::BagSection& s) { return s.area[j] * per_area; }, QPen(t.front, weight));
    painter.setPen(t.ink);
    const QPointF end = frames[0].at(in_shown_unit(card.loads[j].front(), Kind::force, prefs), card.heights.front());
    painter.drawText(QRectF(end.x() - look.px(60), end.y() - look.px(16), look.px(58), look.px(14)), Qt::AlignRight,
                     desk_.shown(card.pressures[j], Kind::pressure, 0));
  }
  draw(
      frames[2], [&](const air::BagSection& s) { return in_shown_unit(s.volume, Kind::volume, prefs); },
      QPen(t.rear, 2));
  // The card's own figures as dots; suspect ones ringed.
  for (std::size_t i = 0; i < card.heights.size(); ++i) {
    const auto dot = [&](const QPointF& at, const QColor& colour, bool suspect) {
      painter.setPen(Qt::NoPen);
      painter.setBrush(colour);
      painter.drawEllipse(at, 2, 2);
      if (!suspect) return;
      painter.setPen(QPen(t.stop, 2));
      painter.setBrush(Qt::NoBrush);
      painter.drawEllipse(at, look.px(7), look.px(7));
    };
    const auto doubted = [&](const std::optional<std::size_t>& column) {
      return shelf::is_suspect(suspects_, i, column);
    };
    for (std::size_t j = 0; j < card.loads.size(); ++j)
      dot(frames[0].at(in_shown_unit(card.loads[j][i], Kind::force, prefs), card.heights[i]), t.front, doubted(j));
    dot(frames[2].at(in_shown_unit(card.volumes[i], Kind::volume, prefs), card.heights[i]), t.rear,
        doubted(std::nullopt));
  }
}

} // namespace mavrel::app
