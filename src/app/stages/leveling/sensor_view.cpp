#include "app/stages/leveling/sensor_view.h"

#include "app/desk/desk.h"
#include "app/kit/drawing.h"
#include "app/kit/nudge.h"
#include "app/stages/leveling/questions.h"
#include "app/theme/text_line.h"
#include "quantity/quantity.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::app {

using build::at;

namespace {

constexpr double high = 0.70; // m above the floor that are drawn

build::SensorFit& fit_in(build::Build& build, End end) {
  return build.variant().leveling.sensors[at(end)];
}

} // namespace

SensorView::SensorView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("sensor_view");
  setAccessibleName(tr("Height sensor, seen from the front"));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(desk_.look().px(150));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, [this] {
      describe();
      update();
    });
  connect(&desk_, &Desk::rewound, this, [this] { dragged_from_.reset(); });
}

double SensorView::dh() const {
  const auto& surveyed = desk_.assessment().end(desk_.end()).surveyed_height;
  const auto pose = desk_.pose(desk_.end());
  return surveyed && pose ? *pose - *surveyed : 0;
}

SensorView::Frame SensorView::frame() const {
  const double u = desk_.look().unit();
  // From a little inboard of the sensor out to past the wheel; in steps, so that a drag does not move the paper.
  double from = 0.25;
  if (const auto& linkage = sensor_of(desk_, desk_.end()).linkage)
    from = std::clamp(std::floor((std::min(linkage->pivot.x, linkage->pickup.x) - 0.08) * 10) / 10, 0.0, 0.4);
  const double wide = 1.02 - from, head = 3.5 * u;
  const double scale = std::min((width() - 4 * u) / wide, (height() - head - u) / high);
  return {(width() - wide * scale) / 2 - from * scale, height() - u, scale};
}

void SensorView::describe() {
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  if (!s.linkage) return setAccessibleDescription(tr("The sensor is not placed."));
  const auto pose = control::sensor_pose(*s.linkage, dh());
  setAccessibleDescription(
      pose ? tr("Lever at %1, %2 from in line. Space changes between shaft and pickup, arrows move it.")
                 .arg(desk_.shown(pose->angle, Kind::angle), desk_.shown(pose->from_in_line, Kind::angle))
           : desk_.words_of(pose.error()));
}

std::optional<QPointF> SensorView::grip_at(Grip grip) const {
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  if (!s.linkage) return std::nullopt;
  const control::PlanePoint p = grip == Grip::shaft ? s.linkage->pivot : s.linkage->pickup;
  const double down = grip == Grip::pickup ? s.linkage->pickup_ratio * dh() : 0;
  return frame().at(p.x, p.z - down);
}

void SensorView::place() {
  const auto& clear = desk_.answered(desk_.end()).given().clearance;
  // Beside the wheel's inner face, over an arm that moves as the ratio says.
  double hub_y = 0.75, hub_z = 0.31, inner = 0.12;
  if (clear->space) hub_y = clear->space->hub().y, hub_z = clear->space->hub().z;
  if (clear->wheel) inner = clear->wheel->widest / 2 + clear->wheel->offset;
  build::Build next = desk_.build();
  build::SensorFit& fit = fit_in(next, desk_.end());
  const auto round = [](double v) { return std::round(v * 1e3) / 1e3; };
  fit.pickup_y = round(std::max(0.05, hub_y - inner - 0.10)), fit.pickup_z = round(std::max(0.05, hub_z - 0.09));
  fit.pivot_y = round(std::max(0.03, *fit.pickup_y - 0.10)), fit.pivot_z = round(*fit.pickup_z + 0.15);
  fit.lever = 0.1, fit.rod = 0.14, fit.crossing = control::Crossing::above;
  const assess::FittedEnd& end = desk_.answered(desk_.end())->fitted;
  if (const auto better = assess::sensor_at_end(end, fit).better; !better.empty()) {
    const control::SensorLinkage& best = better.front().linkage;
    fit.lever = best.lever, fit.rod = best.rod, fit.crossing = best.crossing;
  }
  desk_.edit(tr("Place the sensor"), std::move(next));
}

