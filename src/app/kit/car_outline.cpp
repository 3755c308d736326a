#include "app/kit/car_outline.h"

#include "assess/end/end_answer.h"

#include <QCoreApplication>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using build::at;
using build::BodyStyle;

CarShape car_shape(const Desk& desk) {
  const build::Body& body = desk.build().body;
  CarShape s{};
  s.measured = body.wheelbase && body.front_overhang && body.rear_overhang && body.overall_height;
  s.wheelbase = body.wheelbase.value_or(2.6);
  s.front_overhang = body.front_overhang.value_or(0.85);
  s.rear_overhang = body.rear_overhang.value_or(0.95);
  s.height = body.overall_height.value_or(1.45);
  s.sill = body.sill_height.value_or(0.2);
  for (const End end : build::both_ends) {
    const auto& e = desk.assessment().end(end);
    s.radius[at(end)] = e.tyre_radius.value_or(0.31);
    s.arch[at(end)] = s.radius[at(end)] + e.surveyed_height.value_or(0.38);
  }
  return s;
}

std::vector<QPointF> car_silhouette(BodyStyle style) {
  switch (style) {
  case BodyStyle::estate:
    return {{0.0, 0.36},   {0.015, 0.50}, {0.235, 0.645}, {0.40, 0.97}, {0.50, 1.0},
            {0.86, 0.985}, {0.955, 0.66}, {0.99, 0.62},   {1.0, 0.34}};
  case BodyStyle::hatchback:
    return {{0.0, 0.36},  {0.02, 0.50},  {0.25, 0.64}, {0.43, 0.98}, {0.55, 1.0},
            {0.80, 0.95}, {0.955, 0.66}, {0.99, 0.60}, {1.0, 0.34}};
  case BodyStyle::saloon:
    return {{0.0, 0.36},  {0.015, 0.49}, {0.25, 0.635}, {0.405, 0.97}, {0.50, 1.0},
            {0.64, 0.97}, {0.80, 0.69},  {0.98, 0.65},  {1.0, 0.36}};
  case BodyStyle::coupe:
    return {{0.0, 0.36},  {0.015, 0.50}, {0.29, 0.66},  {0.45, 0.98}, {0.54, 1.0},
            {0.68, 0.93}, {0.90, 0.68},  {0.985, 0.64}, {1.0, 0.36}};
  case BodyStyle::van:
    return {{0.0, 0.30}, {0.01, 0.46}, {0.13, 0.58},  {0.26, 0.95},
            {0.32, 1.0}, {0.97, 1.0},  {0.995, 0.92}, {1.0, 0.28}};
  case BodyStyle::pickup:
    return {{0.0, 0.36},    {0.012, 0.56}, {0.25, 0.645}, {0.345, 0.96}, {0.42, 1.0},
            {0.545, 0.985}, {0.60, 0.64},  {0.99, 0.63},  {1.0, 0.34}};
  }
  return {};
}

namespace {

double roof_at(const std::vector<QPointF>& points, double share) {
  for (std::size_t i = 1; i < points.size(); ++i)
    if (share <= points[i].x())
      return std::lerp(points[i - 1].y(), points[i].y(),
                       (share - points[i - 1].x()) / std::max(1e-9, points[i].x() - points[i - 1].x()));
  return points.back().y();
}

} // namespace

double car_roof_at(BodyStyle style, double share) {
  return roof_at(car_silhouette(style), share);
}

