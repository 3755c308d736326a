// What a cold night, a mountain pass and a hard hour do to a car with its valves shut: where each end goes from its
// pose.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/bags/weather.h"

namespace mavrel::app {

class WeatherView : public HeightPlot {
  Q_OBJECT
public:
  explicit WeatherView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override { return summary(); }

private:
  void paint_move(QPainter& painter, const QRectF& column, assess::End end, const assess::SealedEnd& move) const;
};

} // namespace mavrel::app
