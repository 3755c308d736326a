#include "app/kit/height_plot.h"

#include "app/desk/sureness.h"
#include "app/theme/text_line.h"
#include "assess/end/end_answer.h"
#include "quantity/quantity.h"

#include <QMouseEvent>

#include <cmath>

namespace mavrel::app {

HeightPlot::HeightPlot(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setAttribute(Qt::WA_OpaquePaintEvent); // it paints all of itself: nothing under it need be
  setCursor(Qt::SizeVerCursor);
  setMinimumHeight(desk_.look().px(220));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &HeightPlot::redraw);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &HeightPlot::redraw);
  connect(&desk_, &Desk::posed, this, [this] {
    if (isVisible()) setAccessibleDescription(described());
    update();
  });
}

void HeightPlot::redraw() {
  stale_ = true;
  if (isVisible()) setAccessibleDescription(described());
  update();
}

QRectF HeightPlot::plot() const {
  const Look& look = desk_.look();
  const double left = look.px(36), top = look.px(head_room), bottom = look.px(foot_room);
  return {left, top, width() - left - 1.0, height() - top - bottom};
}

std::vector<QRectF> HeightPlot::split(double left, int count) const {
  const QRectF p = plot();
  const double gap = desk_.look().px(7);
  const double each = (p.right() - left - gap * (count - 1)) / count;
  std::vector<QRectF> out;
  for (int i = 0; i < count; ++i)
    out.emplace_back(left + i * (each + gap), p.top(), each, p.height());
  return out;
}

std::pair<int, int> HeightPlot::band() const {
  const QRectF p = plot();
  return {static_cast<int>(p.top()), static_cast<int>(p.bottom())};
}

HeightScale HeightPlot::scale() const {
  const auto [low, high] = desk_.height_range();
  const auto [top, bottom] = band();
  return {low, high, static_cast<double>(top), static_cast<double>(bottom)};
}

QPen HeightPlot::line_pen(double width) const {
  const QColor colour = desk_.look().tokens().end(desk_.end());
  if (desk_.end() == End::front) return {colour, width};
  QPen pen(colour, width, Qt::CustomDashLine);
  pen.setDashPattern({7, 1.6});
  return pen;
}

// ---- painting

void HeightPlot::paintEvent(QPaintEvent*) {
  if (stale_ || ground_.size() != size() * devicePixelRatioF()) {
    ground_ = QPixmap(size() * devicePixelRatioF());
    ground_.setDevicePixelRatio(devicePixelRatioF());
    QPainter painter(&ground_);
    painter.fillRect(rect(), desk_.look().tokens().ground);
    words_ = {};
    paint_ground(painter);
    stale_ = false;
    setAccessibleDescription(described());
  }
  QPainter painter(this);
  painter.drawPixmap(0, 0, ground_);
  const auto H = desk_.pose(desk_.end());
  if (!H) return;
  const double y = scale().y(*H);
  painter.setPen(QPen(desk_.look().tokens().ink, 1.2));
  painter.setClipRegion(QRegion(rect()) - words_);
  painter.drawLine(QPointF(plot().left() - desk_.look().px(4), y), QPointF(width(), y)); // on to the posts
  painter.setClipping(false);
  paint_figures(painter, y);
}

void HeightPlot::paint_axis(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const HeightScale s = scale();
  const QRectF p = plot();
  const double factor = shown_step(Kind::length, desk_.prefs(), 0); // SI per shown unit
  const double step = tick_step((s.high - s.low) / factor / p.height(), look.px(34));
  painter.setFont(look.font(TextSize::small));
  for (double v = std::ceil(s.low / factor / step) * step; v * factor <= s.high; v += step) {
    const double y = s.y(v * factor);
    painter.setPen(t.second);
    draw_line(painter, {0, y - 8, p.left() - look.px(7), 16}, Qt::AlignRight | Qt::AlignVCenter, tick_text(v, step));
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(p.left() - look.px(5), y), QPointF(p.left() - 1, y));
  }
  painter.setPen(t.second);
  painter.drawText(QRectF(0, p.top() - look.px(18), p.left() - look.px(7), look.px(14)),
                   Qt::AlignRight | Qt::AlignVCenter, QString::fromStdString(unit_name(Kind::length, desk_.prefs())));
}

void HeightPlot::paint_words(QPainter& painter, const QRectF& room, int flags, const QString& text) const {
  words_ += painter.boundingRect(room, flags, text).toAlignedRect().adjusted(-3, 0, 3, 0);
  painter.drawText(room, flags, text);
}

QRectF HeightPlot::paint_frame(QPainter& painter) const {
  const Tokens& t = desk_.look().tokens();
  paint_axis(painter);
  const QRectF p = plot();
  painter.fillRect(p, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(p);
  return p;
}

void HeightPlot::paint_head(QPainter& painter, const QRectF& column, const QString& name, const QString& unit) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.setFont(look.font(TextSize::small));
  const QRectF head(column.left(), column.top() - look.px(32), column.width(), look.px(14));
  painter.setPen(t.ink);
  draw_line(painter, head, Qt::AlignLeft | Qt::AlignVCenter, name);
  painter.setPen(t.second);
  draw_line(painter, head.translated(0, look.px(14)), Qt::AlignLeft | Qt::AlignVCenter, unit);
}

