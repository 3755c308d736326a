#include "app/stages/bags/questions/gauge_view.h"

#include "app/desk/desk.h"
#include "quantity/quantity.h"

#include <algorithm>

namespace mavrel::app {

using assess::GaugeBand;

namespace {

/// At the pose.
const assess::GaugeQuestion::Answer& gauge_tale(const Desk& d) {
  return d.answers().at_once<assess::GaugeQuestion>(assess::GaugeGiven{
      d.answered(d.end()), d.pose(d.end()).value_or(0), d.load_case(), assess::gauge_doubt(d.build().variant().brief)});
}

} // namespace

GaugeView::GaugeView(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("gauge_view");
  setAccessibleName(tr("Does pressure tell height"));
}

std::array<GaugeView::Column, 2> GaugeView::columns() const {
  const auto rects = split(plot().left(), 2);
  std::array<Column, 2> out = {Column{rects[0], 0, -1, Kind::pressure}, Column{rects[1], 0, -1, Kind::length}};
  const auto& tale = gauge_tale(desk_);
  const auto* track = desk_.assessment().end(desk_.end()).find(assess::tracks::pressure, desk_.load_case());
  const auto range = track ? track->range() : std::nullopt;
  if (!tale || !range) return out;
  const double room = std::max(0.3e5, 0.15 * (range->second - range->first));
  out[0].low = range->first - room;
  out[0].high = range->second + room;
  out[1].low = 0;
  out[1].high = assess::rough_band * 1.3;
  for (const GaugeBand& band : tale->bands)
    out[1].high = std::max(out[1].high, band.width() * 1.08);
  return out;
}

QString GaugeView::summary() const {
  const auto& tale = gauge_tale(desk_);
  return desk_.words_of(tale ? tale->advice : tale.error());
}

void GaugeView::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_axis(painter);
  const auto& tale = gauge_tale(desk_);
  const auto all = columns();
  if (!tale || !all[0].has_values()) return;
  paint_blocked(painter, {all[0].rect, all[1].rect});
  paint_head(painter, all[0].rect, tr("pressure that carries the load"),
             QString::fromStdString(unit_name(Kind::pressure, desk_.prefs())));
  paint_head(painter, all[1].rect, tr("heights one reading leaves open"),
             QString::fromStdString(unit_name(Kind::length, desk_.prefs())));
  for (const Column& column : all)
    paint_values(painter, column);
  const HeightScale s = scale();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setClipRect(all[0].rect);
  const auto* track = desk_.assessment().end(desk_.end()).find(assess::tracks::pressure, desk_.load_case());
  const double error = desk_.build().variant().brief.gauge_error;
  QColor cloud = t.end(desk_.end());
  cloud.setAlphaF(0.18F);
  for (const auto& piece : track->pieces) {
    QPolygonF line, left, right;
    for (std::size_t i = 0; i < piece.values.size(); i += 2) {
      const double y = s.y(piece.from + piece.step * static_cast<double>(i)), p = piece.values[i];
      line << QPointF(all[0].x(p), y);
      left << QPointF(all[0].x(p - error), y);
      right.prepend(QPointF(all[0].x(p + error), y));
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(cloud);
    painter.drawPolygon(left + right);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(line_pen(2));
    painter.drawPolyline(line);
  }
  painter.setClipRect(all[1].rect);
  // Up to the first line pressures tell, up to the second roughly.
  for (const auto& [width, colour] : {std::pair{assess::telling_band, t.good}, std::pair{assess::rough_band, t.stop}}) {
    painter.setPen(QPen(colour, 1));
    painter.drawLine(QPointF(all[1].x(width), all[1].rect.top()), QPointF(all[1].x(width), all[1].rect.bottom()));
  }
  QPolygonF widths;
  for (const GaugeBand& band : tale->bands)
    widths << QPointF(all[1].x(band.width()), s.y(band.H));
  painter.setPen(line_pen(2));
  painter.drawPolyline(widths);
  painter.restore();
  painter.setFont(look.font(TextSize::small));
  const double foot = all[1].rect.bottom() - look.px(18);
  const auto note = [&](double width, const QColor& colour, const QString& text) {
    painter.setPen(colour);
    painter.drawText(QRectF(all[1].x(width) + look.px(4), foot, look.px(150), look.px(14)), Qt::AlignLeft, text);
  };
  if (all[1].x(assess::rough_band) - all[1].x(assess::telling_band) > look.px(46))
    note(assess::telling_band, t.good, tr("tells"));
  if (all[1].rect.right() - all[1].x(assess::rough_band) > look.px(60)) note(assess::rough_band, t.stop, tr("silent"));
}

void GaugeView::paint_figures(QPainter& painter, double y) const {
  const auto& tale = gauge_tale(desk_);
  const auto all = columns();
  if (!tale || !all[0].has_values()) return;
  const auto* track = desk_.assessment().end(desk_.end()).find(assess::tracks::pressure, desk_.load_case());
  const auto p = track ? track->at(scale().H(y)) : std::nullopt;
  if (!p) return;
  const Tokens& t = desk_.look().tokens();
  const HeightScale s = scale();
  // The band as a bracket on the reading: everything between its ends shows this pressure.
  QColor band = t.caution;
  band.setAlphaF(0.22F);
  const QRectF open(all[0].rect.left(), s.clamped_y(tale->here.high), all[0].rect.width(),
                    s.clamped_y(tale->here.low) - s.clamped_y(tale->here.high));
  painter.fillRect(open, band);
  painter.setPen(QPen(t.caution, 1.4));
  painter.drawLine(open.topLeft(), open.topRight());
  painter.drawLine(open.bottomLeft(), open.bottomRight());
  painter.setPen(QPen(t.ink, 1, Qt::DotLine));
  painter.drawLine(QPointF(all[0].x(*p), open.top()), QPointF(all[0].x(*p), open.bottom()));
  paint_figure(painter, all[0], *p, y, desk_.prefs().pressure == PressureUnit::bar ? 2 : -1);
  paint_figure(painter, all[1], tale->here.width(), y);
}

} // namespace mavrel::app
