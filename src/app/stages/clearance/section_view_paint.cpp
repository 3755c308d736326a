// What the neighbourhood of a wheel looks like: its section, parts, obstacles, and the dimensioned gap.
#include "app/desk/desk.h"
#include "app/kit/drawing.h"
#include "app/kit/height_scale.h"
#include "app/stages/clearance/names.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/steer.h"
#include "app/theme/text_line.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::NearAt;
using space::Point;

namespace {

/// The outline round places of a drawing.
QPolygonF hull(std::vector<QPointF> points) {
  std::sort(points.begin(), points.end(),
            [](const QPointF& a, const QPointF& b) { return a.x() < b.x() || (a.x() == b.x() && a.y() < b.y()); });
  const auto turns = [](const QPointF& o, const QPointF& a, const QPointF& b) {
    return (a.x() - o.x()) * (b.y() - o.y()) - (a.y() - o.y()) * (b.x() - o.x());
  };
  QPolygonF out;
  for (int half = 0; half < 2; ++half) {
    const auto start = out.size();
    for (const QPointF& p : points) {
      while (out.size() >= start + 2 && turns(out[out.size() - 2], out.back(), p) <= 0)
        out.pop_back();
      out << p;
    }
    out.pop_back();
    std::reverse(points.begin(), points.end());
  }
  return out;
}

/// Two directions square to an axis and to one another.
std::pair<Point, Point> square_to(const Point& axis) {
  const Point side = std::abs(axis.x) < 0.7 ? Point{1, 0, 0} : Point{0, 1, 0};
  const Point s = space::cross(axis, side), u = (1 / space::length(s)) * s;
  return {u, space::cross(axis, u)};
}

template <class F>
void add_circle(std::vector<QPointF>& to, const F& f, const Point& middle, const Point& axis, double radius) {
  const auto [u, v] = square_to(axis);
  for (int i = 0; i < 48; ++i) {
    const double turn = 2 * M_PI * i / 48;
    to.push_back(f.at(middle + radius * (std::cos(turn) * u + std::sin(turn) * v)));
  }
}

std::array<Point, 8> corners_of(const space::Box& box) {
  const Point u{std::cos(box.turn), std::sin(box.turn), 0}, v{-std::sin(box.turn), std::cos(box.turn), 0};
  std::array<Point, 8> out;
  for (int i = 0; i < 8; ++i)
    out[static_cast<std::size_t>(i)] = box.centre + ((i & 1 ? 1 : -1) * box.half.x) * u +
                                       ((i & 2 ? 1 : -1) * box.half.y) * v +
                                       ((i & 4 ? 1 : -1) * box.half.z) * Point{0, 0, 1};
  return out;
}

} // namespace

void SectionView::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  paint_backdrop(painter, rect(), look);
  auto s = scene();
  if (!s) {
    const auto& e = desk_.assessment().end(desk_.end());
    paint_instead(painter, rect(), look,
                  e.surveyed_height ? tr("Where the wheel stands is not known: measure the track, and enter the tyre.")
                                    : tr("The height is missing on Car in: nothing can be posed yet."));
    return;
  }
  for (const NearAt& n : s->near)
    if (n.placed) {
      s->least = &n;
      break;
    }
  const Frame f = frame(*s);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setClipRect(rect().adjusted(1, 1, -1, -1));
  paint_parts(painter, *s, f);
  paint_wheel(painter, *s, f);
  for (const NearAt& n : s->near) {
    if (!n.solid) continue;
    const bool tight = &n == s->least;
    const bool held = chosen_ && n.near.obstacle == *chosen_;
    if (from_ == From::section)
      paint_cut(painter, *n.solid, f, tight);
    else if (n.mover == assess::Mover::tyre || tight)
      paint_solid(painter, *n.solid, f, held, tight);
  }
  if (from_ != From::section) { // grips, to be dragged
    const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
    for (std::size_t i = 0; i < obstacles.size(); ++i) {
      if (obstacles[i].shape == build::ObstacleShape::gap) continue;
      const QPointF p = f.at(grip_of(i, *s));
      const bool held = chosen_ == i;
      painter.setPen(QPen(held ? t.ink : t.second, 1.4));
      painter.setBrush(held ? t.selected : t.panel);
      painter.drawRect(QRectF(p.x() - look.px(4), p.y() - look.px(4), look.px(8), look.px(8)));
      if (!held && !(s->least && s->least->near.obstacle == i)) continue;
      painter.setFont(look.font(TextSize::small));
      painter.setPen(t.ink);
      const QString name = QString::fromStdString(obstacles[i].name);
      const double w = QFontMetricsF(painter.font()).horizontalAdvance(name) + 4;
      const QRectF box(std::clamp(p.x() - w / 2, 4.0, std::max(4.0, width() - w - 4)), p.y() + look.px(5), w,
                       look.px(14));
      QColor paper = t.panel;
      paper.setAlphaF(0.9F);
      painter.fillRect(box, paper);
      draw_line(painter, box, Qt::AlignCenter, name);
    }
  }
  paint_gap(painter, *s, f);
  paint_words(painter, *s);
}

