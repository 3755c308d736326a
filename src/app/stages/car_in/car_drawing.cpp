#include "app/stages/car_in/car_drawing.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/height_scale.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using build::at;
using build::BodyStyle;

CarDrawing::CarDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("car_drawing");
  // In the order a builder walks round the car with tape and scale: this is also the order of the Tab key.
  for (const End end : build::both_ends) {
    const QString e = build::key_of(end);
    for (const char* side : {"left", "right"}) {
      const QString s = QString(side);
      add(qPrintable(e + "_height_" + s), e + "." + s + ".height_m", s == "left" ? tr("height left") : tr("right"));
    }
    for (const char* side : {"left", "right"}) {
      const QString s = QString(side);
      add(qPrintable(e + "_mass_" + s), e + "." + s + ".mass_kg", s == "left" ? tr("weight left") : tr("right"));
    }
    for (const char* side : {"left", "right"}) {
      const QString s = QString(side);
      add(qPrintable(e + "_floor_" + s), e + "." + s + ".floor_m", s == "left" ? tr("floor left") : tr("right"));
    }
    add(qPrintable(e + "_wheel"), e + ".wheel", tr("tyre and wheel"));
    add(qPrintable(e + "_rating"), e + ".rating_kg", tr("axle rating"));
    add(qPrintable(e + "_track"), e + ".track_m", tr("track"));
  }
  add("front_overhang", "body.front_overhang_m", tr("overhang"));
  add("wheelbase", "body.wheelbase_m", tr("wheelbase"));
  add("rear_overhang", "body.rear_overhang_m", tr("overhang"));
  add("overall_height", "body.overall_height_m", tr("over all"));
  add("sill", "body.sill_height_m", tr("sill"));
  add("rating", "body.rating_kg", tr("car rating"));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, [this] {
      place_fields();
      update();
    });
}

void CarDrawing::add(const char* key, const QString& path, const QString& caption) {
  fields_[key] = new Field(desk_, path, caption, this);
}

QSize CarDrawing::minimumSizeHint() const {
  return {desk_.look().px(560), desk_.look().px(340)};
}

CarDrawing::Shape CarDrawing::shape() const {
  const build::Body& body = desk_.build().body;
  Shape s{};
  s.measured = body.wheelbase && body.front_overhang && body.rear_overhang && body.overall_height;
  s.wheelbase = body.wheelbase.value_or(2.6);
  s.front_overhang = body.front_overhang.value_or(0.85);
  s.rear_overhang = body.rear_overhang.value_or(0.95);
  s.height = body.overall_height.value_or(1.45);
  s.sill = body.sill_height.value_or(0.2);
  for (const End end : build::both_ends) {
    const auto& e = desk_.assessment().end(end);
    s.radius[at(end)] = e.tyre_radius.value_or(0.31);
    s.arch[at(end)] = s.radius[at(end)] + e.surveyed_height.value_or(0.38);
  }
  return s;
}

CarDrawing::View CarDrawing::view(const Shape& s) const {
  const Look& look = desk_.look();
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  const double top = look.px(58), foot = look.px(176); // rows of fields above and below the car
  const double side = look.px(78);
  const double scale = std::max(20.0, std::min((width() - 2 * side) / length, (height() - top - foot) / s.height));
  View v;
  v.scale = scale;
  v.x0 = (width() - length * scale) / 2 + s.front_overhang * scale;
  v.y0 = top + std::max(0.0, (height() - top - foot - s.height * scale) / 2) + s.height * scale;
  return v;
}

