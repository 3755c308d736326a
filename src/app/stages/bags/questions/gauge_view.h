// Does pressure tell height here? The pressures a corner may show at every height, and the band of heights that the
// reading at the pose leaves open.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/bags/gauge.h"

namespace mavrel::app {

class GaugeView : public HeightPlot {
  Q_OBJECT
public:
  explicit GaugeView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override { return summary(); }

private:
  [[nodiscard]] std::array<Column, 2> columns() const; // pressure, width of the band
};

} // namespace mavrel::app