void SectionView::paint_wheel(QPainter& painter, const Scene& s, const Frame& f) const {
  const Tokens& t = desk_.look().tokens();
  const auto& wheel = desk_.answered(desk_.end()).given().clearance->wheel;
  if (!wheel) return;
  const space::WheelPlace& place = s.parts.stand.wheel;
  if (from_ != From::section || !s.axial()) {
    std::vector<QPointF> rim;
    const double outer = wheel->widest / 2 - wheel->offset, inner = -wheel->widest / 2 - wheel->offset;
    const double round = wheel->shoulder;
    for (int k = 0; k <= 4; ++k) { // round the shoulders, both sides
      const double turn = M_PI / 2 * k / 4, in = round * (1 - std::cos(turn)),
                   r = wheel->radius - round * (1 - std::sin(turn));
      add_circle(rim, f, place.centre + (outer - in) * place.outward, place.outward, r);
      add_circle(rim, f, place.centre + (inner + in) * place.outward, place.outward, r);
    }
    QColor fill = t.ground;
    fill.setAlphaF(0.85F);
    painter.setPen(QPen(t.second, 1.2));
    painter.setBrush(fill);
    painter.drawPolygon(hull(rim));
    painter.setPen(QPen(t.second, 1, Qt::DashDotLine));
    painter.drawLine(f.at(place.centre + 0.09 * place.outward), f.at(place.centre - 0.18 * place.outward));
    return;
  }
  // The half that the plane cuts, and a little of the other under the spin axis.
  QPolygonF cut;
  for (const space::SectionPoint& p : space::section_of(*wheel))
    cut << f.at(place.centre + p.outboard * place.outward + p.radius * f.up);
  painter.setPen(QPen(t.ink, 1.4));
  painter.setBrush(t.ground);
  painter.drawPolygon(cut);
  painter.save();
  QPainterPath clip;
  clip.addPolygon(cut);
  clip.closeSubpath();
  painter.setClipPath(clip, Qt::IntersectClip);
  hatch(painter, cut.boundingRect(), t.rule, false, desk_.look().px(6));
  painter.restore();
  painter.setPen(QPen(t.second, 1, Qt::DashDotLine)); // the spin axis and the hub face
  painter.drawLine(f.at(place.centre + 0.14 * place.outward), f.at(place.centre - 0.26 * place.outward));
  painter.drawLine(f.at(place.centre + 0.03 * f.up), f.at(place.centre - 0.03 * f.up));
}