void CarDrawing::place_fields() {
  const Look& look = desk_.look();
  const Shape s = shape();
  const View v = view(s);
  const int w = look.px(82), h = look.px(36), gap = look.px(3);
  const auto put = [&](const char* key, double x, double y, int width_px) {
    fields_.at(key)->setGeometry(static_cast<int>(x), static_cast<int>(y), width_px, h);
  };
  const double top = look.px(4);
  const double row = v.y0 + look.px(16);
  for (const End end : build::both_ends) {
    const QString e = build::key_of(end);
    const double centre =
        std::clamp(v.at(end == End::front ? 0 : s.wheelbase, 0).x(), w + gap + 4.0, width() - w - gap - 4.0);
    const double left = centre - w - gap / 2.0, right = centre + gap / 2.0;
    put(qPrintable(e + "_height_left"), left, top, w);
    put(qPrintable(e + "_height_right"), right, top, w);
    put(qPrintable(e + "_mass_left"), left, row, w);
    put(qPrintable(e + "_mass_right"), right, row, w);
    put(qPrintable(e + "_floor_left"), left, row + h + gap, w);
    put(qPrintable(e + "_floor_right"), right, row + h + gap, w);
    put(qPrintable(e + "_wheel"), left, row + 2 * (h + gap), 2 * w + gap);
    put(qPrintable(e + "_rating"), left, row + 3 * (h + gap), w);
    put(qPrintable(e + "_track"), right, row + 3 * (h + gap), w);
  }
  const double middle = v.at(s.wheelbase / 2, 0).x();
  put("wheelbase", middle - w / 2.0, row, w);
  put("rating", middle - w / 2.0, row + 2 * (h + gap), w);
  put("sill", middle - w / 2.0, row + h + gap, w);
  const double narrow = look.px(70);
  put("front_overhang", std::max(2.0, v.at(-s.front_overhang, 0).x() - look.px(76)), v.y0 - h - look.px(6),
      static_cast<int>(narrow));
  put("rear_overhang", std::min(width() - narrow - 2.0, v.at(s.wheelbase + s.rear_overhang, 0).x() + look.px(6)),
      v.y0 - h - look.px(6), static_cast<int>(narrow));
  put("overall_height", std::min(width() - narrow - 2.0, v.at(s.wheelbase + s.rear_overhang, 0).x() + look.px(6)),
      v.at(0, s.height).y() + look.px(8), static_cast<int>(narrow));
}

void CarDrawing::resizeEvent(QResizeEvent*) {
  place_fields();
}

bool CarDrawing::event(QEvent* event) {
  if (event->type() == QEvent::Show) place_fields();
  return QWidget::event(event);
}

void CarDrawing::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Shape s = shape();
  const View v = view(s);
  paint_body(painter, s, v);
  paint_load(painter, s, v);
  paint_wheels(painter, s, v);
  paint_leaders(painter, s, v);
}

namespace {

/// The roof and ends of a body style, as shares of the car: x from the nose (0) to the tail (1), z of its height.
std::vector<QPointF> outline(BodyStyle style) {
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

/// Height of the outline above a point along the car, as a share of the car's height.
double roof_at(const std::vector<QPointF>& points, double share) {
  for (std::size_t i = 1; i < points.size(); ++i)
    if (share <= points[i].x())
      return std::lerp(points[i - 1].y(), points[i].y(),
                       (share - points[i - 1].x()) / std::max(1e-9, points[i].x() - points[i - 1].x()));
  return points.back().y();
}

} // namespace

void CarDrawing::paint_body(QPainter& painter, const Shape& s, const View& v) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  const auto x_of = [&](double share) { return -s.front_overhang + share * length; };
  const auto points = outline(desk_.build().body.style);
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
                     Qt::AlignCenter, tr("dashed: usual sizes until yours are measured"));
  }
}

void CarDrawing::paint_wheels(QPainter& painter, const Shape& s, const View& v) const {
  const Tokens& t = desk_.look().tokens();
  painter.setPen(QPen(t.ink, 1.4));
  painter.drawLine(QPointF(4, v.y0), QPointF(width() - 4, v.y0));
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
    painter.drawRect(QRectF(c.x() - r * v.scale * 0.6, v.y0 + 1, r * v.scale * 1.2, desk_.look().px(4)));
    // The tape: hub centre to arch lip.
    const QPointF lip = v.at(x, s.arch[at(end)]);
    dimension(painter, c, lip);
  }
}

