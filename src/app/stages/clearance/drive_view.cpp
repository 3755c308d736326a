#include "app/stages/clearance/drive_view.h"

#include "app/desk/desk.h"
#include "app/kit/car_outline.h"
#include "app/kit/drawing.h"
#include "app/kit/height_scale.h"
#include "app/kit/nudge.h"
#include "app/theme/text_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using build::End;
using space::SidePoint;

DriveView::DriveView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("drive_view");
  setAccessibleName(tr("Car over the ground, from the left"));
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::SizeHorCursor);
  setMouseTracking(true);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumHeight(desk_.look().px(170));
  for (const auto signal : {&Desk::changed, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, [this] {
      update();
      emit driven();
    });
  connect(&desk_, &Desk::rewound, this, [this] {
    dragging_ = false;
    held_.reset();
  });
}

std::optional<DriveView::Scene> DriveView::scene() const {
  const auto front = desk_.pose(End::front), rear = desk_.pose(End::rear);
  if (!front || !rear) return std::nullopt;
  const assess::GroundGiven& given = desk_.assessment().ground.given();
  auto car = assess::stand_on(given, ground_, *front, *rear, at_);
  return car ? std::optional(Scene{std::move(*car), given}) : std::nullopt;
}

void DriveView::drive_over(std::optional<std::size_t> ground) {
  ground_ = ground;
  drive_to_worst();
  emit turned_to(ground);
}

void DriveView::drive_to(double x) {
  at_ = std::clamp(x, -12.0, 220.0);
  update();
  emit driven();
}

void DriveView::drive_to_worst() {
  const auto s = scene();
  drive_to(s ? assess::worst_place(*s) : 0);
}

QString DriveView::told() const {
  const auto s = scene();
  if (!s) {
    const auto& given = desk_.assessment().ground.given();
    if (given.underside.empty()) return tr("Enter what of the car is low: lip, pan, pipes, sills, bumper.");
    if (!given.wheelbase) return tr("The wheelbase is missing on Car in.");
    return tr("A height or a tyre is missing on Car in.");
  }
  if (!s->here) return tr("Both wheels can't stand here: the ground is too steep for this wheelbase.");
  const auto names = assess::names_of_underside(s->given);
  const QString point = QString::fromStdString(names[s->here->point]);
  const QString margin =
      ground_ && *ground_ < s->given.grounds.size()
          ? tr(", %1 to be kept").arg(desk_.shown(s->given.grounds[*ground_].margin, Kind::length, 0))
          : QString();
  return s->here->gap < 0
             ? tr("■ %1 touches here, %2 too low%3").arg(point, desk_.shown(-s->here->gap, Kind::length, 0), margin)
             : tr("%1 is nearest here, %2 clear%3").arg(point, desk_.shown(s->here->gap, Kind::length, 0), margin);
}

DriveView::Frame DriveView::frame(const Scene& s) const {
  const Look& look = desk_.look();
  Frame f;
  const build::Body& body = desk_.build().body;
  const double nose = body.front_overhang.value_or(0.9), tail = body.rear_overhang.value_or(1.0);
  const double ahead = std::max(nose, 0.6) + 0.5, behind = s.car.wheelbase + tail + 0.3;
  f.px_per_m = std::min((width() - look.px(20.0)) / (ahead + behind), (height() - look.px(44.0)) / 1.45);
  // The car stays where it is on the screen; the ground goes by under it. Forward is at the left.
  f.x0 = look.px(10) + ahead * f.px_per_m + at_ * f.px_per_m +
         (width() - look.px(20.0) - (ahead + behind) * f.px_per_m) / 2;
  f.y0 = height() - look.px(20.0) - 0.12 * f.px_per_m +
         space::height_at(s.profile, at_ - s.car.wheelbase / 2) * f.px_per_m;
  return f;
}

