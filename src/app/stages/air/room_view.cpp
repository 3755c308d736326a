#include "app/desk/desk.h"
#include "app/kit/car_outline.h"
#include "app/kit/drawing.h"
#include "app/kit/nudge.h"
#include "app/stages/air/room_page.h"
#include "app/theme/text_line.h"
#include "assess/air/air_findings.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::KitBox;
using assess::KitRoom;

namespace {

constexpr double usual_wheelbase = 2.7, usual_overhang = 0.9, usual_height = 1.45, usual_radius = 0.31,
                 half_width = 0.9, above_road = 0.2; // m

struct RoomQuestion {
  using Given = assess::RoomGiven;
  using Answer = KitRoom;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return assess::kit_room(given); }
};

const assess::RoomGiven& given_of(const Desk& desk) {
  return desk.assessment().air.given().room;
}

} // namespace

RoomView::RoomView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("room_view");
  setAccessibleName(tr("Kit in the car"));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(desk_.look().px(260));
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      describe();
      update();
    });
  connect(&desk_, &Desk::rewound, this, [this] { drag_view_ = -1; });
  describe();
}

const KitRoom& RoomView::room() const {
  return desk_.answers().at_once<RoomQuestion>(given_of(desk_));
}

void RoomView::hold(int box) {
  held_ = box;
  describe();
  update();
}

RoomView::Plan RoomView::plan(int view) const {
  const auto& body = desk_.build().body;
  const double L = body.wheelbase.value_or(usual_wheelbase);
  const double from = -body.front_overhang.value_or(usual_overhang) - 0.1,
               to = L + body.rear_overhang.value_or(usual_overhang) + 0.1;
  const double tall = body.overall_height.value_or(usual_height) + 0.1, wide = 2 * half_width + 0.2;
  const double gap = desk_.look().px(22), margin = desk_.look().px(10);
  const double scale = std::min((width() - 2 * margin) / (to - from), (height() - 2 * margin - gap) / (tall + wide));
  Plan out;
  out.scale = scale;
  out.x0 = from;
  const double left = (width() - (to - from) * scale) / 2;
  if (view == 0) {
    out.area = {left, margin, (to - from) * scale, tall * scale};
    out.v0 = 0;
  } else {
    out.area = {left, margin + tall * scale + gap, (to - from) * scale, wide * scale};
    out.v0 = -wide / 2;
  }
  return out;
}

QPointF RoomView::at(const Plan& p, double x, double v) const {
  return {p.area.left() + (x - p.x0) * p.scale, p.area.bottom() - (v - p.v0) * p.scale};
}

QRectF RoomView::rect_of(const Plan& p, double x, double v, double along, double tall) const {
  return QRectF(at(p, x - along / 2, v + tall / 2), at(p, x + along / 2, v - tall / 2));
}

QRectF RoomView::box_rect(int box, int view) const {
  const auto& boxes = room().boxes;
  if (box < 0 || box >= static_cast<int>(boxes.size())) return {};
  const KitBox& b = boxes[static_cast<std::size_t>(box)];
  const Plan p = plan(view);
  return view == 0 ? rect_of(p, b.x, b.z, b.along, b.height) : rect_of(p, b.x, b.y, b.along, b.across);
}

