#include "app/stages/swing/end_view.h"

#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
#include "app/stages/swing/edits.h"
#include "app/theme/text_line.h"
#include "build/names.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::EndScene;
using assess::SceneJoint;
using motion::Point;

namespace {

constexpr double near_px = 11; // that a joint is grabbed from

Point cross(const Point& a, const Point& b) {
  return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}

} // namespace

/// The drawing's two axes and its scale: from the front the car's left is at the right, from the side the front is at
/// the left, from above the front is at the top.
struct EndView::Frame {
  From from = From::front;
  double px_per_m = 100, x0 = 0, y0 = 0; // pixels of the place (0, 0) of the two axes
  double sink = 0;                       // m that the body has sunk: places are the body's own

  [[nodiscard]] static std::pair<double, double> axes(From from, const Point& p) {
    switch (from) {
    case From::front:
      return {p.y, p.z};
    case From::side:
      return {-p.x, p.z};
    case From::above:
      return {p.y, p.x};
    }
    return {0, 0};
  }
  [[nodiscard]] QPointF at(const Point& p) const {
    auto [right, up] = axes(from, p);
    if (from != From::above) up -= sink;
    return {x0 + right * px_per_m, y0 - up * px_per_m};
  }
  [[nodiscard]] QPointF way(const Point& p) const {
    const auto [right, up] = axes(from, p);
    return {right, -up};
  }
};

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

// ---- painting

