#include "app/stages/car_in/car_drawing.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/height_scale.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

namespace {
// px at normal size: a field and the gap between two, the rows below the car, one row more.
constexpr int field_width = 82, field_gap = 3, foot_room = 176, row_height = 39;
} // namespace

using build::at;

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
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      place_fields();
      update();
    });
}

void CarDrawing::add(const char* key, const QString& path, const QString& caption) {
  fields_[key] = new Field(desk_, path, caption, this);
}

QSize CarDrawing::minimumSizeHint() const {
  // Narrower than its fields like to be they give way; it never has to be scrolled sideways.
  return {desk_.look().px(260), desk_.look().px(tight_ ? 340 + row_height : 340)};
}

int CarDrawing::field_px() const {
  const Look& look = desk_.look();
  return std::min(look.px(field_width), std::max(20, (width() - 5 * look.px(field_gap) - 8) / 4));
}

void CarDrawing::look_how_tight() {
  const CarShape s = car_shape(desk_);
  const Look& look = desk_.look();
  const double between = s.wheelbase * view_over(s, look.px(foot_room)).scale;
  // Once tight it stays so until there is clearly room: a scroll bar that comes and goes changes nothing.
  const bool tight = between < 3 * look.px(field_width) + 4 * look.px(field_gap) + (tight_ ? look.px(20) : 0);
  if (tight == tight_) return;
  tight_ = tight;
  updateGeometry(); // it wants another height
}

CarView CarDrawing::view(const CarShape& s) const {
  return view_over(s, desk_.look().px(tight_ ? foot_room + row_height : foot_room));
}

CarView CarDrawing::view_over(const CarShape& s, double foot) const {
  const Look& look = desk_.look();
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  const double top = look.px(58); // of fields above the car; `foot` of those below
  const double side = look.px(78);
  const double scale = std::max(20.0, std::min((width() - 2 * side) / length, (height() - top - foot) / s.height));
  CarView v;
  v.scale = scale;
  v.x0 = (width() - length * scale) / 2 + s.front_overhang * scale;
  v.y0 = top + std::max(0.0, (height() - top - foot - s.height * scale) / 2) + s.height * scale;
  return v;
}

void CarDrawing::place_fields() {
  const Look& look = desk_.look();
  const CarShape s = car_shape(desk_);
  const CarView v = view(s);
  const int w = field_px(), h = look.px(36), gap = look.px(field_gap);
  const auto put = [&](const char* key, double x, double y, int width_px) {
    fields_.at(key)->setGeometry(static_cast<int>(x), static_cast<int>(y), width_px, h);
  };
  const double top = look.px(4);
  const double row = v.y0 + look.px(16);
  for (const End end : build::both_ends) {
    const QString e = build::key_of(end);
    // At its wheel, within the drawing, and no group over the other.
    const double half = w + gap;
    const double wheel = v.at(end == End::front ? 0 : s.wheelbase, 0).x();
    const double centre = end == End::front ? std::clamp(wheel, half + 4.0, std::max(half + 4.0, width() / 2.0 - half))
                                            : std::clamp(wheel, std::min(width() / 2.0 + half, width() - half - 4.0),
                                                         width() - half - 4.0);
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
  // Between the wheels where there is room, else in a row of their own.
  const double middle = tight_ ? width() / 2.0 : v.at(s.wheelbase / 2, 0).x();
  int n = 0;
  for (const char* key : {"wheelbase", "sill", "rating"}) {
    if (tight_)
      put(key, middle + (n - 1.5) * (w + gap) + gap / 2.0, row + 4 * (h + gap), w);
    else
      put(key, middle - w / 2.0, row + n * (h + gap), w);
    ++n;
  }
  double narrow = look.px(70);
  for (const char* key : {"front_overhang", "rear_overhang", "overall_height"})
    narrow = std::max(narrow, double(fields_.at(key)->minimumSizeHint().width()));
  put("front_overhang", std::max(2.0, v.at(-s.front_overhang, 0).x() - look.px(76)), v.y0 - h - look.px(6),
      static_cast<int>(narrow));
  put("rear_overhang", std::min(width() - narrow - 2.0, v.at(s.wheelbase + s.rear_overhang, 0).x() + look.px(6)),
      v.y0 - h - look.px(6), static_cast<int>(narrow));
  // Above the overhang's, however small the car is drawn.
  put("overall_height", std::min(width() - narrow - 2.0, v.at(s.wheelbase + s.rear_overhang, 0).x() + look.px(6)),
      std::min(v.at(0, s.height).y() + look.px(8), v.y0 - 2.0 * h - look.px(6) - gap), static_cast<int>(narrow));
}

void CarDrawing::resizeEvent(QResizeEvent*) {
  look_how_tight();
  place_fields();
}

bool CarDrawing::event(QEvent* event) {
  if (event->type() == QEvent::Show) place_fields();
  return QWidget::event(event);
}

void CarDrawing::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const CarShape s = car_shape(desk_);
  const CarView v = view(s);
  paint_car_body(painter, desk_, s, v);
  paint_car_wheels(painter, desk_, s, v, width());
  paint_load(painter, s, v); // its names are read before wheels
  paint_leaders(painter, s, v);
}

void CarDrawing::paint_load(QPainter& painter, const CarShape& s, const CarView& v) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& build = desk_.build();
  if (desk_.load_case() >= build.load_cases.size()) return;
  const double length = s.front_overhang + s.wheelbase + s.rear_overhang;
  painter.setFont(look.font(TextSize::small));
  std::vector<double> ends; // right edge of the labels already placed, a row each
  auto masses = build.load_cases[desk_.load_case()].masses;
  std::sort(masses.begin(), masses.end(), [](const auto& a, const auto& b) { return a.x < b.x; });
  for (const auto& mass : masses) {
    // A weight hangs on the middle of the body at its distance; its area follows its mass.
    const double share = std::clamp((mass.x + s.front_overhang) / length, 0.0, 1.0);
    const double side = std::sqrt(std::abs(mass.mass)) * 0.021 * v.scale;
    const double floor_z =
        std::min(0.66, car_roof_at(build.body.style, share)) * s.height; // on the waistline, clear of the wheels
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

void CarDrawing::paint_leaders(QPainter& painter, const CarShape& s, const CarView& v) const {
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
  paint_dimension(painter, t, QPointF(v.at(0, 0).x(), y), QPointF(v.at(s.wheelbase, 0).x(), y));
  const double middle = v.at(s.wheelbase / 2, 0).x();
  paint_dimension(painter, t, QPointF(middle, v.y0), QPointF(middle, v.at(0, s.sill).y()));
  const double right = v.at(s.wheelbase + s.rear_overhang, 0).x();
  paint_dimension(painter, t, QPointF(right + 2, v.y0), QPointF(right + 2, v.at(0, s.height).y()));
  const double left = v.at(-s.front_overhang, 0).x();
  paint_dimension(painter, t, QPointF(left, y), QPointF(v.at(0, 0).x(), y));
  paint_dimension(painter, t, QPointF(v.at(s.wheelbase, 0).x(), y), QPointF(right, y));
}

} // namespace mavrel::app
