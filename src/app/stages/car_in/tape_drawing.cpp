#include "app/stages/car_in/tape_drawing.h"

#include "app/kit/car_outline.h"
#include "app/stages/car_in/end_figure.h"
#include "app/theme/text_line.h"
#include "build/names.h"

#include <QPainter>

#include <algorithm>

namespace mavrel::app {

using build::at;

TapeDrawing::TapeDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("tape_drawing");
  setAccessibleName(tr("Where the tape goes"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] { update(); });
}

void TapeDrawing::show_place(const QString& path) {
  path_ = path;
  update();
}

namespace {

End end_of(const QString& path) {
  return path.startsWith("rear") ? End::rear : End::front;
}
QString key_of_path(const QString& path) {
  return path.section('.', -1);
}

} // namespace

bool TapeDrawing::at_spring() const {
  const QString key = key_of_path(path_);
  return !path_.startsWith("body.") && key != "height_m" && key != "mass_kg" && key != "wheel" && key != "floor_m";
}

CarView TapeDrawing::view(const CarShape& s) const {
  const Look& look = desk_.look();
  const double side = look.px(16), foot = look.px(54), top = look.px(10);
  CarView v;
  v.scale = std::max(20.0, std::min((width() - 2 * side) / s.length(), (height() - top - foot) / s.height));
  v.x0 = (width() - s.length() * v.scale) / 2 + s.front_overhang * v.scale;
  v.y0 = height() - foot - std::max(0.0, (height() - top - foot - s.height * v.scale) / 2);
  return v;
}

/// Under the car: the spring and damper as large as the page allows, the car itself small above them.
QRectF TapeDrawing::figure_room() const {
  const double tall = height() - desk_.look().px(24);
  return {width() * 0.30, double(desk_.look().px(8)), width() * 0.4, tall};
}

QLineF TapeDrawing::tape() const {
  const QString key = key_of_path(path_);
  const End end = end_of(path_);
  if (!at_spring()) {
    const CarShape s = car_shape(desk_);
    const CarView v = view(s);
    const double x = end == End::front ? 0 : s.wheelbase;
    if (key == "height_m") return {v.at(x, s.radius[at(end)]), v.at(x, s.arch[at(end)])};
    if (key == "wheelbase_m") return {v.at(0, s.radius[0]), v.at(s.wheelbase, s.radius[1])};
    return {};
  }
  const EndFigure figure(desk_, end, figure_room());
  if (key == "spring_length_m") return figure.spring;
  if (key == "damper_length_m") return figure.damper;
  if (key == "damper_open_m") return figure.open;
  if (key == "damper_shut_m") return figure.shut;
  if (key == "bump_stop_gap_m") return figure.stop.value_or(QLineF());
  if (key == "bag_room_m") return figure.bag;
  return {};
}

void TapeDrawing::paint_scale_pad(QPainter& painter, const CarShape& s, const CarView& v) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const End end = end_of(path_);
  const double r = s.radius[at(end)], x = end == End::front ? 0 : s.wheelbase;
  const QPointF foot = v.at(x, 0);
  painter.setBrush(t.caution);
  painter.setPen(QPen(t.ink, 1.4));
  painter.drawRect(QRectF(foot.x() - r * v.scale * 0.8, foot.y(), r * v.scale * 1.6, look.px(16)));
  painter.setPen(t.panel);
  painter.setFont(look.font(TextSize::small, true));
  draw_line(painter, QRectF(foot.x() - r * v.scale * 0.8, foot.y(), r * v.scale * 1.6, look.px(16)), Qt::AlignCenter,
            tr("scale"));
}

void TapeDrawing::paintEvent(QPaintEvent*) {
  if (path_.isEmpty()) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QString key = key_of_path(path_);
  const End end = end_of(path_);
  if (at_spring()) {
    const EndFigure figure(desk_, end, figure_room());
    figure.paint(painter);
    painter.setPen(t.second);
    painter.setFont(look.font(TextSize::normal));
    draw_line(painter, QRectF(0, look.px(6), width() * 0.28, look.px(18)), Qt::AlignRight | Qt::AlignTop,
              tr("%1, under the car").arg(tr(build::name_of(end))));
    // A ratio is two movements against each other.
    if (key.endsWith("ratio")) {
      const QLineF moves = key == "motion_ratio" ? figure.spring : figure.damper;
      painter.setPen(QPen(t.caution, look.px(3)));
      for (const double y : {moves.y1(), moves.y2()})
        painter.drawLine(QPointF(moves.x1() - look.px(26), y), QPointF(moves.x1() + look.px(26), y));
    }
  } else {
    const CarShape s = car_shape(desk_);
    const CarView v = view(s);
    paint_car_body(painter, desk_, s, v);
    paint_car_wheels(painter, desk_, s, v, width());
    const double x = end == End::front ? 0 : s.wheelbase;
    if (key == "mass_kg") paint_scale_pad(painter, s, v);
    if (key == "wheel") {
      painter.setPen(QPen(t.caution, look.px(4)));
      painter.setBrush(Qt::NoBrush);
      painter.drawEllipse(v.at(x, s.radius[at(end)]), s.radius[at(end)] * v.scale * 0.84,
                          s.radius[at(end)] * v.scale * 0.84);
    }
    // The side view shows one flank: which side it is, is said at the nose.
    painter.setPen(t.second);
    painter.setFont(look.font(TextSize::normal));
    const QString side = path_.section('.', 1, 1);
    if (side == "left" || side == "right")
      draw_line(painter, QRectF(0, height() - look.px(24), width(), look.px(18)), Qt::AlignCenter,
                side == "left" ? tr("left side of the car") : tr("right side of the car"));
  }
  if (const QLineF line = tape(); line.length() > 1) paint_tape(painter, look, line.p1(), line.p2());
}

} // namespace mavrel::app