void SectionView::paint_parts(QPainter& painter, const Scene& s, const Frame& f) const {
  const Tokens& t = desk_.look().tokens();
  QColor colour = t.end(desk_.end());
  QColor faint = colour;
  faint.setAlphaF(from_ == From::section && s.axial() ? 0.16F : 0.30F);
  const auto rod = [&](const space::Rod& r) {
    painter.setPen(QPen(faint, std::max(2.0, 2 * r.radius * f.px_per_m), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(f.at(r.from), f.at(r.to));
  };
  for (const space::Rod& arm : s.parts.stand.arms)
    rod(arm);
  if (s.parts.stand.axle) rod(*s.parts.stand.axle);
  if (s.parts.stand.damper) rod(*s.parts.stand.damper);
  if (!s.parts.bag) return;
  std::vector<QPointF> rims;
  for (const double way : {-1.0, 1.0})
    add_circle(rims, f, s.parts.bag->centre + (way * s.parts.bag->half) * s.parts.bag->axis, s.parts.bag->axis,
               s.parts.bag->radius);
  painter.setPen(QPen(colour, 1.2));
  painter.setBrush(faint);
  painter.drawPolygon(hull(rims));
}

void SectionView::paint_solid(QPainter& painter, const space::Solid& solid, const Frame& f, bool held,
                              bool tight) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QColor fill = held ? t.selected : t.rule;
  fill.setAlphaF(0.8F);
  painter.setPen(QPen(tight ? t.ink : t.second, held || tight ? 1.8 : 1.2));
  painter.setBrush(fill);
  if (const auto* box = std::get_if<space::Box>(&solid)) {
    std::vector<QPointF> corners;
    for (const Point& p : corners_of(*box))
      corners.push_back(f.at(p));
    painter.drawPolygon(hull(corners));
  } else if (const auto* rod = std::get_if<space::Rod>(&solid)) {
    painter.setPen(
        QPen(tight ? t.ink : t.second, std::max(2.0, 2 * rod->radius * f.px_per_m), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(f.at(rod->from), f.at(rod->to));
  } else
    paint_cut(painter, solid, f, tight); // of a face seen from the side the line it makes
}

void SectionView::paint_cut(QPainter& painter, const space::Solid& solid, const Frame& f, bool tight) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const Point normal = space::cross(f.right, f.up);
  const auto off = [&](const Point& p) { return space::dot(p - f.origin, normal); };
  QColor fill = t.rule;
  painter.setPen(QPen(tight ? t.ink : t.second, tight ? 1.8 : 1.2));
  painter.setBrush(fill);
  if (const auto* box = std::get_if<space::Box>(&solid)) {
    const auto corners = corners_of(*box);
    std::vector<QPointF> cut;
    for (int i = 0; i < 8; ++i)
      for (int k : {1, 2, 4}) {
        if (i & k) continue;
        const Point &a = corners[static_cast<std::size_t>(i)], &b = corners[static_cast<std::size_t>(i | k)];
        const double da = off(a), db = off(b);
        if ((da > 0) != (db > 0)) cut.push_back(f.at(space::lerp(a, b, da / (da - db))));
      }
    if (cut.size() >= 3) painter.drawPolygon(hull(cut));
    return;
  }
  if (const auto* rod = std::get_if<space::Rod>(&solid)) {
    std::vector<QPointF> cut;
    constexpr int steps = 60;
    for (int i = 0; i <= steps; ++i) {
      const Point p = space::lerp(rod->from, rod->to, static_cast<double>(i) / steps);
      const double reach = rod->radius + 0.0015; // an edge has no thickness to be cut
      const double d = off(p);
      if (std::abs(d) > std::max(reach, space::length(rod->to - rod->from) / steps)) continue;
      const double r = std::max(2.5, std::sqrt(std::max(0.0, reach * reach - d * d)) * f.px_per_m);
      const QPointF at = f.at(p);
      for (int k = 0; k < 16; ++k)
        cut.push_back(at + r * QPointF(std::cos(k * M_PI / 8), std::sin(k * M_PI / 8)));
    }
    if (cut.size() >= 3) painter.drawPolygon(hull(cut));
    return;
  }
  const auto& plane = std::get<space::Plane>(solid);
  const double nr = space::dot(plane.normal, f.right), nu = space::dot(plane.normal, f.up);
  const double l = std::hypot(nr, nu);
  if (l < 0.05 * space::length(plane.normal)) return; // seen flat on
  const double c = space::dot(plane.at - f.origin, plane.normal);
  const QPointF foot = f.at0 + f.px_per_m * (c / (l * l)) * QPointF(nr, -nu);
  const QPointF way(nu / l, nr / l), into(-nr / l, nu / l);
  const double far = width() + height();
  painter.drawLine(foot - far * way, foot + far * way);
  painter.setPen(QPen(t.rule, 1));
  for (double d = -far; d < far; d += look.px(7)) // the side that is not free
    painter.drawLine(foot + d * way, foot + (d + look.px(5)) * way + look.px(7) * into);
}

void SectionView::paint_gap(QPainter& painter, const Scene& s, const Frame& f) const {
  if (!s.least) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const NearAt& n = *s.least;
  const QPointF a = f.at(n.gap.on_first), b = f.at(n.gap.on_second);
  const QColor colour = n.spare() < 0 ? t.stop : n.spare() < 0.004 ? t.caution : t.good;
  painter.setPen(QPen(colour, 2));
  painter.setBrush(colour);
  if (n.gap.overlap) {
    const double r = look.px(7);
    painter.setBrush(Qt::NoBrush);
    painter.drawLine(a + QPointF(-r, -r), a + QPointF(r, r));
    painter.drawLine(a + QPointF(-r, r), a + QPointF(r, -r));
  } else {
    painter.drawLine(a, b);
    const QPointF d = b - a;
    const double l = std::hypot(d.x(), d.y());
    const QPointF way = l > 1e-6 ? d / l : QPointF(1, 0), side(-way.y(), way.x());
    for (const auto& [at, sign] : {std::pair{a, 1.0}, std::pair{b, -1.0}}) { // short strokes, as in a shop's drawing
      painter.drawLine(at - look.px(6) * side, at + look.px(6) * side);
      painter.drawLine(at, at + sign * -look.px(10) * way);
    }
  }
  const QString mark = n.spare() < 0 ? QString("■ ") : n.spare() < 0.004 ? QString("△ ") : QString();
  const QString text = mark + (n.gap.overlap ? tr("touches") : desk_.shown(n.gap.apart, Kind::length, 1));
  painter.setFont(look.font(TextSize::large, true));
  const QFontMetricsF metrics(painter.font());
  const double w = metrics.horizontalAdvance(text) + look.px(8), h = metrics.height();
  const QPointF middle = 0.5 * (a + b);
  painter.setFont(look.font(TextSize::small));
  const QString what =
      tr("%1, %2 wanted").arg(gap_name(desk_, n.mover, n.near), desk_.shown(n.near.room, Kind::length, 0));
  const double ww = QFontMetricsF(painter.font()).horizontalAdvance(what) + look.px(8), wide = std::max(w, ww);
  const double tall = h + look.px(15), away = look.px(26);
  // Beside the gap where there is room for it, with a stroke that leads there.
  const bool right = middle.x() + away + wide < width() - 4;
  double x = right ? middle.x() + away : middle.x() - away - wide;
  if (x < 4) x = std::max(4.0, width() - wide - 4.0);
  double y = middle.y() - tall - away;
  if (y < look.px(34)) y = middle.y() + away;
  if (y + tall > height() - 4) y = height() - tall - 4;
  const QRectF box(x, y, wide, tall);
  painter.setPen(QPen(t.second, 1));
  painter.drawLine(middle, QPointF(std::clamp(middle.x(), box.left(), box.right()),
                                   middle.y() < box.top() ? box.top() : box.bottom()));
  QColor ground = t.panel;
  ground.setAlphaF(0.92F);
  painter.fillRect(box, ground);
  painter.setPen(t.second);
  draw_line(painter, QRectF(box.left(), box.top() + h, wide, look.px(15)), Qt::AlignCenter, what);
  painter.setFont(look.font(TextSize::large, true));
  painter.setPen(t.ink);
  draw_line(painter, QRectF(box.left(), box.top(), wide, h), Qt::AlignCenter, text);
}

void SectionView::paint_words(QPainter& painter, const Scene& s) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QStringList lines;
  const double angle = steer_.angle();
  const QString wheels = std::abs(angle) < 1e-6 ? tr("wheels straight")
                                                : (angle > 0 ? tr("steered %1 left") : tr("steered %1 right"))
                                                      .arg(desk_.shown(std::abs(angle), Kind::angle, 0));
  switch (from_) {
  case From::section:
    lines << (s.axial() ? tr("cut through the wheel's axis where the gap is least; %1").arg(wheels)
                        : tr("cut across the car where the gap is least, outboard right; %1").arg(wheels));
    break;
  case From::front:
    lines << tr("from the front, outboard at the right; %1").arg(wheels);
    break;
  case From::side:
    lines << tr("from the left, front at the left; %1").arg(wheels);
    break;
  case From::above:
    lines << tr("from above, front at the top; %1").arg(wheels);
    break;
  }
  if (const auto poke = assess::poke_at(desk_.answered(desk_.end()), s.parts.stand.H))
    lines << (*poke > 0 ? tr("tyre pokes %1 past the arch") : tr("tyre tucked %1 inside the arch"))
                 .arg(desk_.shown(std::abs(*poke), Kind::length, 0));
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  QRectF line(look.px(8), look.px(3), width() - look.px(16), look.px(15));
  for (const QString& text : lines) {
    QColor paper = t.panel;
    paper.setAlphaF(0.9F);
    painter.fillRect(QRectF(line.left() - 2, line.top(),
                            std::min(line.width(), QFontMetricsF(painter.font()).horizontalAdvance(text)) + 4,
                            line.height()),
                     paper);
    draw_line(painter, line, Qt::AlignLeft | Qt::AlignVCenter, text);
    line.translate(0, look.px(15));
  }
}

} // namespace mavrel::app
