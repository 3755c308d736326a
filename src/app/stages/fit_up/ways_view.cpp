#include "app/stages/fit_up/ways_view.h"

#include "app/kit/car_outline.h"
#include "app/kit/drawing.h"
#include "app/kit/nudge.h"
#include "app/stages/fit_up/questions.h"
#include "app/theme/text_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::JudgedRoute;

namespace {

constexpr double half_width = 0.9; // m, of a car seen from above

build::PartPlace* place_of(build::Variant& v, const QString& field) {
  if (field == "air.compressor_at") return &v.air.compressor_at;
  if (field == "air.tank_at") return &v.air.tank_at;
  if (field == "air.second_tank_at") return &v.air.second_tank_at;
  if (field == "air.valves_at") return &v.air.valves_at;
  if (field == "air.battery_at") return &v.air.battery_at;
  if (field == "fit_up.controller_at") return &v.fit_up.own().controller_at;
  if (field == "fit_up.handset_at") return &v.fit_up.own().handset_at;
  return nullptr;
}

} // namespace

WaysView::WaysView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("ways_view");
  setFocusPolicy(Qt::StrongFocus);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      if (!isVisible()) return; // it costs its time only while somebody looks
      describe();
      update();
    });
  connect(&desk_, &Desk::rewound, this, [this] { drag_view_ = -1; });
}

void WaysView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  describe();
}

QSize WaysView::sizeHint() const {
  return {desk_.look().px(560), desk_.look().px(360)};
}

void WaysView::hold_route(const QString& key, int point) {
  route_ = key;
  place_.clear();
  point_ = point;
  if (isVisible()) describe();
  update();
}

void WaysView::hold_place(const QString& field) {
  place_ = field;
  route_.clear();
  point_ = -1;
  if (isVisible()) describe();
  update();
}

const JudgedRoute* WaysView::held() const {
  for (const JudgedRoute& r : routes_of(desk_))
    if (r.key == route_.toStdString()) return &r;
  return nullptr;
}

WaysView::Frame WaysView::frame(int view) const {
  const CarShape shape = car_shape(desk_);
  const double margin = desk_.look().px(12), gap = desk_.look().px(18);
  const double tall = shape.height + 0.05, wide = 2 * half_width + 0.1;
  Frame out;
  out.scale = std::min((width() - 2 * margin) / (shape.length() + 0.1), (height() - 2 * margin - gap) / (tall + wide));
  const double used = (tall + wide) * out.scale + gap, top = (height() - used) / 2;
  out.x0 = (width() - shape.length() * out.scale) / 2 + shape.front_overhang * out.scale;
  out.y0 = view == 0 ? top + tall * out.scale : top + tall * out.scale + gap + wide / 2 * out.scale;
  return out;
}

QPointF WaysView::at(int view, double x, double y, double z) const {
  return frame(view).at(x, view == 0 ? z : y);
}

QPointF WaysView::point_at(int point, int view) const {
  const JudgedRoute* r = held();
  if (!r || point < 0 || static_cast<std::size_t>(point) + 1 >= r->way.corners.size()) return {};
  const space::Point& p = r->way.corners[static_cast<std::size_t>(point) + 1];
  return at(view, p.x, p.y, p.z);
}

QPointF WaysView::place_at(const QString& field, int view) const {
  build::Variant v = desk_.build().variant();
  const build::PartPlace* p = place_of(v, field);
  return p ? at(view, p->x, p->y, p->z) : QPointF();
}

void WaysView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  paint_backdrop(painter, rect(), desk_.look());
  paint_car(painter);
  for (const int view : {0, 1}) {
    paint_kit(painter, view);
    paint_routes(painter, view);
  }
}

