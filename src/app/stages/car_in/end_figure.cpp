#include "app/stages/car_in/end_figure.h"

#include "assess/end/end_answer.h"
#include "curve/readings.h"

#include <algorithm>

namespace mavrel::app {

using build::at;

EndFigure::EndFigure(const Desk& desk, End end, const QRectF& room)
    : desk_(desk), end_(end), apart_(desk.build().end(end).spring_place == build::SpringPlace::apart) {
  const build::EndSurvey& e = desk.build().end(end);
  const double seat = length(e.spring_length, 0.19), now = length(e.damper_length, 0.40),
               out = length(e.damper_open, 0.45), in = length(e.damper_shut, 0.31);
  scale_ = room.height() / (std::max({out, now, seat}) * 1.02);
  unit_ = std::clamp(room.height() / 222, 0.8, 2.2);
  const double middle = room.center().x();
  damper_x_ = apart_ ? middle + 48 * unit_ : middle + 12 * unit_;
  spring_x_ = apart_ ? middle - 42 * unit_ : damper_x_;
  eye_ = room.bottom() - 3 * unit_;
  half_ = (apart_ ? 34 : 26) * unit_;
  // Around the damper the upper seat is at the damper's top; apart, the lower seat stands on the arm or axle.
  const double top = apart_ ? room.bottom() - seat * scale_ - 16 * unit_ : eye_ - now * scale_;
  const double tape = spring_x_ - half_ - 10 * unit_;
  spring = {tape, top, tape, top + seat * scale_};
  const double ruler = damper_x_ + 40 * unit_;
  damper = {ruler, eye_, ruler, eye_ - now * scale_};
  open = {ruler, eye_, ruler, eye_ - out * scale_};
  shut = {ruler, eye_, ruler, eye_ - in * scale_};
  if (e.bump_stop_place == build::StopPlace::damper) {
    const double body = eye_ - in * scale_ * 0.58, gap = length(e.bump_stop_gap, 0.06) * scale_;
    stop = QLineF(damper_x_ + 8 * unit_, body, damper_x_ + 8 * unit_, body - gap);
  }
  const double across = (spring.y1() + spring.y2()) / 2;
  bag = {spring_x_ - half_ * 0.9, across, spring_x_ + half_ * 0.9, across};
}

double EndFigure::length(const build::Readings& readings, double usual) const {
  return curve::mean(readings.values).value_or(usual);
}

void EndFigure::paint(QPainter& painter) const {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  paint_damper(painter);
  paint_spring(painter);
  painter.restore();
}

void EndFigure::paint_spring(QPainter& painter) const {
  const Tokens& t = desk_.look().tokens();
  const double top = spring.y1(), bottom = spring.y2(), x = spring_x_;
  painter.setPen(QPen(t.ink, 2));
  painter.drawLine(QPointF(x - half_, top), QPointF(x + half_, top));
  painter.drawLine(QPointF(x - half_, bottom), QPointF(x + half_, bottom));
  if (apart_) { // the arm it stands on
    painter.setPen(QPen(t.ink, 3 * unit_, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(QPointF(x - half_ - 14 * unit_, bottom + 7 * unit_), QPointF(x + 100 * unit_, eye_ - unit_));
  }
  // The bag's room between the seats: stacks and what is left for it.
  const build::EndFit& fit = desk_.build().variant().fit[at(end_)];
  const double upper = fit.upper_stack * scale_, lower = fit.lower_stack * scale_;
  painter.setPen(Qt::NoPen);
  painter.setBrush(t.rule);
  painter.drawRect(QRectF(x - half_ * 0.8, top + 1, half_ * 1.6, upper));
  painter.drawRect(QRectF(x - half_ * 0.8, bottom - lower, half_ * 1.6, lower - 1));
  QColor air = t.end(end_);
  air.setAlphaF(0.20F);
  painter.setBrush(air);
  painter.setPen(QPen(t.end(end_), 1.4));
  const double room = std::max(2.0, bottom - top - upper - lower);
  painter.drawRoundedRect(QRectF(x - half_ * 0.9, top + upper, half_ * 1.8, room), 8 * unit_, 8 * unit_);
}

void EndFigure::paint_damper(QPainter& painter) const {
  const Tokens& t = desk_.look().tokens();
  const double x = damper_x_, w = 9 * unit_, body = (eye_ - shut.y2()) * 0.58;
  painter.setPen(QPen(t.ink, 1.4));
  painter.setBrush(t.panel);
  painter.drawRect(QRectF(x - w, eye_ - body, 2 * w, body));
  painter.drawLine(QPointF(x, eye_ - body), QPointF(x, damper.y2()));
  if (stop) { // on the rod, its gap under it
    painter.setBrush(t.caution);
    painter.setPen(Qt::NoPen);
    painter.drawRect(QRectF(x - 6 * unit_, stop->y2() - 12 * unit_, 12 * unit_, 12 * unit_));
  }
  painter.setPen(QPen(t.ink, 1.4));
  painter.setBrush(t.panel);
  painter.drawEllipse(QPointF(x, eye_), 4 * unit_, 4 * unit_);
  painter.drawEllipse(QPointF(x, damper.y2()), 4 * unit_, 4 * unit_);
  // Where it is, and where its ends are, on a ruler beside it.
  painter.setPen(QPen(t.rule, 4));
  painter.drawLine(shut.p2(), open.p2());
  for (const auto& [line, colour] : {std::pair{&open, t.stop}, {&damper, t.end(end_)}, {&shut, t.stop}}) {
    painter.setPen(QPen(colour, 2));
    painter.drawLine(line->p2() - QPointF(6, 0), line->p2() + QPointF(6, 0));
  }
}

} // namespace mavrel::app
