// Spring and damper of one end, drawn from their readings, and where on them each measure is taken.
#pragma once

#include "app/desk/desk.h"

#include <QLineF>
#include <QPainter>
#include <QRectF>

#include <optional>

namespace mavrel::app {

class EndFigure {
public:
  /// @param room  of the drawing; the longest of its lengths fills the height
  EndFigure(const Desk& desk, End end, const QRectF& room);
  void paint(QPainter& painter) const;

  QLineF spring;              // seat to seat, beside the spring; upper end first
  QLineF damper, open, shut;  // eye to eye, from the lower eye up, beside the damper: as it stands, and its ends
  std::optional<QLineF> stop; // the bump stop's free way, where it is on the damper
  QLineF bag;                 // across the room for the bag

private:
  void paint_spring(QPainter& painter) const;
  void paint_damper(QPainter& painter) const;
  [[nodiscard]] double length(const build::Readings& readings, double usual) const;

  const Desk& desk_;
  End end_;
  bool apart_;
  double scale_ = 1, unit_ = 1; // px a metre; px of the drawing's grid
  double spring_x_ = 0, damper_x_ = 0, eye_ = 0, half_ = 0;
};

} // namespace mavrel::app