void paint_car_body(QPainter& painter, const Desk& desk, const CarShape& s, const CarView& v) {
  const Look& look = desk.look();
  const Tokens& t = look.tokens();
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  const auto x_of = [&](double share) { return -s.front_overhang + share * length; };
  const auto points = car_silhouette(desk.build().body.style);
  QPainterPath body(v.at(x_of(points[0].x()), points[0].y() * s.height));
  for (std::size_t i = 1; i < points.size(); ++i) {
    // Corners rounded by running each pair of edges through their middles.
    const QPointF here = v.at(x_of(points[i].x()), points[i].y() * s.height);
    if (i + 1 == points.size()) {
      body.lineTo(here);
      break;
    }
    const QPointF before = v.at(x_of(points[i - 1].x()), points[i - 1].y() * s.height),
                  after = v.at(x_of(points[i + 1].x()), points[i + 1].y() * s.height);
    body.lineTo(here + (before - here) * 0.22);
    body.quadTo(here, here + (after - here) * 0.22);
  }
  // Along the underside from tail to nose, with the arches cut where they were measured.
  const double lip = std::max(s.sill, 0.02), bumper = s.sill + 0.05;
  body.lineTo(v.at(s.wheelbase + s.rear_overhang, bumper + 0.10));
  body.lineTo(v.at(s.wheelbase + s.rear_overhang - 0.06, bumper));
  const auto arch = [&](double x, std::size_t end) {
    // A circle through the lip: the gap above the tyre is the real one at this scale.
    const double top = s.arch[end],
                 half = std::sqrt(std::max(0.01, std::pow(top - s.radius[end], 2) - std::pow(s.radius[end] - lip, 2)));
    const double r = top - s.radius[end];
    body.lineTo(v.at(x + half, lip));
    const QPointF c = v.at(x, s.radius[end]);
    const QRectF circle(c.x() - r * v.scale, c.y() - r * v.scale, 2 * r * v.scale, 2 * r * v.scale);
    const double from = std::atan2(lip - s.radius[end], half) * 180 / M_PI;
    body.arcTo(circle, from, 180 - 2 * from);
    body.lineTo(v.at(x - half, lip));
  };
  arch(s.wheelbase, 1);
  arch(0, 0);
  body.lineTo(v.at(-s.front_overhang + 0.08, bumper));
  body.lineTo(v.at(-s.front_overhang, bumper + 0.10));
  body.closeSubpath();
  painter.setBrush(t.panel);
  painter.setPen(QPen(s.measured ? t.ink : t.second, 1.4, s.measured ? Qt::SolidLine : Qt::DashLine));
  painter.drawPath(body);
  // The waistline and pillars say which way it drives, no more.
  painter.setPen(QPen(t.rule, 1.2));
  const double waist = 0.66 * s.height;
  for (double share = 0.28; share < 0.9; share += 0.02) {
    const double a = roof_at(points, share) * s.height, b = roof_at(points, share + 0.02) * s.height;
    if (std::min(a, b) < waist + 0.03 * s.height) continue;
    painter.drawLine(v.at(x_of(share), waist), v.at(x_of(share + 0.02), waist));
  }
  for (const double share : {0.46, 0.64}) {
    const double roof = roof_at(points, share) * s.height - 0.02;
    if (roof > waist + 0.1) painter.drawLine(v.at(x_of(share), waist), v.at(x_of(share + 0.01), roof));
  }
  if (!s.measured) {
    painter.setPen(t.second);
    painter.setFont(look.font(TextSize::small));
    painter.drawText(QRectF(v.at(0, waist).x(), v.at(0, waist).y(), s.wheelbase * v.scale, look.px(30)),
                     Qt::AlignCenter,
                     QCoreApplication::translate("car", "dashed: usual sizes until yours are measured"));
  }
}

void paint_car_wheels(QPainter& painter, const Desk& desk, const CarShape& s, const CarView& v, double width) {
  const Tokens& t = desk.look().tokens();
  painter.setPen(QPen(t.ink, 1.4));
  painter.drawLine(QPointF(4, v.y0), QPointF(width - 4, v.y0));
  for (const End end : build::both_ends) {
    const double x = end == End::front ? 0 : s.wheelbase, r = s.radius[at(end)];
    const QPointF c = v.at(x, r);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.second);
    painter.drawEllipse(c, r * v.scale, r * v.scale);
    painter.setBrush(t.panel);
    painter.drawEllipse(c, r * v.scale * 0.68, r * v.scale * 0.68);
    painter.setBrush(t.end(end));
    painter.setPen(Qt::NoPen);
    painter.drawEllipse(c, 3.0, 3.0);
    // The scale's pad under the tyre.
    painter.setBrush(t.end(end));
    painter.drawRect(QRectF(c.x() - r * v.scale * 0.6, v.y0 + 1, r * v.scale * 1.2, desk.look().px(4)));
    // The tape: hub centre to arch lip.
    const QPointF lip = v.at(x, s.arch[at(end)]);
    paint_dimension(painter, t, c, lip);
  }
}

void paint_dimension(QPainter& painter, const Tokens& t, QPointF from, QPointF to) {
  painter.setPen(QPen(t.ink, 1.2));
  painter.drawLine(from, to);
  const QPointF along = (to - from) / std::max(1.0, std::hypot((to - from).x(), (to - from).y()));
  const QPointF across(-along.y(), along.x());
  for (const QPointF& end : {from, to})
    painter.drawLine(end - across * 4, end + across * 4);
}

void paint_tape(QPainter& painter, const Look& look, QPointF from, QPointF to) {
  const Tokens& t = look.tokens();
  const QPointF way = to - from;
  const double length = std::max(1.0, std::hypot(way.x(), way.y()));
  const QPointF along = way / length, across(-along.y(), along.x());
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const double half = look.px(5);
  painter.setPen(QPen(t.ink, 1));
  painter.setBrush(t.caution);
  painter.drawPolygon(QPolygonF{{from + across * half, to + across * half, to - across * half, from - across * half}});
  int i = 0;
  for (double d = look.px(6); d < length - 1; d += look.px(6), ++i)
    painter.drawLine(from + along * d - across * half,
                     from + along * d - across * (i % 5 == 4 ? -half * 0.4 : half * 0.3));
  // Where it is held: the ends stand out.
  painter.setPen(QPen(t.ink, 2.4));
  for (const QPointF& end : {from, to})
    painter.drawLine(end - across * look.px(13), end + across * look.px(13));
  painter.restore();
}

} // namespace mavrel::app
