#include "app/stages/bags/questions/stroke_view.h"

#include "app/desk/desk.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <algorithm>

namespace mavrel::app {

using assess::StrokeAt;

namespace {

/// From road height.
const assess::StrokeQuestion::Answer& stroke_of(const Desk& d) {
  return d.answers().at_once<assess::StrokeQuestion>(assess::StrokeGiven{d.answered(d.end()), d.load_case()});
}

} // namespace

StrokeView::StrokeView(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("stroke_view");
  setAccessibleName(tr("Through the stroke"));
}

const assess::FittedEnd& StrokeView::fitted() const {
  return desk_.answered(desk_.end())->fitted;
}

std::array<StrokeView::Column, 2> StrokeView::columns() const {
  const auto rects = split(plot().left() + desk_.look().px(176), 2);
  std::array<Column, 2> out = {Column{rects[0], 0, -1, Kind::pressure}, Column{rects[1], 0, -1, Kind::force}};
  const auto& stroke = stroke_of(desk_);
  if (!stroke) return out;
  const auto& bag = fitted().bag;
  out[0].high = std::max(bag->card.max_pressure * 1.08, air::peak_of(bag->card).pressure * 1.03);
  for (const StrokeAt& at : stroke->points) {
    out[0].low = std::min({out[0].low, at.slow_pressure, at.quick_pressure});
    out[0].high = std::max({out[0].high, at.slow_pressure * 1.05, at.quick_pressure * 1.05});
    out[1].high = std::max({out[1].high, at.slow_force * 1.06, at.quick_force * 1.06});
  }
  out[0].low = std::min(0.0, out[0].low);
  out[1].low = 0;
  return out;
}

QString StrokeView::summary() const {
  const auto& stroke = stroke_of(desk_);
  if (!stroke) return desk_.words_of(stroke.error());
  const auto& card = fitted().bag->card;
  const auto pressure = [&](const assess::StrokeEnd& end) {
    return end.pressure ? desk_.shown_pressure(*end.pressure, end.beyond) : tr("unknown, off its card");
  };
  const air::Peak peak = air::peak_of(card);
  QString out = tr("Sealed at %1: full bump, heavier side, %2 of %3 steadily, %6 for a moment%7; full rebound, lighter "
                   "side, %4 (least %5).")
                    .arg(desk_.shown(stroke->from, Kind::length), pressure(stroke->ends.bump),
                         desk_.shown(card.max_pressure, Kind::pressure), pressure(stroke->ends.rebound),
                         desk_.shown(card.min_pressure, Kind::pressure))
                    .arg(desk_.shown(peak.pressure, Kind::pressure), peak.stated ? QString() : tr(" (ours)"));
  if (stroke->under_minimum)
    out += card.kind == air::BagKind::sleeve
               ? tr(" Above %1 it may come off its piston.").arg(desk_.shown(*stroke->under_minimum, Kind::length))
               : tr(" Above %1 it may fold.").arg(desk_.shown(*stroke->under_minimum, Kind::length));
  if (!stroke->order.empty())
    out += " " + (stroke->stop_before_bag ? tr("%1 meets first.")
                                          : tr("%1 meets first: an outside stop must come before the bag."))
                     .arg(tr(assess::bump_end_name(stroke->order.front().what)));
  if (fitted().model.setting.added_volume > 0)
    out += tr(" Of the volume %1 breathe in bump, %2 in rebound.")
               .arg(desk_.shown(stroke->ends.bump.added_taking_part, Kind::volume),
                    desk_.shown(stroke->ends.rebound.added_taking_part, Kind::volume));
  return out;
}

void StrokeView::paint_order(QPainter& painter) const {
  const auto& stroke = stroke_of(desk_);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const HeightScale s = scale();
  const QRectF p = plot();
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  painter.drawText(QRectF(p.left(), p.top() - look.px(18), look.px(166), look.px(14)), Qt::AlignLeft | Qt::AlignVCenter,
                   tr("what meets, in bump"));
  std::vector<double> wanted;
  std::vector<const assess::BumpEnd*> shown;
  for (const auto& end : stroke->order)
    shown.push_back(&end), wanted.push_back(s.clamped_y(end.H));
  const double line = painter.fontMetrics().height();
  const auto y = spread_apart(wanted, line, p.top() + line, p.bottom() - line / 2);
  for (std::size_t i = 0; i < shown.size(); ++i) {
    const bool bag =
        shown[i]->what == assess::BumpEnd::What::bag_margin || shown[i]->what == assess::BumpEnd::What::bag_collapsed;
    painter.setPen(i == 0 ? (stroke->stop_before_bag ? t.good : t.stop) : bag ? t.stop : t.second);
    painter.setFont(look.font(TextSize::small, i == 0));
    const QString text =
        QString("%1 %2").arg(QString::fromStdString(show_parts(shown[i]->H, Kind::length, desk_.prefs()).number),
                             tr(assess::bump_end_name(shown[i]->what)));
    const QRectF room(p.left(), y[i] - line / 2, look.px(164), line);
    painter.drawText(room, Qt::AlignRight | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(room.width())));
    painter.drawLine(QPointF(p.left() + look.px(166), y[i]), QPointF(p.left() + look.px(174), wanted[i]));
  }
}