void SensorView::move(Grip grip, double by_y, double by_z, const QString& gesture) {
  build::Build next = desk_.build();
  build::SensorFit& fit = fit_in(next, desk_.end());
  auto& y = grip == Grip::shaft ? fit.pivot_y : fit.pickup_y;
  auto& z = grip == Grip::shaft ? fit.pivot_z : fit.pickup_z;
  if (!y || !z) return;
  const auto round = [](double v) { return std::round(v * 1e4) / 1e4; };
  y = std::clamp(round(*y + by_y), 0.0, 1.2);
  z = std::clamp(round(*z + by_z), 0.02, 1.5);
  desk_.edit(grip == Grip::shaft ? tr("Move the sensor's shaft") : tr("Move the sensor's pickup"), std::move(next),
             gesture);
}

void SensorView::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  dragged_from_.reset();
  double best = desk_.look().px(18);
  for (const Grip grip : {Grip::shaft, Grip::pickup}) {
    const auto p = grip_at(grip);
    if (!p) continue;
    if (const double d = std::hypot(p->x() - event->position().x(), p->y() - event->position().y()); d < best)
      best = d, held_ = grip, dragged_from_ = event->position();
  }
  ++drag_;
  update();
}

void SensorView::mouseMoveEvent(QMouseEvent* event) {
  if (!dragged_from_ || !(event->buttons() & Qt::LeftButton)) return;
  const auto p = grip_at(held_);
  if (!p) return;
  const Frame f = frame();
  // To half a millimetre: a hand on a mouse is no better.
  const auto near = [](double v) { return std::round(v * 2e3) / 2e3; };
  move(held_, near((event->position().x() - p->x()) / f.per_metre),
       near((p->y() - event->position().y()) / f.per_metre), QString("sensor %1").arg(drag_));
}

void SensorView::mouseReleaseEvent(QMouseEvent*) {
  if (dragged_from_) desk_.document().end_gesture();
  dragged_from_.reset();
}

void SensorView::keyPressEvent(QKeyEvent* event) {
  if (const auto by = nudge_of(*event)) return move(held_, by->x(), by->y(), stroke_of(*event, desk_.document()));
  switch (event->key()) {
  case Qt::Key_Space:
    held_ = held_ == Grip::shaft ? Grip::pickup : Grip::shaft;
    return update();
  default:
    QWidget::keyPressEvent(event);
  }
}

