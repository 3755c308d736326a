#include "app/stages/swing/end_view.h"

#include "app/desk/desk.h"
#include "app/kit/nudge.h"
#include "app/stages/swing/edits.h"
#include "app/stages/swing/end_frame.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::EndScene;
using assess::SceneJoint;
using motion::Point;

namespace {

constexpr double near_px = 11; // that a joint is grabbed from

} // namespace

EndView::EndView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("end_view");
  setAccessibleName(tr("End, drawn to scale"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumHeight(desk_.look().px(190));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, qOverload<>(&QWidget::update));
  connect(&desk_, &Desk::rewound, this, [this] { dragging_ = false; });
}

void EndView::look_from(From from) {
  from_ = from;
  update();
}

void EndView::choose(const QString& joint) {
  if (joint == chosen_) return;
  chosen_ = joint;
  emit chose(joint);
  update();
}

std::optional<EndScene> EndView::scene() const {
  const auto H = desk_.pose(desk_.end());
  if (!H) return std::nullopt;
  return assess::end_scene(desk_.answered(desk_.end()), *H);
}

EndView::Frame EndView::frame(const EndScene& s) const {
  Frame f;
  f.from = from_;
  // Everything as it was measured, and the wheel, so that the scale stays while the pose moves.
  double left = 1e9, right = -1e9, low = 1e9, high = -1e9;
  const auto hold = [&](const Point& p, double by_right, double by_up) {
    const auto [r, u] = Frame::axes(from_, p);
    left = std::min(left, r - by_right), right = std::max(right, r + by_right);
    low = std::min(low, u - by_up), high = std::max(high, u + by_up);
  };
  for (const SceneJoint& j : s.joints)
    hold(j.surveyed, 0, 0);
  Point wheel{};
  for (const SceneJoint& j : s.joints)
    if (j.joint == motion::Joint::wheel_centre) wheel = j.surveyed;
  const double half = s.width / 2;
  for (const double side : s.solid_axle&& from_ != From::side ? std::vector{1.0, -1.0} : std::vector{1.0})
    hold({wheel.x, side * wheel.y, wheel.z}, from_ == From::side ? s.radius : half,
         from_ == From::above ? s.radius : s.radius);
  // The arch as surveyed; a car that is raised further grows out of its picture rather than shrinking it.
  const auto H0 = desk_.assessment().end(desk_.end()).surveyed_height;
  if (from_ != From::above && H0) hold(wheel + Point{0, 0, *H0 + 0.02}, 0, 0);
  f.sink = s.wheel.z - wheel.z;
  const double margin = desk_.look().px(22), head = desk_.look().px(20);
  const double w = width() - 2 * margin, h = height() - head - margin;
  f.px_per_m = std::min(w / std::max(0.2, right - left), h / std::max(0.2, high - low));
  f.x0 = margin + (w - (right - left) * f.px_per_m) / 2 - left * f.px_per_m;
  f.y0 = height() - margin - (h - (high - low) * f.px_per_m) / 2 + low * f.px_per_m;
  return f;
}

std::optional<QPointF> EndView::place_of(const QString& joint) const {
  const auto s = scene();
  if (!s) return std::nullopt;
  const Frame f = frame(*s);
  for (const SceneJoint& j : s->joints)
    if (joint == motion::key_of(j.joint)) return f.at(j.at);
  return std::nullopt;
}

const SceneJoint* EndView::joint_at(const EndScene& s, const QPointF& at) const {
  const Frame f = frame(s);
  const SceneJoint* best = nullptr;
  double nearest = near_px * desk_.look().scale;
  for (const SceneJoint& j : s.joints) {
    const QPointF d = f.at(j.at) - at;
    // Of joints that lie on each other the one already held goes first.
    const double away = std::hypot(d.x(), d.y()) - (chosen_ == motion::key_of(j.joint) ? 0.5 : 0);
    if (away < nearest) nearest = away, best = &j;
  }
  return best;
}

// ---- hands

void EndView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  setFocus(Qt::MouseFocusReason);
  const auto s = scene();
  const SceneJoint* joint = s ? joint_at(*s, event->position()) : nullptr;
  choose(joint ? motion::key_of(joint->joint) : QString());
  if (!joint || !s->measured) return;
  dragging_ = true;
  ++drags_;
  dragged_from_ = event->position();
  began_ = joint->surveyed;
}

void EndView::mouseMoveEvent(QMouseEvent* event) {
  const auto s = scene();
  if (!s) return;
  if (!dragging_) {
    const SceneJoint* joint = joint_at(*s, event->position());
    const QString over = joint ? motion::key_of(joint->joint) : QString();
    setCursor(joint && s->measured ? Qt::SizeAllCursor : Qt::ArrowCursor);
    if (over == hovered_) return;
    hovered_ = over;
    update();
    return;
  }
  const Frame f = frame(*s);
  const QPointF moved = (event->position() - dragged_from_) / f.px_per_m;
  // To the millimetre: a hand on a mouse is no better.
  const auto whole = [](double v) { return std::round(v * 1e3) * 1e-3; };
  Point to = began_;
  switch (from_) {
  case From::front:
    to.y = whole(began_.y + moved.x()), to.z = whole(began_.z - moved.y());
    break;
  case From::side:
    to.x = whole(began_.x - moved.x()), to.z = whole(began_.z - moved.y());
    break;
  case From::above:
    to.y = whole(began_.y + moved.x()), to.x = whole(began_.x - moved.y());
    break;
  }
  move_joint(desk_, desk_.end(), chosen_, to, QString("drag joint %1").arg(drags_));
}

void EndView::mouseReleaseEvent(QMouseEvent*) {
  if (dragging_) desk_.document().end_gesture();
  dragging_ = false;
}

void EndView::move_chosen(double right, double up, const QString& gesture) {
  const auto s = scene();
  if (!s) return;
  for (const SceneJoint& j : s->joints) {
    if (chosen_ != motion::key_of(j.joint)) continue;
    Point to = j.surveyed;
    switch (from_) {
    case From::front:
      to.y += right, to.z += up;
      break;
    case From::side:
      to.x -= right, to.z += up;
      break;
    case From::above:
      to.y += right, to.x += up;
      break;
    }
    move_joint(desk_, desk_.end(), chosen_, to, gesture);
    return;
  }
}

void EndView::step_choice(int by) {
  const auto s = scene();
  if (!s || s->joints.empty()) return;
  const int n = static_cast<int>(s->joints.size());
  int at = by > 0 ? -1 : n;
  for (int i = 0; i < n; ++i)
    if (chosen_ == motion::key_of(s->joints[static_cast<std::size_t>(i)].joint)) at = i;
  const int to = at + by;
  choose(to < 0 || to >= n ? QString() : QString(motion::key_of(s->joints[static_cast<std::size_t>(to)].joint)));
}

void EndView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && !chosen_.isEmpty()) return choose({});
  const auto nudge = nudge_of(*event);
  if (!nudge || chosen_.isEmpty()) return QWidget::keyPressEvent(event);
  move_chosen(nudge->x(), nudge->y(), stroke_of(*event, desk_.document()));
}

bool EndView::event(QEvent* event) {
  // Tab goes from joint to joint, and on to the next widget after the last.
  if (event->type() == QEvent::KeyPress) {
    auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_Tab || key->key() == Qt::Key_Backtab) {
      step_choice(key->key() == Qt::Key_Tab ? 1 : -1);
      if (!chosen_.isEmpty()) return true;
    }
  }
  if (!chosen_.isEmpty() && is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
