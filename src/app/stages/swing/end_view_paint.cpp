// What an end looks like: wheel, arms, damper, bag, joints, and the words beside them.
#include "app/desk/desk.h"
#include "app/kit/drawing.h"
#include "app/kit/height_scale.h"
#include "app/stages/swing/end_frame.h"
#include "app/theme/text_line.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::EndScene;
using assess::SceneJoint;
using motion::Point;

void EndView::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  paint_backdrop(painter, rect(), look);
  const auto s = scene();
  if (!s) {
    paint_instead(painter, rect(), look, tr("The height is missing on Car in: nothing can be posed yet."));
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

} // namespace mavrel::app