void CarDrawing::paint_load(QPainter& painter, const Shape& s, const View& v) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& build = desk_.build();
  if (desk_.load_case() >= build.load_cases.size()) return;
  const auto points = outline(build.body.style);
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  painter.setFont(look.font(TextSize::small));
  std::vector<double> ends; // right edge of the labels already placed, a row each
  auto masses = build.load_cases[desk_.load_case()].masses;
  std::sort(masses.begin(), masses.end(), [](const auto& a, const auto& b) { return a.x < b.x; });
  for (const auto& mass : masses) {
    // A weight hangs on the middle of the body at its distance; its area follows its mass.
    const double share = std::clamp((mass.x + s.front_overhang) / length, 0.0, 1.0);
    const double side = std::sqrt(std::abs(mass.mass)) * 0.021 * v.scale;
    const double floor_z = std::min(0.66, roof_at(points, share)) * s.height; // on the waistline, clear of the wheels
    const QPointF foot = v.at(mass.x, floor_z);
    const QRectF block(foot.x() - side / 2, foot.y() - side, side, side);
    painter.setPen(QPen(t.ink, 1.2, mass.mass < 0 ? Qt::DashLine : Qt::SolidLine));
    painter.setBrush(mass.mass < 0 ? QBrush(Qt::NoBrush) : QBrush(t.selected));
    painter.drawRect(block);
    const QString text = QString("%1 %2").arg(QString::fromStdString(mass.name), desk_.shown(mass.mass, Kind::mass));
    const double w = painter.fontMetrics().horizontalAdvance(text);
    const double left = std::clamp(foot.x() - w / 2, 2.0, width() - w - 2.0);
    std::size_t row = 0;
    while (row < ends.size() && ends[row] > left - 6)
      ++row;
    if (row == ends.size()) ends.push_back(0);
    ends[row] = left + w;
    const double y = foot.y() + look.px(3) + static_cast<double>(row) * look.px(13);
    painter.fillRect(QRectF(left - 2, y, w + 4, look.px(13)), t.panel);
    painter.setPen(t.ink);
    painter.drawText(QRectF(left, y, w + 1, look.px(13)), Qt::AlignCenter, text);
  }
}

void CarDrawing::dimension(QPainter& painter, QPointF from, QPointF to) const {
  const Tokens& t = desk_.look().tokens();
  painter.setPen(QPen(t.ink, 1.2));
  painter.drawLine(from, to);
  const QPointF along = (to - from) / std::max(1.0, std::hypot((to - from).x(), (to - from).y()));
  const QPointF across(-along.y(), along.x());
  for (const QPointF& end : {from, to})
    painter.drawLine(end - across * 4, end + across * 4);
}

void CarDrawing::paint_leaders(QPainter& painter, const Shape& s, const View& v) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  // From each arch up to the fields that hold its height.
  painter.setPen(QPen(t.second, 1, Qt::DotLine));
  for (const End end : build::both_ends) {
    const double x = end == End::front ? 0 : s.wheelbase;
    const auto* field = fields_.at(QString(build::key_of(end)) + "_height_left");
    painter.drawLine(v.at(x, s.arch[at(end)]), QPointF(v.at(x, 0).x(), field->geometry().bottom() + 2));
  }
  // Wheelbase along the floor, sill and overall height upright.
  const double y = v.y0 + look.px(9);
  dimension(painter, QPointF(v.at(0, 0).x(), y), QPointF(v.at(s.wheelbase, 0).x(), y));
  const double middle = v.at(s.wheelbase / 2, 0).x();
  dimension(painter, QPointF(middle, v.y0), QPointF(middle, v.at(0, s.sill).y()));
  const double right = v.at(s.wheelbase + s.rear_overhang, 0).x();
  dimension(painter, QPointF(right + 2, v.y0), QPointF(right + 2, v.at(0, s.height).y()));
  const double left = v.at(-s.front_overhang, 0).x();
  dimension(painter, QPointF(left, y), QPointF(v.at(0, 0).x(), y));
  dimension(painter, QPointF(v.at(s.wheelbase, 0).x(), y), QPointF(right, y));
}

} // namespace mavrel::app