void HeightPlot::paint_blocked(QPainter& painter, const std::vector<QRectF>& columns) const {
  if (columns.empty()) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(desk_.end());
  const HeightScale s = scale();
  // Every column is blocked alike: the hatching is painted once and laid under each.
  const QRectF one = columns.front();
  const double ratio = painter.device()->devicePixelRatioF();
  QPixmap blocked((one.size() * ratio).toSize());
  blocked.setDevicePixelRatio(ratio);
  blocked.fill(t.panel);
  {
    QPainter on_blocked(&blocked);
    on_blocked.translate(0, -one.top());
    const QRectF area(0, one.top(), one.width(), one.height());
    const auto at = [&](double from, double to) {
      return stretch_rect(s, area, from, to, e.domain_low, e.domain_high);
    };
    for (const auto& [from, to] : joined(e.windows.road_blocked))
      hatch(on_blocked, at(from, to), t.hatch_reserve, true, look.px(7));
    for (const auto& [from, to] : joined(e.windows.reach_blocked)) {
      on_blocked.fillRect(at(from, to), t.panel);
      hatch(on_blocked, at(from, to), t.hatch_stop, false, look.px(7));
    }
    for (const auto& [from, to] : unknown(e.windows.reach_blocked))
      dots(on_blocked, at(from, to), t.panel, t.second, look.px(7));
    paint_bands(on_blocked, area);
  }
  for (const QRectF& column : columns) {
    painter.drawPixmap(column.topLeft(), blocked);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.rule, 1));
    painter.drawRect(column);
  }
}

void HeightPlot::paint_bands(QPainter& painter, const QRectF& column) const {
  const assess::Doubt* doubt = Sureness::of(desk_).doubt();
  if (!doubt) return;
  const Tokens& t = desk_.look().tokens();
  const HeightScale s = scale();
  for (const assess::EdgeBand& band : assess::edge_bands(*doubt, desk_.end())) {
    const QColor ink = band.road ? t.end(desk_.end()) : t.stop;
    QColor fill = ink;
    fill.setAlphaF(0.13F);
    const double top = s.clamped_y(band.high), bottom = s.clamped_y(band.low);
    painter.fillRect(QRectF(column.left(), top, column.width(), std::max(1.0, bottom - top)), fill);
    painter.setPen(QPen(ink, 0.6, Qt::DashLine));
    for (const double y : {top, bottom})
      painter.drawLine(QPointF(column.left(), y), QPointF(column.right(), y));
  }
}

void HeightPlot::paint_values(QPainter& painter, const Column& column) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.setFont(look.font(TextSize::small));
  const double factor = from_shown_unit(1, column.kind, desk_.prefs()) - from_shown_unit(0, column.kind, desk_.prefs());
  const double low = column.low / factor, high = column.high / factor;
  const double step = tick_step((high - low) / column.rect.width(), look.px(30));
  for (double v = std::ceil(low / step) * step; v <= high; v += step) {
    const double x = column.x(v * factor);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x, column.rect.bottom()), QPointF(x, column.rect.bottom() + look.px(4)));
    painter.setPen(t.second);
    if (x > column.rect.left() + 6 && x < column.rect.right() - 6)
      draw_line(painter, {x - 30, column.rect.bottom() + look.px(4), 60, double(look.px(14))},
                Qt::AlignHCenter | Qt::AlignTop, tick_text(v, step));
  }
}

void HeightPlot::paint_figure(QPainter& painter, const Column& column, double value, double y, int decimals,
                              const QString& mark, const QString& instead) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double x = column.x(value);
  if (x < column.rect.left() - 1 || x > column.rect.right() + 1) return;
  painter.setFont(look.font(TextSize::large, true));
  const QFontMetricsF metrics(painter.font());
  painter.setRenderHint(QPainter::Antialiasing);
  const QString text =
      mark + (instead.isEmpty() ? QString::fromStdString(show_parts(value, column.kind, desk_.prefs(), decimals).number)
                                : instead);
  const double w = metrics.horizontalAdvance(text) + 6, h = metrics.height();
  const bool to_right = x + w + look.px(9) < column.rect.right();
  const bool above = y - h - 3 > plot().top();
  const QRectF box(to_right ? x + look.px(8) : x - look.px(8) - w, above ? y - h - 2 : y + 3, w, h);
  QColor ground = t.panel;
  ground.setAlphaF(0.86F);
  painter.fillRect(box, ground);
  painter.setPen(t.ink);
  draw_line(painter, box, Qt::AlignCenter, text);
  painter.setPen(QPen(t.end(desk_.end()), 2));
  painter.setBrush(t.panel);
  painter.drawEllipse(QPointF(x, y), look.px(4), look.px(4));
}

// ---- hands

void HeightPlot::resizeEvent(QResizeEvent*) {
  stale_ = true;
  emit band_moved();
}

void HeightPlot::pose_at(double y) {
  desk_.set_pose(desk_.end(), std::round(scale().H(y) * 1e3) * 1e-3);
}

void HeightPlot::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  dragging_ = true;
  pose_at(event->position().y());
}

void HeightPlot::mouseMoveEvent(QMouseEvent* event) {
  if (dragging_) pose_at(event->position().y());
}

void HeightPlot::mouseReleaseEvent(QMouseEvent*) {
  dragging_ = false;
}

} // namespace mavrel::app
