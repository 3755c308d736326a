// The car from the side, drawn from its own measurements: shared by everything that shows where a tape goes.
#pragma once

#include "app/desk/desk.h"

#include <QPainter>
#include <QPointF>

#include <vector>

namespace mavrel::app {

/// Measured figures, or stand-ins while they are missing; m.
struct CarShape {
  double wheelbase, front_overhang, rear_overhang, height, sill;
  double radius[2], arch[2]; // front, rear
  bool measured = true;      // none of the outline is a stand-in
  [[nodiscard]] double length() const { return front_overhang + wheelbase + rear_overhang; }
};
[[nodiscard]] CarShape car_shape(const Desk& desk);

/// Metres along the car (from the front axle, rearward) and up (from the floor) to pixels.
struct CarView {
  double scale = 100, x0 = 0, y0 = 0;
  [[nodiscard]] QPointF at(double x, double z) const { return {x0 + x * scale, y0 - z * scale}; }
};

/// The roof and ends of a body style, as shares of the car: x from the nose (0) to the tail (1), y of its height.
[[nodiscard]] std::vector<QPointF> car_silhouette(build::BodyStyle style);
/// Height of the roof at a share of the car's length from the nose, as a share of its height.
[[nodiscard]] double car_roof_at(build::BodyStyle style, double share);

void paint_car_body(QPainter& painter, const Desk& desk, const CarShape& shape, const CarView& view);
/// Wheels on the floor, a scale's pad under each, and the tape from hub to arch. @param width  px of the floor
void paint_car_wheels(QPainter& painter, const Desk& desk, const CarShape& shape, const CarView& view, double width);
/// A line with an end mark either way, as on a shop drawing.
void paint_dimension(QPainter& painter, const Tokens& t, QPointF from, QPointF to);
/// The tape itself laid over a place, thick, with its ticks.
void paint_tape(QPainter& painter, const Look& look, QPointF from, QPointF to);

} // namespace mavrel::app