void StrokeView::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& stroke = stroke_of(desk_);
  paint_axis(painter);
  if (!stroke) return;
  paint_order(painter);
  const auto all = columns();
  paint_blocked(painter, {all[0].rect, all[1].rect});
  paint_head(painter, all[0].rect, tr("bag pressure, quick and slow"),
             QString::fromStdString(unit_name(Kind::pressure, desk_.prefs())));
  paint_head(painter, all[1].rect, tr("force along the bag"),
             QString::fromStdString(unit_name(Kind::force, desk_.prefs())));
  const HeightScale s = scale();
  const auto& card = fitted().bag->card;
  for (const Column& column : all)
    paint_values(painter, column);
  painter.save();
  painter.setClipRect(all[0].rect.united(all[1].rect));
  painter.setRenderHint(QPainter::Antialiasing);
  const double peak = air::peak_of(card).pressure;
  for (const auto& [p, colour] :
       {std::pair{peak, t.stop}, std::pair{card.max_pressure, t.caution}, std::pair{card.min_pressure, t.caution}}) {
    painter.setPen(QPen(colour, 1));
    painter.drawLine(QPointF(all[0].x(p), all[0].rect.top()), QPointF(all[0].x(p), all[0].rect.bottom()));
  }
  const auto draw = [&](const Column& column, double StrokeAt::*what, const QPen& pen) {
    QPolygonF line;
    for (const StrokeAt& at : stroke->points)
      line << QPointF(column.x(at.*what), s.y(at.H));
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
  };
  const QPen slow(t.end(desk_.end()), 1);
  draw(all[0], &StrokeAt::slow_pressure, slow);
  draw(all[1], &StrokeAt::slow_force, slow);
  draw(all[0], &StrokeAt::quick_pressure, line_pen(2.2));
  draw(all[1], &StrokeAt::quick_force, line_pen(2.2));
  painter.restore();
  // What the upright lines are, at the foot where there is room beside them.
  painter.setFont(look.font(TextSize::small));
  const double y = all[0].rect.bottom() - look.px(4);
  painter.setPen(t.stop);
  painter.drawText(QRectF(all[0].x(peak) - look.px(84), y - look.px(14), look.px(80), look.px(14)), Qt::AlignRight,
                   tr("peak"));
  painter.setPen(t.caution);
  painter.drawText(QRectF(all[0].x(card.max_pressure) - look.px(84), y - look.px(28), look.px(80), look.px(14)),
                   Qt::AlignRight, tr("maximum"));
  painter.drawText(QRectF(all[0].x(card.min_pressure) + look.px(4), y - look.px(14), look.px(80), look.px(14)),
                   Qt::AlignLeft, tr("minimum"));
}

void StrokeView::paint_figures(QPainter& painter, double y) const {
  const auto& stroke = stroke_of(desk_);
  if (!stroke) return;
  const double H = scale().H(y);
  const auto at = std::lower_bound(stroke->points.begin(), stroke->points.end(), H - 5e-4,
                                   [](const StrokeAt& point, double wanted) { return point.H < wanted; });
  if (at == stroke->points.end() || at->H > H + 0.002) return;
  const auto all = columns();
  paint_figure(painter, all[0], at->quick_pressure, y);
  paint_figure(painter, all[1], at->quick_force, y);
}

} // namespace mavrel::app