void WaysView::paint_car(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const CarShape shape = car_shape(desk_);
  const Frame side = frame(0), above = frame(1);
  paint_car_body(painter, desk_, shape, {side.scale, side.x0, side.y0});
  painter.setPen(QPen(t.rule, 1.6));
  painter.setBrush(Qt::NoBrush);
  painter.drawLine(side.at(-shape.front_overhang, 0), side.at(shape.wheelbase + shape.rear_overhang, 0));
  const QRectF body(above.at(-shape.front_overhang, half_width),
                    above.at(shape.wheelbase + shape.rear_overhang, -half_width));
  painter.drawRoundedRect(body, 0.25 * above.scale, 0.25 * above.scale);
  for (const End end : build::both_ends) {
    const double x = end == End::front ? 0 : shape.wheelbase, r = shape.radius[build::at(end)];
    painter.setPen(QPen(t.end(end), 1.6));
    painter.drawEllipse(side.at(x, r), r * side.scale, r * side.scale);
    const double track = desk_.build().end(end).track.value_or(1.5) / 2;
    for (const double y : {track, -track}) {
      // A steered wheel at both locks too: what turns is what a line keeps clear of.
      const double lock = end == End::front ? desk_.build().end(end).points->lock.value_or(0.0) : 0.0;
      for (const double angle : {0.0, lock, -lock}) {
        painter.save();
        painter.translate(above.at(x, y));
        painter.rotate(angle * 57.29577951308232);
        painter.setPen(QPen(t.end(end), angle == 0 ? 1.6 : 0.7, angle == 0 ? Qt::SolidLine : Qt::DotLine));
        painter.drawRect(QRectF(-r * above.scale, -0.11 * above.scale, 2 * r * above.scale, 0.22 * above.scale));
        painter.restore();
        if (lock == 0) break;
      }
    }
  }
  painter.setFont(look.font(TextSize::small));
  for (const build::HotPart& hot : desk_.build().body.hot)
    for (const int view : {0, 1}) {
      const Frame f = frame(view);
      painter.setPen(QPen(t.stop, std::max(2.0, 2 * hot.radius * f.scale),
                          hot.shielded == build::Shielded::yes ? Qt::DashLine : Qt::SolidLine, Qt::RoundCap));
      QColor soft = t.stop;
      soft.setAlpha(70);
      QPen pen = painter.pen();
      pen.setColor(soft);
      painter.setPen(pen);
      painter.drawLine(at(view, hot.x, hot.y, hot.z), at(view, hot.to_x, hot.to_y, hot.to_z));
    }
}

void WaysView::paint_kit(QPainter& painter, int view) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const Frame f = frame(view);
  painter.setFont(look.font(TextSize::small));
  const auto& given = fit_up_of(desk_);
  struct Name {
    QRectF above;
    QString text;
    bool held;
  };
  std::vector<Name> names; // written when every box is there
  const auto box = [&](const QString& field, const QString& name, double x, double y, double z, double along,
                       double tall) {
    const QPointF c = at(view, x, y, z);
    const QRectF r(c.x() - along * f.scale / 2, c.y() - tall * f.scale / 2, along * f.scale, tall * f.scale);
    const bool held = field == place_;
    painter.setPen(QPen(held ? t.ink : t.second, held ? 2.2 : 1));
    painter.setBrush(held ? t.selected : t.panel);
    painter.drawRect(r);
    painter.setBrush(Qt::NoBrush);
    names.push_back({r, name, held});
  };
  for (const assess::KitBox& b : assess::kit_boxes(given.air().kit, given.air().parts))
    box(b.place ? QString("air.%1").arg(b.place) : QString(), desk_.words_of({assess::row_of(b.role).label, {}}), b.x,
        b.y, b.z, b.along, view == 0 ? b.height : b.across);
  const build::FitUp& fit_up = *given.fit_up;
  const bool block = given.air().kit.school == build::ValveSchool::block && !given.air().kit.valves.empty();
  if (block)
    box("fit_up.controller_at", tr("controller"), fit_up.controller_at.x, fit_up.controller_at.y,
        fit_up.controller_at.z, 0.12, 0.06);
  if (block)
    box("fit_up.handset_at", tr("handset"), fit_up.handset_at.x, fit_up.handset_at.y, fit_up.handset_at.z, 0.05, 0.10);
  std::vector<QRectF> taken;
  for (const Name& n : names) {
    const double wide = QFontMetricsF(painter.font()).horizontalAdvance(n.text) + 4, high = look.px(14);
    QRectF text(n.above.center().x() - wide / 2, n.above.top() - high - 1, wide, high);
    for (int tries = 0; tries < 6; ++tries) {
      const auto hit = std::find_if(taken.begin(), taken.end(), [&](const QRectF& o) { return o.intersects(text); });
      if (hit == taken.end()) break;
      text.moveBottom(hit->top() - 1);
    }
    taken.push_back(text);
    QColor under = t.panel;
    under.setAlpha(200);
    painter.fillRect(text, under);
    painter.setPen(n.held ? t.ink : t.second);
    draw_line(painter, text, Qt::AlignHCenter | Qt::AlignVCenter, n.text);
  }
}

