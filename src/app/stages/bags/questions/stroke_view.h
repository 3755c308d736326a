// Pressure and force through the whole stroke with the valves shut, slow and quick, against what the bag bears; and
// what meets first in bump.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/bags/stroke_question.h"

namespace mavrel::app {

class StrokeView : public HeightPlot {
  Q_OBJECT
public:
  explicit StrokeView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override { return summary(); }

private:
  [[nodiscard]] std::array<Column, 2> columns() const; // pressure, force
  void paint_order(QPainter& painter) const;
  [[nodiscard]] const assess::FittedEnd& fitted() const;
};

} // namespace mavrel::app