void RoomView::paint_side(QPainter& painter) const {
  const Tokens& t = desk_.look().tokens();
  const auto& body = desk_.build().body;
  const Plan p = plan(0);
  const double L = body.wheelbase.value_or(usual_wheelbase), front = -body.front_overhang.value_or(usual_overhang),
               rear = L + body.rear_overhang.value_or(usual_overhang), top = body.overall_height.value_or(usual_height);
  // The car's outline from its own measures.
  const double sill = body.sill_height.value_or(above_road);
  QPolygonF shape{at(p, front, sill)};
  for (const QPointF& share : car_silhouette(body.style))
    shape << at(p, std::lerp(front, rear, share.x()), std::max(sill, share.y() * top));
  shape << at(p, rear, sill) << at(p, front, sill);
  painter.setPen(QPen(t.rule, 1.6));
  painter.setBrush(Qt::NoBrush);
  painter.drawPolyline(shape);
  painter.drawLine(at(p, p.x0, 0), QPointF(p.area.right(), at(p, 0, 0).y()));
  for (const End end : build::both_ends) {
    const double r = given_of(desk_).air.ends[build::at(end)]->fitted.model.tyre_radius.value_or(usual_radius);
    painter.drawEllipse(at(p, end == End::front ? 0 : L, r), r * p.scale, r * p.scale);
  }
  painter.setPen(QPen(t.second, 1, Qt::DashLine));
  if (const auto& boot = body.boot; boot.from && boot.floor && boot.length && boot.height)
    painter.drawRect(
        rect_of(p, *boot.from + *boot.length / 2, *boot.floor + *boot.height / 2, *boot.length, *boot.height));
  if (const auto& well = body.well; well.x && well.bottom && well.diameter && well.depth)
    painter.drawRect(rect_of(p, *well.x, *well.bottom + *well.depth / 2, *well.diameter, *well.depth));
  for (const build::HotPart& hot : body.hot) {
    painter.setPen(QPen(t.stop, std::max(2.0, 2 * hot.radius * p.scale),
                        hot.shielded == build::Shielded::yes ? Qt::DotLine : Qt::SolidLine, Qt::RoundCap));
    painter.setOpacity(0.5);
    painter.drawLine(at(p, hot.x, hot.z), at(p, hot.to_x, hot.to_z));
    painter.setOpacity(1);
  }
}

void RoomView::paint_above(QPainter& painter) const {
  const Tokens& t = desk_.look().tokens();
  const auto& body = desk_.build().body;
  const Plan p = plan(1);
  const double L = body.wheelbase.value_or(usual_wheelbase), front = -body.front_overhang.value_or(usual_overhang),
               rear = L + body.rear_overhang.value_or(usual_overhang);
  painter.setPen(QPen(t.rule, 1.6));
  painter.setBrush(Qt::NoBrush);
  painter.drawRoundedRect(rect_of(p, (front + rear) / 2, 0, rear - front, 2 * half_width), p.scale * 0.18,
                          p.scale * 0.18);
  for (const End end : build::both_ends)
    for (const double side : {-1.0, 1.0}) {
      const double track = body.wheelbase ? desk_.build().end(end).track.value_or(1.5) : 1.5;
      painter.drawRect(rect_of(p, end == End::front ? 0 : L, side * track / 2, 2 * usual_radius, 0.2));
    }
  painter.setPen(QPen(t.second, 1, Qt::DashLine));
  if (const auto& boot = body.boot; boot.from && boot.length && boot.width)
    painter.drawRect(rect_of(p, *boot.from + *boot.length / 2, 0, *boot.length, *boot.width));
  if (const auto& well = body.well; well.x && well.y && well.diameter)
    painter.drawEllipse(at(p, *well.x, *well.y), *well.diameter / 2 * p.scale, *well.diameter / 2 * p.scale);
  for (const build::HotPart& hot : body.hot) {
    painter.setPen(QPen(t.stop, std::max(2.0, 2 * hot.radius * p.scale),
                        hot.shielded == build::Shielded::yes ? Qt::DotLine : Qt::SolidLine, Qt::RoundCap));
    painter.setOpacity(0.5);
    painter.drawLine(at(p, hot.x, hot.y), at(p, hot.to_x, hot.to_y));
    painter.setOpacity(1);
  }
}