void WaysView::paint_routes(QPainter& painter, int view) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (const JudgedRoute& r : routes_of(desk_)) {
    const bool mine = r.key == route_.toStdString();
    const QColor colour = r.key.starts_with("front") ? t.front : r.key.starts_with("rear") ? t.rear : t.second;
    painter.setPen(QPen(colour, mine ? 3 : 1.2, r.laid ? (r.air ? Qt::SolidLine : Qt::DashLine) : Qt::DotLine));
    QPolygonF way;
    for (const space::Point& p : r.way.corners)
      way << at(view, p.x, p.y, p.z);
    painter.drawPolyline(way);
    if (!mine) continue;
    painter.setFont(look.font(TextSize::small, true));
    painter.setPen(t.ink);
    // Both ends carry the same mark.
    for (const QPointF& end : {way.first(), way.last()}) {
      const QRectF tag(end.x() - look.px(12), end.y() + look.px(6), look.px(24), look.px(15));
      painter.fillRect(tag, t.ink);
      painter.setPen(t.panel);
      draw_line(painter, tag, Qt::AlignHCenter | Qt::AlignVCenter, QString::fromStdString(r.mark));
    }
    if (!r.laid) continue;
    const auto& points = desk_.build().variant().fit_up->routes[r.index].points;
    painter.setFont(look.font(TextSize::small));
    for (std::size_t i = 0; i < points.size() && static_cast<int>(i) + 1 < way.size(); ++i) {
      const QPointF p = way[static_cast<int>(i) + 1];
      const double s = look.px(static_cast<int>(i) == point_ ? 6 : 4);
      // A clip is round, a grommet a ring in a sheet, a bulkhead square.
      painter.setPen(QPen(colour, 1.8));
      painter.setBrush(points[i].kind == build::WayKind::grommet ? t.panel : colour);
      if (points[i].kind == build::WayKind::bulkhead)
        painter.drawRect(QRectF(p.x() - s, p.y() - s, 2 * s, 2 * s));
      else
        painter.drawEllipse(p, s, s);
      painter.setBrush(Qt::NoBrush);
      if (static_cast<int>(i) == point_) {
        painter.setPen(t.ink);
        draw_line(painter, QRectF(p.x() + s + 3, p.y() - look.px(8), look.px(120), look.px(16)),
                  Qt::AlignLeft | Qt::AlignVCenter, QString::fromStdString(points[i].name));
      }
    }
  }
}

void WaysView::mousePressEvent(QMouseEvent* event) {
  const double near = desk_.look().px(9);
  const auto close = [&](const QPointF& p) {
    return std::hypot(p.x() - event->position().x(), p.y() - event->position().y()) < near;
  };
  const int view = event->position().y() > (frame(0).y0 + frame(1).y0 - half_width * frame(1).scale) / 2 ? 1 : 0;
  last_ = event->position();
  ++drag_;
  if (const JudgedRoute* r = held(); r && r->laid)
    for (std::size_t i = 0; i + 2 < r->way.corners.size(); ++i)
      if (close(point_at(static_cast<int>(i), view))) {
        point_ = static_cast<int>(i);
        drag_view_ = view;
        emit chose_point(point_);
        describe();
        return update();
      }
  for (const assess::JudgedPlace& p : places_of(desk_))
    if (close(at(view, p.at.x, p.at.y, p.at.z))) {
      hold_place(QString::fromStdString(p.place));
      drag_view_ = view;
      emit chose_place(place_);
      return;
    }
  // A line by one of its stretches.
  for (const JudgedRoute& r : routes_of(desk_))
    for (std::size_t i = 1; i < r.way.corners.size(); ++i) {
      const space::Point &p = r.way.corners[i - 1], &q = r.way.corners[i];
      const QPointF a = at(view, p.x, p.y, p.z), b = at(view, q.x, q.y, q.z), d = b - a;
      const double length = QPointF::dotProduct(d, d);
      const double share =
          length > 0 ? std::clamp(QPointF::dotProduct(event->position() - a, d) / length, 0.0, 1.0) : 0;
      if (close(a + share * d)) {
        hold_route(QString::fromStdString(r.key));
        emit chose_route(route_);
        return;
      }
    }
}