void DriveView::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  paint_backdrop(painter, rect(), look);
  const auto s = scene();
  if (!s) {
    paint_instead(painter, rect(), look, told());
    return;
  }
  const Frame f = frame(*s);
  painter.setClipRect(rect().adjusted(1, 1, -1, -1));
  painter.setRenderHint(QPainter::Antialiasing);
  // The ground.
  const double left = (f.x0 - 0) / f.px_per_m, right = (f.x0 - width()) / f.px_per_m;
  QPolygonF ground;
  ground << f.at({left + 0.1, space::height_at(s->profile, left + 0.1)});
  for (auto p = s->profile.rbegin(); p != s->profile.rend(); ++p)
    if (p->x < left + 0.1 && p->x > right - 0.1) ground << f.at(*p);
  ground << f.at({right - 0.1, space::height_at(s->profile, right - 0.1)});
  QPolygonF under = ground;
  under << QPointF(width() + 10, height() + 10) << QPointF(-10, height() + 10);
  painter.save();
  QPainterPath earth;
  earth.addPolygon(under);
  painter.setClipPath(earth, Qt::IntersectClip);
  hatch(painter, rect(), t.rule, true, look.px(7));
  painter.restore();
  painter.setPen(QPen(t.ink, 1.6));
  painter.drawPolyline(ground);
  if (!s->stance) {
    painter.setFont(look.font());
    painter.setPen(t.ink);
    painter.drawText(QRectF(8, 4, width() - 16, look.px(20)), Qt::AlignLeft | Qt::AlignVCenter, told());
    return;
  }
  const space::Stance& stance = *s->stance;
  const auto place = [&](double x, double z) { return f.at(stance.place({x, z})); };
  // The body, in outline, over its underside.
  const build::Body& body = desk_.build().body;
  const double L = s->car.wheelbase, nose = body.front_overhang.value_or(0.9), tail = body.rear_overhang.value_or(1.0);
  const double roof = body.overall_height.value_or(1.45);
  QPolygonF outline;
  double bumper = 0.3, back = 0.35;
  const auto& points = s->car.points;
  if (!points.empty()) bumper = points.front().z, back = points.back().z;
  outline << place(-nose, std::max(bumper, 0.16));
  for (const QPointF& share : car_silhouette(body.style))
    outline << place(std::lerp(-nose, L + tail, share.x()), share.y() * roof);
  outline << place(L + tail, back);
  for (auto p = points.rbegin(); p != points.rend(); ++p)
    outline << place(p->x, p->z);
  QColor fill = t.ground;
  fill.setAlphaF(0.75F);
  painter.setPen(QPen(t.second, 1.2));
  painter.setBrush(fill);
  painter.drawPolygon(outline);
  // Wheels in their own colours.
  for (const auto& [hub, radius, end] : {std::tuple{stance.front_hub, s->car.front_radius, End::front},
                                         std::tuple{stance.rear_hub, s->car.rear_radius, End::rear}}) {
    painter.setPen(QPen(t.end(end), 2, end == End::front ? Qt::SolidLine : Qt::DashLine));
    painter.setBrush(t.panel);
    painter.drawEllipse(f.at(hub), radius * f.px_per_m, radius * f.px_per_m);
    painter.drawEllipse(f.at(hub), 0.62 * radius * f.px_per_m, 0.62 * radius * f.px_per_m);
  }
  // The underside, and what of it is nearest.
  QPolygonF low;
  for (const SidePoint& p : points)
    low << place(p.x, p.z);
  painter.setPen(QPen(t.ink, 2));
  painter.setBrush(Qt::NoBrush);
  painter.drawPolyline(low);
  painter.setBrush(t.panel);
  painter.setPen(QPen(t.ink, 1.2));
  for (const QPointF& p : low)
    painter.drawEllipse(p, look.px(2.4), look.px(2.4));
  if (s->here) {
    const double margin = ground_ && *ground_ < s->given.grounds.size() ? s->given.grounds[*ground_].margin : 0;
    const QColor colour = s->here->gap < 0 ? t.stop : s->here->gap < margin ? t.caution : t.good;
    const QPointF a = f.at(s->here->at), b = f.at({s->here->at.x, s->here->at.z - s->here->gap});
    painter.setPen(QPen(colour, 2));
    painter.drawLine(a, b);
    painter.setBrush(colour);
    painter.drawEllipse(a, look.px(4), look.px(4));
    painter.setFont(look.font(TextSize::normal, true));
    const auto names = assess::names_of_underside(s->given);
    const QString text = QString("%1  %2").arg(QString::fromStdString(names[s->here->point]),
                                               desk_.shown(s->here->gap, Kind::length, 0));
    const double w = QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(8), h = look.px(18);
    QRectF box(std::clamp(a.x() - w / 2, 4.0, std::max(4.0, width() - w - 4)),
               std::min(b.y() + look.px(8), height() - h - 2.0), w, h);
    QColor paper = t.panel;
    paper.setAlphaF(0.92F);
    painter.fillRect(box, paper);
    painter.setPen(t.ink);
    draw_line(painter, box, Qt::AlignCenter, text);
  }
  // In words, and the angles on flat ground.
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  const auto angles = space::ground_angles(s->car);
  const auto shown = [&](const std::optional<double>& a) {
    return a ? desk_.shown(*a, Kind::angle, 1) : tr("no limit");
  };
  const QString text =
      tr("Heights %1 front, %2 rear. On flat ground: approach %3, breakover %4, departure %5.")
          .arg(desk_.shown(*desk_.pose(End::front), Kind::length), desk_.shown(*desk_.pose(End::rear), Kind::length),
               shown(angles.approach), shown(angles.breakover), shown(angles.departure));
  draw_line(painter, QRectF(look.px(8), look.px(3), width() - look.px(16), look.px(15)),
            Qt::AlignLeft | Qt::AlignVCenter, text);
}

