// From places on the car to pixels of the drawing of an end. For the two files that make it.
#pragma once

#include "app/stages/swing/end_view.h"

#include <QPointF>

#include <utility>

namespace mavrel::app {

/// The drawing's two axes and its scale: from the front the car's left is at the right, from the side the front is at
/// the left, from above the front is at the top.
struct EndView::Frame {
  From from = From::front;
  double px_per_m = 100, x0 = 0, y0 = 0; // pixels of the place (0, 0) of the two axes
  double sink = 0;                       // m that the body has sunk: places are the body's own

  [[nodiscard]] static std::pair<double, double> axes(From from, const motion::Point& p) {
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
  [[nodiscard]] QPointF at(const motion::Point& p) const {
    auto [right, up] = axes(from, p);
    if (from != From::above) up -= sink;
    return {x0 + right * px_per_m, y0 - up * px_per_m};
  }
  [[nodiscard]] QPointF way(const motion::Point& p) const {
    const auto [right, up] = axes(from, p);
    return {right, -up};
  }
};

} // namespace mavrel::app