void WaysView::mouseMoveEvent(QMouseEvent* event) {
  if (drag_view_ < 0) return;
  const Frame f = frame(drag_view_);
  const QPointF by = event->position() - last_;
  // To the millimetre: a hand on a mouse is no better. What is left over is moved by what comes next.
  const QPointF moved =
      move_held(drag_view_, {by.x() / f.scale, -by.y() / f.scale}, 1e-3, QString("ways %1").arg(drag_));
  last_ += QPointF(moved.x() * f.scale, -moved.y() * f.scale);
}

void WaysView::mouseReleaseEvent(QMouseEvent*) {
  if (drag_view_ >= 0) desk_.document().end_gesture();
  drag_view_ = -1;
}

QPointF WaysView::move_held(int view, QPointF by, double grain, const QString& gesture) {
  build::Build build = desk_.build();
  QPointF moved;
  const auto shift = [&](double& x, double& y, double& z) {
    double& v = view == 0 ? z : y;
    const double x_was = x, v_was = v;
    x = std::clamp(std::round((x + by.x()) / grain) * grain, -3.0, 7.0);
    v = std::round((v + by.y()) / grain) * grain;
    v = view == 0 ? std::clamp(v, 0.0, 2.0) : std::clamp(v, -1.2, 1.2);
    moved = {x - x_was, v - v_was};
  };
  if (!place_.isEmpty()) {
    build::PartPlace* p = place_of(build.variant(), place_);
    if (!p) return {};
    shift(p->x, p->y, p->z);
    desk_.edit(tr("Move a part"), std::move(build), gesture);
    return moved;
  }
  const JudgedRoute* r = held();
  if (!r || !r->laid || point_ < 0) return {};
  auto& points = build.variant().fit_up.own().routes[r->index].points;
  if (static_cast<std::size_t>(point_) >= points.size()) return {};
  build::WayPoint& p = points[static_cast<std::size_t>(point_)];
  shift(p.x, p.y, p.z);
  desk_.edit(tr("Move a line's point"), std::move(build), gesture);
  return moved;
}

void WaysView::keyPressEvent(QKeyEvent* event) {
  if (const auto by = nudge_of(*event)) {
    // Seen from above with Ctrl held, from the side without.
    const int view = event->modifiers() & Qt::ControlModifier ? 1 : 0;
    move_held(view, *by, 1e-4, stroke_of(*event, desk_.document()));
    return;
  }
  const JudgedRoute* r = held();
  const bool next = event->key() == Qt::Key_BracketRight, before = event->key() == Qt::Key_BracketLeft;
  if (r && r->laid && (next || before)) {
    const int count = static_cast<int>(r->way.corners.size()) - 2;
    if (count > 0) point_ = (point_ + (next ? 1 : count - 1) + count) % count;
    emit chose_point(point_);
    describe();
    return update();
  }
  QWidget::keyPressEvent(event);
}

bool WaysView::event(QEvent* event) {
  if (is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

void WaysView::describe() {
  QString said = tr("Car from the side and from above");
  if (const JudgedRoute* r = held()) {
    said += tr(". %1, %2 long").arg(desk_.words_of(r->name), desk_.shown(r->length, Kind::length, 0));
    if (r->laid && point_ >= 0) said += tr(", point %1").arg(point_ + 1);
  }
  setAccessibleName(said);
}

} // namespace mavrel::app
