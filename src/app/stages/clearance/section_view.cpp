#include "app/stages/clearance/section_view.h"

#include "app/desk/desk.h"
#include "app/kit/nudge.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/names.h"
#include "app/stages/clearance/steer.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::NearAt;
using space::Point;

namespace {

constexpr double near_px = 12; // that an obstacle is grabbed from

const Point forward{1, 0, 0}, left{0, 1, 0}, upward{0, 0, 1};

Point unit(const Point& p, const Point& otherwise) {
  const double l = space::length(p);
  return l > 1e-9 ? (1 / l) * p : otherwise;
}

} // namespace

SectionView::SectionView(Desk& desk, Steer& steer, QWidget* parent) : QWidget(parent), desk_(desk), steer_(steer) {
  setObjectName("section_view");
  setAccessibleName(tr("What is near the wheel, drawn to scale"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumHeight(desk_.look().px(190));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, qOverload<>(&QWidget::update));
  connect(&steer_, &Steer::turned, this, qOverload<>(&QWidget::update));
  connect(&desk_, &Desk::looked_at, this, [this] { choose(std::nullopt); });
  connect(&desk_, &Desk::rewound, this, [this] { dragging_ = false; });
}

void SectionView::look_from(From from) {
  from_ = from;
  update();
}

void SectionView::choose(std::optional<std::size_t> obstacle) {
  if (obstacle == chosen_) return;
  chosen_ = obstacle;
  emit chose(obstacle);
  update();
}

std::optional<SectionView::Scene> SectionView::scene() const {
  const auto H = desk_.pose(desk_.end());
  if (!H) return std::nullopt;
  const auto& answered = desk_.answered(desk_.end());
  auto parts = assess::parts_at(answered, *H, steer_.angle());
  if (!parts) return std::nullopt;
  return Scene{std::move(*parts), assess::near_at(answered, *H, steer_.angle()), nullptr};
}

SectionView::Frame SectionView::frame(const Scene& s) const {
  const Look& look = desk_.look();
  Frame f;
  double l = -0.35, r = 0.15, low = -0.10, high = 0.36; // m about the origin
  const auto& wheel = desk_.answered(desk_.end()).given().clearance->wheel;
  f.origin = s.parts.stand.wheel.centre;
  if (wheel) low = -0.06, high = wheel->radius + 0.09;
  switch (from_) {
  case From::section: {
    if (!s.axial()) { // across the car, close about the gap
      f.origin = s.least->gap.on_first;
      f.right = left, f.up = upward;
      l = -0.26, r = 0.26, low = -0.20, high = 0.20;
      break;
    }
    f.right = s.parts.stand.wheel.outward;
    f.up = upward;
    if (s.least) {
      const bool first = s.least->mover == assess::Mover::tyre;
      const Point d = (first ? s.least->gap.on_first : s.least->gap.on_second) - f.origin;
      f.up = unit(d - space::dot(d, f.right) * f.right, upward);
    } else
      f.up = unit(f.up - space::dot(f.up, f.right) * f.right, forward);
    if (wheel) l = -(wheel->widest / 2 + wheel->offset) - 0.16, r = wheel->widest / 2 - wheel->offset + 0.10;
    break;
  }
  case From::front:
    f.right = left, f.up = upward;
    break;
  case From::side:
    f.right = -1 * forward, f.up = upward;
    break;
  case From::above:
    f.right = left, f.up = forward;
    break;
  }
  if (from_ != From::section) {
    const double radius = wheel ? wheel->radius : 0.33;
    // The body stays; the wheel moves in it: so that obstacles are where a hand left them.
    if (const auto& space = desk_.answered(desk_.end()).given().clearance->space) f.origin = space->hub();
    l = from_ == From::side ? -radius - 0.12 : -0.46, r = from_ == From::side ? radius + 0.12 : 0.16;
    low = -radius - 0.06, high = radius + 0.14;
    const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
    for (const build::Obstacle& o : obstacles) {
      if (o.shape == build::ObstacleShape::gap) continue;
      const Point d = Point{o.x, o.y, o.z} - f.origin;
      const double x = space::dot(d, f.right), y = space::dot(d, f.up);
      l = std::min(l, x - 0.05), r = std::max(r, x + 0.05);
      low = std::min(low, y - 0.05), high = std::max(high, y + 0.05);
    }
  }
  const double margin = look.px(10), head = look.px(34);
  const double w = width() - 2 * margin, h = height() - head - margin;
  f.px_per_m = std::min(w / (r - l), h / (high - low));
  f.at0 = {margin + (w - (r - l) * f.px_per_m) / 2 - l * f.px_per_m,
           height() - margin - (h - (high - low) * f.px_per_m) / 2 + low * f.px_per_m};
  return f;
}

Point SectionView::grip_of(std::size_t obstacle, const Scene& s) const {
  const build::Obstacle& o = desk_.build().end(desk_.end()).obstacles[obstacle];
  const Point p{o.x, o.y, o.z};
  const auto placed = assess::placement_of(o);
  if (!placed || placed->on == motion::Part::body) return p;
  return s.parts.stand.parts[static_cast<std::size_t>(placed->on)].place(p);
}

std::optional<QPointF> SectionView::place_of(std::size_t obstacle) const {
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  if (obstacle >= obstacles.size() || obstacles[obstacle].shape == build::ObstacleShape::gap) return std::nullopt;
  auto s = scene();
  if (!s) return std::nullopt;
  return frame(*s).at(grip_of(obstacle, *s));
}

QString SectionView::told() const {
  const auto s = scene();
  if (!s || s->near.empty()) return {};
  const NearAt& n = s->near.front();
  const QString what = gap_name(desk_, n.mover, n.near);
  if (n.gap.overlap) return tr("%1: they touch").arg(what);
  return tr("%1: %2, %3 wanted")
      .arg(what, desk_.shown(n.gap.apart, Kind::length, 1), desk_.shown(n.near.room, Kind::length, 0));
}

// ---- hands

void SectionView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  setFocus(Qt::MouseFocusReason);
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  std::optional<std::size_t> best;
  double nearest = near_px * desk_.look().scale;
  for (std::size_t i = 0; i < obstacles.size(); ++i)
    if (const auto p = place_of(i)) {
      const QPointF d = *p - event->position();
      const double away = std::hypot(d.x(), d.y()) - (chosen_ == i ? 0.5 : 0);
      if (away < nearest) nearest = away, best = i;
    }
  choose(best);
  if (!best || from_ == From::section) return;
  const build::Obstacle& o = obstacles[*best];
  dragging_ = true;
  ++drags_;
  dragged_from_ = event->position();
  began_ = {o.x, o.y, o.z};
}