void RoomView::paint_boxes(QPainter& painter, int view) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const KitRoom& room = this->room();
  const auto troubled = [&](int i) {
    const auto at = static_cast<std::size_t>(i);
    if (std::find(room.out_of_place.begin(), room.out_of_place.end(), at) != room.out_of_place.end()) return true;
    for (const auto& [a, b] : room.meet)
      if (a == at || b == at) return true;
    for (const assess::HotGap& gap : room.hot)
      if (gap.box == at && gap.gap < gap.wanted) return true;
    return false;
  };
  for (int i = 0; i < static_cast<int>(room.boxes.size()); ++i) {
    const QRectF r = box_rect(i, view);
    QColor fill = troubled(i) ? t.stop : t.front;
    fill.setAlphaF(held_ == i ? 0.45F : 0.22F);
    painter.setPen(QPen(troubled(i) ? t.stop : t.ink, held_ == i ? 2.2 : 1.2));
    painter.setBrush(fill);
    painter.drawRect(r);
  }
  // Names beside, apart from one another, each with a hair to its box.
  std::vector<double> heights;
  for (int i = 0; i < static_cast<int>(room.boxes.size()); ++i)
    heights.push_back(box_rect(i, view).center().y());
  const Plan p = plan(view);
  std::vector<int> order(room.boxes.size());
  for (std::size_t i = 0; i < order.size(); ++i)
    order[i] = static_cast<int>(i);
  std::sort(order.begin(), order.end(),
            [&](int a, int b) { return heights[static_cast<std::size_t>(a)] < heights[static_cast<std::size_t>(b)]; });
  painter.setFont(look.font(TextSize::small));
  const double line = look.px(14);
  double y = -1e9;
  double first = p.area.center().y() - static_cast<double>(order.size()) * line / 2;
  for (const int i : order) {
    y = std::max(y + line, first);
    const QRectF r = box_rect(i, view);
    // In the empty middle of the car: the kit lies at an end of it mostly.
    const double x = r.center().x() > p.area.center().x() ? p.area.left() + p.area.width() * 0.34
                                                          : p.area.left() + p.area.width() * 0.60;
    const QString name = (troubled(i) ? "□ " : "") +
                         QString::fromStdString(room.boxes[static_cast<std::size_t>(i)].name) + ", " +
                         desk_.shown(room.boxes[static_cast<std::size_t>(i)].mass, Kind::mass, 1);
    const double w = painter.fontMetrics().horizontalAdvance(name) + 4.0;
    painter.setPen(held_ == i ? t.ink : t.second);
    draw_line(painter, {x, y, w, line}, Qt::AlignLeft | Qt::AlignVCenter, name);
    painter.setPen(QPen(t.rule, 1));
    const bool right = r.center().x() > x;
    painter.drawLine(QPointF(right ? x + w + 2 : x - 3, y + line / 2),
                     QPointF(right ? r.left() : r.right(), r.center().y()));
  }
}

void RoomView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  paint_backdrop(painter, rect(), look);
  if (room().boxes.empty())
    return paint_instead(painter, rect(), look,
                         tr("The kit has no compressor, tank or valves yet that would lie anywhere."));
  painter.setRenderHint(QPainter::Antialiasing);
  paint_side(painter);
  paint_above(painter);
  paint_boxes(painter, 0);
  paint_boxes(painter, 1);
  painter.setFont(look.font(TextSize::small));
  painter.setPen(look.tokens().second);
  for (const int view : {0, 1})
    draw_line(painter, QRectF(look.px(6), view == 0 ? look.px(4) : plan(1).area.top() - look.px(16), 200, look.px(14)),
              Qt::AlignLeft | Qt::AlignVCenter, view == 0 ? tr("from the left") : tr("from above, left up"));
}