void SensorView::paint_end(QPainter& painter, const Frame& f) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.setPen(QPen(t.rule, 1));
  painter.drawLine(QPointF(0, f.at(0, 0).y()), QPointF(width(), f.at(0, 0).y()));
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  draw_line(painter, {double(look.px(10)), double(height() - look.px(24)), 220, double(look.px(14))},
            Qt::AlignLeft | Qt::AlignVCenter, tr("← the car's middle"));
  const auto& clear = desk_.answered(desk_.end()).given().clearance;
  if (!clear->space) return;
  const double H = std::clamp(desk_.pose(desk_.end()).value_or(0), clear->space->lowest(), clear->space->highest());
  const assess::Stand stand = clear->space->at(H);
  // In the body's frame the wheel moves: the floor is drawn where the car stood when it was surveyed.
  const auto bar = [&](const space::Rod& rod, const QColor& colour) {
    painter.setPen(QPen(colour, std::max(2.0, 2 * rod.radius * f.per_metre), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(f.at(rod.from.y, rod.from.z), f.at(rod.to.y, rod.to.z));
  };
  QColor pale = t.second;
  pale.setAlphaF(0.30F);
  for (const space::Rod& arm : stand.arms)
    bar(arm, pale);
  if (stand.axle) bar(*stand.axle, pale);
  if (stand.damper) bar(*stand.damper, pale);
  if (!clear->wheel) return;
  const auto section = space::section_of(*clear->wheel);
  const space::Point& o = stand.wheel.outward;
  for (const double side : {1.0, -1.0}) {
    QPolygonF shape;
    for (const auto& p : section) {
      const double y = stand.wheel.centre.y + p.outboard * o.y - side * p.radius * o.z;
      const double z = stand.wheel.centre.z + p.outboard * o.z + side * p.radius * o.y;
      shape << f.at(y, z);
    }
    QColor rubber = t.ink;
    rubber.setAlphaF(0.14F);
    painter.setPen(QPen(t.second, 1.2));
    painter.setBrush(rubber);
    painter.drawPolygon(shape);
  }
  painter.setBrush(Qt::NoBrush);
}

void SensorView::paint_sensor(QPainter& painter, const Frame& f) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  const QColor colour = t.end(desk_.end());
  // Where the lever goes between the ends of the travel.
  if (s.looks.size() > 1) {
    QColor fan = colour;
    fan.setAlphaF(0.16F);
    QPolygonF sector;
    sector << f.at(s.linkage->pivot.x, s.linkage->pivot.z);
    for (const assess::SensorLook& at : s.looks)
      sector << f.at(at.pose.joint.x, at.pose.joint.z);
    painter.setPen(Qt::NoPen);
    painter.setBrush(fan);
    painter.drawPolygon(sector);
    for (const assess::SensorLook* at : {&s.looks.front(), &s.looks.back()}) {
      painter.setPen(QPen(colour, 1, Qt::DotLine));
      painter.drawPolyline(QPolygonF{f.at(s.linkage->pivot.x, s.linkage->pivot.z),
                                     f.at(at->pose.joint.x, at->pose.joint.z),
                                     f.at(at->pose.pickup.x, at->pose.pickup.z)});
    }
  }
  const auto pose = control::sensor_pose(*s.linkage, dh());
  const QPointF pivot = f.at(s.linkage->pivot.x, s.linkage->pivot.z);
  const QPointF pickup = *grip_at(Grip::pickup);
  if (pose) {
    const QPointF joint = f.at(pose->joint.x, pose->joint.z);
    const bool bad = pose->from_in_line < control::may_flip;
    painter.setPen(QPen(bad ? t.stop : colour, look.px(5), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(pivot, joint);
    painter.setPen(QPen(bad ? t.stop : colour, look.px(2.4), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(joint, pickup);
    painter.setBrush(t.panel);
    painter.setPen(QPen(colour, 1.6));
    painter.drawEllipse(joint, look.px(4), look.px(4));
  } else {
    painter.setPen(QPen(t.stop, 1.6, Qt::DashLine));
    painter.drawLine(pivot, pickup);
  }
  for (const Grip grip : {Grip::shaft, Grip::pickup}) {
    const QPointF p = grip == Grip::shaft ? pivot : pickup;
    const bool held = held_ == grip && hasFocus();
    painter.setPen(QPen(held ? t.ink : t.second, held ? 2 : 1.4));
    painter.setBrush(held ? t.selected : t.panel);
    const double r = look.px(6);
    if (grip == Grip::shaft)
      painter.drawEllipse(p, r, r);
    else
      painter.drawRect(QRectF(p.x() - r, p.y() - r, 2 * r, 2 * r));
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.ink);
    const QString name = grip == Grip::shaft ? tr("shaft") : tr("pickup");
    const double w = painter.fontMetrics().horizontalAdvance(name) + 6.0;
    draw_line(painter, {p.x() - w - r - 2, p.y() - look.px(8), w, double(look.px(15))},
              Qt::AlignRight | Qt::AlignVCenter, name);
  }
  // The figures at the pose, above.
  QStringList said;
  if (pose)
    said << tr("%1 from in line").arg(desk_.shown(pose->from_in_line, Kind::angle, 0))
         << tr("%1° a millimetre").arg(std::abs(pose->slope) * 180 / std::numbers::pi * 1e-3, 0, 'f', 2);
  else
    said << desk_.words_of(pose.error());
  if (s.nearest)
    said << tr("nearest: %1, %2")
                .arg(s.nearest->name.empty() ? tr("the wheel") : QString::fromStdString(s.nearest->name),
                     desk_.shown(s.nearest->gap, Kind::length));
  painter.setFont(look.font());
  painter.setPen(pose ? t.ink : t.stop);
  draw_line(painter, {double(look.px(10)), double(look.px(6)), double(width() - look.px(20)), double(look.px(18))},
            Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(said.join(" · "), Qt::ElideRight, width() - look.px(20)));
}

void SensorView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  paint_backdrop(painter, rect(), look);
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setClipRect(rect().adjusted(1, 1, -1, -1));
  const Frame f = frame();
  paint_end(painter, f);
  if (!s.linkage) {
    painter.setFont(look.font());
    painter.setPen(look.tokens().ink);
    painter.drawText(rect().adjusted(look.px(12), look.px(8), -look.px(12), 0), Qt::AlignTop | Qt::TextWordWrap,
                     tr("Nobody said where this sensor sits. “Place it” puts it where it usually is; then drag shaft "
                        "and pickup."));
    return;
  }
  paint_sensor(painter, f);
}

// ---- over height

SensorPlot::SensorPlot(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("sensor_plot");
  setAccessibleName(tr("Sensor over height"));
  setMinimumHeight(desk_.look().px(180));
}

std::vector<SensorPlot::Curve> SensorPlot::curves() const {
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  const auto rects = split(plot().left(), 3);
  const build::SensorFit& fit = desk_.build().variant().leveling.sensors[at(desk_.end())];
  std::vector<Curve> out = {{{rects[0], 0, -1, Kind::angle}, {}},
                            {{rects[1], 0, -1, Kind::plain}, {}},
                            {{rects[2], 0, std::numbers::pi / 2, Kind::angle}, {}}};
  if (s.looks.size() < 2) return out;
  for (const assess::SensorLook& at : s.looks) {
    out[0].values.push_back(s.looks.front().pose.angle + at.turned);
    out[1].values.push_back(std::abs(at.pose.slope) * fit.counts / fit.range * 1e-3);
    out[2].values.push_back(at.pose.from_in_line);
  }
  for (Curve& c : {std::ref(out[0]), std::ref(out[1])}) {
    const auto [least, most] = std::minmax_element(c.values.begin(), c.values.end());
    const double room = std::max(1e-3, 0.15 * (*most - *least));
    c.column.low = *least - room, c.column.high = *most + room;
  }
  out[1].column.low = 0;
  return out;
}

QString SensorPlot::described() const {
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  if (s.looks.empty()) return tr("The sensor is not placed.");
  return tr("The lever turns %1 over the travel, %2 of what the sensor reads; nearest to in line %3.")
      .arg(desk_.shown(s.sweep, Kind::angle, 0), desk_.shown(s.used, Kind::share, 0),
           desk_.shown(s.nearest_in_line, Kind::angle, 0));
}

void SensorPlot::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_axis(painter);
  const auto all = curves();
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  if (!all[0].column.has_values()) {
    const QRectF p = plot();
    painter.fillRect(p, t.panel);
    paint_instead(painter, p.toRect(), look,
                  tr("The lever's angle over height stands here once the sensor is placed."));
    return;
  }
  paint_blocked(painter, {all[0].column.rect, all[1].column.rect, all[2].column.rect});
  paint_head(painter, all[0].column.rect, tr("lever's angle"),
             tr("°, %1 of its range used").arg(desk_.shown(s.used, Kind::share, 0)));
  paint_head(painter, all[1].column.rect, tr("counts a millimetre"), tr("of height"));
  paint_head(painter, all[2].column.rect, tr("from in line"), tr("°, 55 and up reads well"));
  const HeightScale scale_of = scale();
  for (const Curve& c : all) {
    paint_values(painter, c.column);
    painter.save();
    painter.setClipRect(c.column.rect);
    painter.setRenderHint(QPainter::Antialiasing);
    if (&c == &all[2]) {
      // Where it may flip, and where it reads well.
      const QRectF& r = c.column.rect;
      hatch(painter, QRectF(r.left(), r.top(), c.column.x(control::may_flip) - r.left(), r.height()), t.hatch_stop,
            false, look.px(6));
      painter.setPen(QPen(t.good, 1));
      const double x = c.column.x(std::numbers::pi / 2 - control::reads_well);
      painter.drawLine(QPointF(x, r.top()), QPointF(x, r.bottom()));
    }
    QPolygonF line;
    for (std::size_t i = 0; i < c.values.size(); ++i)
      line << QPointF(c.column.x(c.values[i]), scale_of.y(s.looks[i].H));
    painter.setPen(line_pen(2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
    painter.restore();
  }
}

void SensorPlot::paint_figures(QPainter& painter, double y) const {
  const auto all = curves();
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  if (!all[0].column.has_values()) return;
  const double H = scale().H(y);
  for (std::size_t i = 1; i < s.looks.size(); ++i) {
    if (H < s.looks[i - 1].H || H > s.looks[i].H) continue;
    const double u = (H - s.looks[i - 1].H) / (s.looks[i].H - s.looks[i - 1].H);
    for (const Curve& c : all)
      paint_figure(painter, c.column, std::lerp(c.values[i - 1], c.values[i], u), y, 1);
    return;
  }
}

} // namespace mavrel::app