// ---- hands

std::optional<std::size_t> DriveView::low_point_at(const Scene& s, const QPointF& at) const {
  if (!s.stance) return std::nullopt;
  const Frame f = frame(s);
  std::optional<std::size_t> best;
  double nearest = 9 * desk_.look().scale;
  const auto& points = desk_.build().body.underside;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const QPointF d = f.at(s.stance->place({points[i].x, points[i].z})) - at;
    if (const double away = std::hypot(d.x(), d.y()); away < nearest) nearest = away, best = i;
  }
  return best;
}

std::optional<QPointF> DriveView::place_of(std::size_t low_point) const {
  const auto s = scene();
  const auto& points = desk_.build().body.underside;
  if (!s || !s->stance || low_point >= points.size()) return std::nullopt;
  return frame(*s).at(s->stance->place({points[low_point].x, points[low_point].z}));
}

void DriveView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  setFocus(Qt::MouseFocusReason);
  const auto s = scene();
  held_ = s ? low_point_at(*s, event->position()) : std::nullopt;
  if (held_) ++drags_;
  dragging_ = true;
  began_ = at_;
  grabbed_ = event->position().x();
}

void DriveView::mouseMoveEvent(QMouseEvent* event) {
  const auto s = scene();
  if (!s) return;
  if (!dragging_) {
    setCursor(low_point_at(*s, event->position()) ? Qt::SizeAllCursor : Qt::SizeHorCursor);
    return;
  }
  const Frame f = frame(*s);
  if (!held_) // the car follows the hand: dragged to the left it drives forward
    return drive_to(began_ - (event->position().x() - grabbed_) / f.px_per_m);
  if (!s->stance) return;
  // Back from the drawing to the body as it was measured, to the millimetre: a hand on a mouse is no better.
  const space::Stance& stance = *s->stance;
  const double x = (f.x0 - event->position().x()) / f.px_per_m - stance.origin.x,
               z = (f.y0 - event->position().y()) / f.px_per_m - stance.origin.z;
  const auto whole = [](double v, double least, double most) {
    return std::clamp(std::round(v * 1e3) * 1e-3, least, most);
  };
  build::Build build = desk_.build();
  if (*held_ >= build.body.underside.size()) return;
  build::LowPoint& p = build.body.underside[*held_];
  p.x = whole(x * stance.back.x + z * stance.back.z, -3, 9);
  p.z = whole(x * stance.up.x + z * stance.up.z, 0, 1.5);
  desk_.edit(tr("Move a low point"), std::move(build), QString("drag low point %1").arg(drags_));
}

void DriveView::mouseReleaseEvent(QMouseEvent*) {
  if (held_) desk_.document().end_gesture();
  dragging_ = false;
  held_.reset();
}

void DriveView::keyPressEvent(QKeyEvent* event) {
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.25
                      : event->modifiers() & Qt::AltModifier ? 0.005
                                                             : 0.05;
  if (event->key() == Qt::Key_Left) return drive_to(at_ + step);
  if (event->key() == Qt::Key_Right) return drive_to(at_ - step);
  if (event->key() == Qt::Key_Home) return drive_to_worst();
  QWidget::keyPressEvent(event);
}

bool DriveView::event(QEvent* event) {
  if (is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