void SectionView::mouseMoveEvent(QMouseEvent* event) {
  if (!dragging_ || !chosen_) return;
  const auto s = scene();
  if (!s) return;
  const Frame f = frame(*s);
  const QPointF moved = (event->position() - dragged_from_) / f.px_per_m;
  // To the millimetre: a hand on a mouse is no better.
  const auto whole = [](double v) { return std::round(v * 1e3) * 1e-3; };
  const Point to = began_ + whole(moved.x()) * f.right + whole(-moved.y()) * f.up;
  move_obstacle(desk_, desk_.end(), *chosen_, {whole(to.x), whole(to.y), whole(to.z)},
                QString("drag obstacle %1").arg(drags_));
}

void SectionView::mouseReleaseEvent(QMouseEvent*) {
  if (dragging_) desk_.document().end_gesture();
  dragging_ = false;
}

void SectionView::move_chosen(double right, double up, const QString& gesture) {
  const auto s = scene();
  if (!s || !chosen_ || from_ == From::section) return;
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  if (*chosen_ >= obstacles.size()) return;
  const Frame f = frame(*s);
  const build::Obstacle& o = obstacles[*chosen_];
  move_obstacle(desk_, desk_.end(), *chosen_, Point{o.x, o.y, o.z} + right * f.right + up * f.up, gesture);
}

void SectionView::step_choice(int by) {
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  std::vector<std::size_t> placed;
  for (std::size_t i = 0; i < obstacles.size(); ++i)
    if (obstacles[i].shape != build::ObstacleShape::gap) placed.push_back(i);
  int at = by > 0 ? -1 : static_cast<int>(placed.size());
  for (std::size_t k = 0; k < placed.size(); ++k)
    if (chosen_ == placed[k]) at = static_cast<int>(k);
  const int to = at + by;
  choose(to < 0 || to >= static_cast<int>(placed.size()) ? std::nullopt
                                                         : std::optional(placed[static_cast<std::size_t>(to)]));
}

void SectionView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && chosen_) return choose(std::nullopt);
  const auto nudge = nudge_of(*event);
  if (!nudge || !chosen_ || from_ == From::section) return QWidget::keyPressEvent(event);
  move_chosen(nudge->x(), nudge->y(), stroke_of(*event, desk_.document()));
}

bool SectionView::event(QEvent* event) {
  // Tab goes from obstacle to obstacle, and on to the next widget after the last.
  if (event->type() == QEvent::KeyPress && from_ != From::section) {
    auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_Tab || key->key() == Qt::Key_Backtab) {
      step_choice(key->key() == Qt::Key_Tab ? 1 : -1);
      if (chosen_) return true;
    }
  }
  if (chosen_ && from_ != From::section && is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