void EndView::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  painter.fillRect(rect(), t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
  const auto s = scene();
  if (!s) {
    painter.setFont(look.font());
    painter.setPen(t.second);
    painter.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap,
                     tr("The height is missing on Car in: nothing can be posed yet."));
    return;
  }
  const Frame f = frame(*s);
  painter.setRenderHint(QPainter::Antialiasing);
  paint_ground(painter, f);
  paint_wheel(painter, *s, f, s->wheel);
  if (s->solid_axle && from_ != From::side) {
    paint_wheel(painter, *s, f, s->right_wheel);
    painter.setPen(QPen(t.second, look.px(7), Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(f.at(s->wheel), f.at(s->right_wheel));
    painter.setPen(QPen(t.panel, look.px(5), Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(f.at(s->wheel), f.at(s->right_wheel));
  }
  paint_height(painter, *s, f);
  paint_shaft(painter, *s, f);
  paint_bars(painter, *s, f);
  paint_damper(painter, *s, f);
  paint_bag(painter, *s, f);
  paint_joints(painter, *s, f);
  paint_words(painter, *s, f);
}

void EndView::paint_ground(QPainter& painter, const Frame& f) const {
  if (from_ == From::above) return;
  const Tokens& t = desk_.look().tokens();
  const double y = f.y0;
  painter.setPen(QPen(t.second, 1));
  painter.drawLine(QPointF(1, y), QPointF(width() - 1, y));
  hatch(painter, QRectF(1, y, width() - 2, std::max(0.0, std::min<double>(desk_.look().px(7), height() - 1 - y))),
        t.rule, true, desk_.look().px(7));
}

void EndView::paint_wheel(QPainter& painter, const EndScene& s, const Frame& f, const Point& centre) const {
  const Tokens& t = desk_.look().tokens();
  QColor fill = t.ground;
  painter.setPen(QPen(t.second, 1));
  painter.setBrush(fill);
  if (from_ == From::side) {
    painter.drawEllipse(f.at(centre), s.radius * f.px_per_m, s.radius * f.px_per_m);
    painter.drawEllipse(f.at(centre), 0.68 * s.radius * f.px_per_m, 0.68 * s.radius * f.px_per_m);
    return;
  }
  // The tyre's outline across its own axis, as it leans and toes; a right wheel mirrors the left.
  const double side = centre.y < 0 ? -1 : 1;
  const Point axis{s.wheel_axis.x, s.wheel_axis.y * 1.0, s.wheel_axis.z * side};
  const Point up = from_ == From::above ? Point{1, 0, 0} : Point{0, 0, 1};
  const Point along = cross(cross(axis, up), axis);
  const double half = s.width / 2, r = s.radius, shoulder = std::min(0.04, half / 2);
  const auto place = [&](double a, double b) { return f.at(centre + a * axis + b * along); };
  QPainterPath tyre(place(-half, r - shoulder));
  tyre.quadTo(place(-half, r), place(shoulder - half, r));
  tyre.lineTo(place(half - shoulder, r));
  tyre.quadTo(place(half, r), place(half, r - shoulder));
  tyre.lineTo(place(half, shoulder - r));
  tyre.quadTo(place(half, -r), place(half - shoulder, -r));
  tyre.lineTo(place(shoulder - half, -r));
  tyre.quadTo(place(-half, -r), place(-half, shoulder - r));
  tyre.closeSubpath();
  painter.drawPath(tyre);
  // The rim's edges, and the hub's own line.
  painter.setPen(QPen(t.rule, 1));
  const double rim = 0.70 * r, seat = 0.86 * half;
  for (const double edge : {-rim, rim})
    painter.drawLine(place(-seat, edge), place(seat, edge));
  painter.setPen(QPen(t.second, 1, Qt::DashDotLine));
  painter.drawLine(place(-1.15 * half, 0), place(1.15 * half, 0));
}

/// The arch's lip above the wheel, and between hub centre and lip the height that everything is read at.
void EndView::paint_height(QPainter& painter, const EndScene& s, const Frame& f) const {
  if (from_ == From::above) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const Point lip = s.wheel + Point{0, 0, s.H};
  const QPointF hub = f.at(s.wheel), at = f.at(lip);
  painter.setPen(QPen(t.ink, look.px(2)));
  double x = hub.x();
  if (from_ == From::side) {
    const double radius = 1.13 * s.radius * f.px_per_m;
    painter.setBrush(Qt::NoBrush);
    painter.drawArc(QRectF(at.x() - radius, at.y(), 2 * radius, 2 * radius), 20 * 16, 140 * 16);
  } else {
    const double half = s.width / 2 * f.px_per_m;
    painter.drawLine(QPointF(at.x() - 0.4 * half, at.y()), QPointF(at.x() + 1.25 * half, at.y()));
    painter.drawLine(QPointF(at.x() + 1.25 * half, at.y()), QPointF(at.x() + 1.25 * half, at.y() - look.px(10)));
    x = hub.x() + 1.05 * half;
  }
  painter.setPen(QPen(t.ink, 1));
  painter.drawLine(QPointF(x, hub.y()), QPointF(x, at.y()));
  for (const double y : {hub.y(), at.y()}) {
    const double way = y == at.y() ? 1 : -1, a = look.px(4);
    painter.drawLine(QPointF(x, y), QPointF(x - a / 2, y + way * a));
    painter.drawLine(QPointF(x, y), QPointF(x + a / 2, y + way * a));
  }
  painter.setFont(look.font(TextSize::normal, true));
  const QString text = desk_.shown(s.H, Kind::length);
  const double w = QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(6), h = look.px(17);
  const QRectF box(std::min(x - w / 2, width() - w - 2.0), (hub.y() + at.y()) / 2 - h / 2, w, h);
  QColor ground = t.panel;
  ground.setAlphaF(0.9F);
  painter.fillRect(box, ground);
  draw_line(painter, box, Qt::AlignCenter, text);
}

void EndView::paint_bars(QPainter& painter, const EndScene& s, const Frame& f) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QColor colour = t.end(desk_.end());
  // An arm's two legs hold a web between them, seen where the view looks onto it.
  for (std::size_t i = 0; i + 1 < s.bars.size(); ++i) {
    const auto &a = s.bars[i], &b = s.bars[i + 1];
    if (!(a.to == b.to) || a.right) continue;
    QColor web = colour;
    web.setAlphaF(0.10F);
    painter.setPen(Qt::NoPen);
    painter.setBrush(web);
    painter.drawPolygon(QPolygonF({f.at(a.from), f.at(a.to), f.at(b.from)}));
  }
  for (const assess::SceneBar& bar : s.bars) {
    if (bar.right && from_ != From::above) continue; // behind or beside the left's: it would only confuse
    QPen pen(bar.right ? t.second : colour, look.px(bar.right ? 2 : 3), s.measured ? Qt::SolidLine : Qt::DashLine,
             Qt::RoundCap);
    painter.setPen(pen);
    painter.drawLine(f.at(bar.from), f.at(bar.to));
  }
  // What the outer joints sit in: the upright, from joint to joint to the wheel's centre.
  if (s.solid_axle) return;
  QPolygonF upright;
  for (const SceneJoint& j : s.joints)
    if (!j.on_body && j.joint != motion::Joint::spring_foot && j.joint != motion::Joint::damper_foot)
      upright << f.at(j.at);
  if (upright.size() < 2) return;
  painter.setPen(QPen(t.ink, look.px(1.2)));
  for (const QPointF& p : upright)
    painter.drawLine(p, f.at(s.wheel));
}

void EndView::paint_damper(QPainter& painter, const EndScene& s, const Frame& f) const {
  if (!s.damper) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QPointF top = f.at(s.damper->top), foot = f.at(s.damper->foot);
  const double length = motion::length(s.damper->top - s.damper->foot);
  painter.setPen(QPen(t.second, look.px(2)));
  painter.drawLine(foot, top); // the rod
  // The body is what is left when it is shut; what shows of the rod is the stroke left in bump.
  const double shut = s.damper->to_shut ? std::clamp(length - *s.damper->to_shut, 0.0, length) : 0.6 * length;
  const double share = length > 0 ? std::min(0.97, shut / length) : 0.6;
  const QPointF body = foot + share * (top - foot);
  painter.setPen(QPen(t.second, look.px(7), Qt::SolidLine, Qt::FlatCap));
  painter.drawLine(foot, body);
  painter.setPen(QPen(t.panel, look.px(4), Qt::SolidLine, Qt::FlatCap));
  painter.drawLine(foot + 0.02 * (body - foot), body - 0.02 * (body - foot));
  if (!s.damper->to_stop || length <= 0) return;
  // The stop on its rod: as far above the body as it has to go until it meets.
  const QPointF along = (top - foot) / length;
  const QPointF stop = body + along * std::max(0.0, *s.damper->to_stop);
  painter.setPen(QPen(t.caution, look.px(6), Qt::SolidLine, Qt::FlatCap));
  painter.drawLine(stop, stop + along * std::min(0.03, 0.2 * length));
}

void EndView::paint_shaft(QPainter& painter, const EndScene& s, const Frame& f) const {
  if (!s.shaft) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.setPen(QPen(t.second, look.px(3), Qt::SolidLine, Qt::FlatCap));
  const QPointF inner = f.at(s.shaft->from), outer = f.at(s.shaft->to);
  painter.drawLine(inner, outer);
  painter.setBrush(t.panel);
  painter.setPen(QPen(t.second, 1.5));
  for (const QPointF& joint : {inner, outer})
    painter.drawEllipse(joint, look.px(4), look.px(4));
}

void EndView::paint_bag(QPainter& painter, const EndScene& s, const Frame& f) const {
  if (!s.bag) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::SceneBag& bag = *s.bag;
  const bool chosen = bag.diameter > 0;
  const double plate = (chosen ? 0.62 * bag.diameter : 0.07) / 2;
  // Across a plate, in this view.
  const auto across = [&](const Point& face) {
    QPointF n = f.way(face);
    const double l = std::hypot(n.x(), n.y());
    if (l < 1e-6) return QPointF(1, 0);
    return QPointF(-n.y() / l, n.x() / l);
  };
  const QPointF low_mid = f.at(bag.lower + bag.lower_stack * bag.lower_face),
                high_mid = f.at(bag.upper - bag.upper_stack * bag.upper_face);
  if (from_ == From::above) {
    if (!chosen) return;
    QColor fill = t.end(desk_.end());
    fill.setAlphaF(0.16F);
    painter.setPen(QPen(t.end(desk_.end()), 1.5));
    painter.setBrush(fill);
    painter.drawEllipse(high_mid, bag.diameter / 2 * f.px_per_m, bag.diameter / 2 * f.px_per_m);
    return;
  }
  const QPointF a = across(bag.lower_face) * (plate * f.px_per_m), b = across(bag.upper_face) * (plate * f.px_per_m);
  if (chosen) {
    const double bulge = bag.diameter / 2 * f.px_per_m;
    const QPointF middle = (low_mid + high_mid) / 2;
    QPointF side = a + b;
    const double l = std::hypot(side.x(), side.y());
    side = l > 0 ? side / l * bulge : QPointF(bulge, 0);
    QPainterPath path(low_mid + a);
    // A curve through the widest place half-way up.
    path.quadTo(2 * (middle + side) - (low_mid + a + high_mid + b) / 2, high_mid + b);
    path.lineTo(high_mid - b);
    path.quadTo(2 * (middle - side) - (low_mid - a + high_mid - b) / 2, low_mid - a);
    path.closeSubpath();
    QColor fill = t.end(desk_.end());
    fill.setAlphaF(0.16F);
    painter.setBrush(fill);
    painter.setPen(QPen(t.end(desk_.end()), 1.5));
    painter.drawPath(path);
  }
  painter.setPen(QPen(t.ink, look.px(3), Qt::SolidLine, Qt::FlatCap));
  painter.drawLine(low_mid - a, low_mid + a);
  painter.drawLine(high_mid - b, high_mid + b);
  // Stacks, down to the seats.
  painter.setPen(QPen(t.ink, look.px(2)));
  painter.drawLine(low_mid, f.at(bag.lower));
  painter.drawLine(high_mid, f.at(bag.upper));
}

void EndView::paint_joints(QPainter& painter, const EndScene& s, const Frame& f) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (const SceneJoint& j : s.joints) {
    const QString key = motion::key_of(j.joint);
    const bool held = key == chosen_, over = key == hovered_;
    const double r = look.px(held ? 5 : over ? 4.5 : 3.2);
    painter.setPen(QPen(held ? t.ink : t.end(desk_.end()), held ? 2 : 1.3));
    painter.setBrush(held ? t.selected : t.panel);
    const QPointF p = f.at(j.at);
    if (j.on_body)
      painter.drawRect(QRectF(p.x() - r, p.y() - r, 2 * r, 2 * r));
    else
      painter.drawEllipse(p, r, r);
  }
}

void EndView::paint_words(QPainter& painter, const EndScene& s, const Frame& f) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  // What is looked at from where stands on the chips above; here what else there is to know, a line each.
  QStringList lines;
  if (from_ != From::front) lines << (from_ == From::side ? tr("front at the left") : tr("front at the top"));
  if (!s.measured)
    lines << tr("usual joints, not this car's: a picture only");
  else if (!s.solved)
    lines << tr("out of the joints' reach: drawn as measured");
  if (s.bag && s.bag->diameter > 0) {
    lines << tr("bag %1 high, Ø %2")
                 .arg(desk_.shown(s.bag->height, Kind::length), desk_.shown(s.bag->diameter, Kind::length));
    if (const auto& alignment = desk_.answered(desk_.end())->fitted.model.alignment; alignment && s.measured) {
      const auto at = alignment->at(s.H);
      lines << tr("tilt %1, offset %2")
                   .arg(desk_.shown(at.tilt, Kind::angle, 1), desk_.shown(at.offset, Kind::length, 0));
    }
  }
  QRectF line(look.px(8), look.px(3), width() - look.px(16), look.px(15));
  for (const QString& text : lines) {
    draw_line(painter, line, Qt::AlignLeft | Qt::AlignVCenter, text);
    line.translate(0, look.px(15));
  }
  const QString named = dragging_ || !chosen_.isEmpty() ? chosen_ : hovered_;
  for (const SceneJoint& j : s.joints) {
    if (named != motion::key_of(j.joint)) continue;
    const QPointF p = f.at(j.at);
    const QString text =
        tr("%1  x %2  y %3  z %4")
            .arg(tr(j.name), desk_.shown(j.surveyed.x, Kind::length, 0), desk_.shown(j.surveyed.y, Kind::length, 0),
                 desk_.shown(j.surveyed.z, Kind::length, 0));
    const double w = QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(8), h = look.px(16);
    double x = p.x() + look.px(9);
    if (x + w > width() - 4) x = p.x() - look.px(9) - w;
    QRectF box(std::max(4.0, x), std::clamp(p.y() - h - look.px(4), double(look.px(20)), height() - h - 4.0), w, h);
    QColor ground = t.panel;
    ground.setAlphaF(0.9F);
    painter.fillRect(box, ground);
    painter.setPen(t.ink);
    draw_line(painter, box, Qt::AlignCenter, text);
  }
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
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.010
                      : event->modifiers() & Qt::AltModifier ? 0.0001
                                                             : 0.001;
  double right = 0, up = 0;
  switch (event->key()) {
  case Qt::Key_Left:
    right = -step;
    break;
  case Qt::Key_Right:
    right = step;
    break;
  case Qt::Key_Up:
    up = step;
    break;
  case Qt::Key_Down:
    up = -step;
    break;
  default:
    return QWidget::keyPressEvent(event);
  }
  if (chosen_.isEmpty()) return QWidget::keyPressEvent(event);
  move_chosen(right, up, {});
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
  if (event->type() == QEvent::ShortcutOverride && !chosen_.isEmpty()) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Left || key == Qt::Key_Right || key == Qt::Key_Up || key == Qt::Key_Down) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