void RoomView::move_held(int view, double x, double v, const QString& gesture) {
  const auto& boxes = room().boxes;
  if (held_ < 0 || held_ >= static_cast<int>(boxes.size())) return;
  const KitBox& box = boxes[static_cast<std::size_t>(held_)];
  build::Build next = desk_.build();
  build::AirKit& kit = next.variant().air;
  const QString place = box.place;
  build::PartPlace& at = place == "compressor_at"    ? kit.compressor_at
                         : place == "tank_at"        ? kit.tank_at
                         : place == "second_tank_at" ? kit.second_tank_at
                                                     : kit.valves_at;
  const auto rounded = [](double m, double least, double most) {
    return std::clamp(std::round(m * 100) / 100, least, most);
  };
  // The second compressor is moved with the first: by as much.
  at.x = rounded(at.x + x - box.x, -2, 7);
  if (view == 0)
    at.z = rounded(at.z + v - box.z, 0, 2.5);
  else
    at.y = rounded(at.y + v - box.y, -1.2, 1.2);
  desk_.edit(tr("Move %1").arg(QString::fromStdString(box.name)), std::move(next), gesture);
}

void RoomView::mousePressEvent(QMouseEvent* event) {
  for (const int view : {0, 1})
    for (int i = static_cast<int>(room().boxes.size()); i-- > 0;)
      if (box_rect(i, view).adjusted(-2, -2, 2, 2).contains(event->position())) {
        hold(i);
        emit chose(i);
        const Plan p = plan(view);
        const KitBox& box = room().boxes[static_cast<std::size_t>(i)];
        grabbed_ = at(p, box.x, view == 0 ? box.z : box.y) - event->position();
        drag_view_ = view;
        ++drag_;
        return;
      }
}

void RoomView::mouseMoveEvent(QMouseEvent* event) {
  if (drag_view_ < 0) return;
  const Plan p = plan(drag_view_);
  const QPointF to = event->position() + grabbed_;
  move_held(drag_view_, p.x0 + (to.x() - p.area.left()) / p.scale, p.v0 + (p.area.bottom() - to.y()) / p.scale,
            QString("kit box %1").arg(drag_));
}

void RoomView::mouseReleaseEvent(QMouseEvent*) {
  drag_view_ = -1;
  desk_.document().end_gesture();
}

void RoomView::keyPressEvent(QKeyEvent* event) {
  const auto& boxes = room().boxes;
  if (boxes.empty()) return QWidget::keyPressEvent(event);
  if (event->key() == Qt::Key_PageDown || event->key() == Qt::Key_PageUp) {
    const int n = static_cast<int>(boxes.size());
    hold((held_ + (event->key() == Qt::Key_PageDown ? 1 : n - 1)) % n);
    emit chose(held_);
    return;
  }
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.10 : 0.01;
  const KitBox& box = boxes[static_cast<std::size_t>(std::clamp<int>(held_, 0, static_cast<int>(boxes.size()) - 1))];
  const bool up = event->modifiers() & Qt::ControlModifier; // up and down instead of left and right
  const auto stroke = [&] { return stroke_of(*event, desk_.document()); };
  switch (event->key()) {
  case Qt::Key_Left:
    return move_held(1, box.x - step, box.y, stroke());
  case Qt::Key_Right:
    return move_held(1, box.x + step, box.y, stroke());
  case Qt::Key_Up:
    return up ? move_held(0, box.x, box.z + step, stroke()) : move_held(1, box.x, box.y + step, stroke());
  case Qt::Key_Down:
    return up ? move_held(0, box.x, box.z - step, stroke()) : move_held(1, box.x, box.y - step, stroke());
  default:
    QWidget::keyPressEvent(event);
  }
}

bool RoomView::event(QEvent* event) {
  if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) update();
  return QWidget::event(event);
}

void RoomView::describe() {
  QStringList words;
  for (const KitBox& box : room().boxes)
    words << tr("%1: %2 behind the front axle, %3 left, %4 above the road")
                 .arg(QString::fromStdString(box.name), desk_.shown(box.x, Kind::length),
                      desk_.shown(box.y, Kind::length), desk_.shown(box.z, Kind::length));
  setAccessibleDescription(words.join(". "));
}

} // namespace mavrel::app
