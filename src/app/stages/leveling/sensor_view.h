// The sensor on its end of the car, seen from the front at the pose: shaft, lever, rod and pickup where they are, the
// shaft and the pickup to be dragged. Under it, over height: angle, counts, and how far from in line.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/leveling/sensor_at_end.h"

namespace mavrel::app {

class SensorView : public QWidget {
  Q_OBJECT
public:
  explicit SensorView(Desk& desk, QWidget* parent = nullptr);
  enum class Grip { shaft, pickup };
  /// Where a grip is now, in this widget; none while the sensor is not placed.
  [[nodiscard]] std::optional<QPointF> grip_at(Grip grip) const;
  /// Puts shaft, lever, rod and pickup where they usually are.
  void place();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  struct Frame {
    double left = 0, foot = 0, per_metre = 1; // px of y = 0 and z = 0
    [[nodiscard]] QPointF at(double y, double z) const { return {left + y * per_metre, foot - z * per_metre}; }
  };
  [[nodiscard]] Frame frame() const;
  [[nodiscard]] double dh() const; // m, the pose against the surveyed height
  void move(Grip grip, double by_y, double by_z, const QString& gesture);
  void paint_end(QPainter& painter, const Frame& f) const;
  void paint_sensor(QPainter& painter, const Frame& f) const;
  void describe();

  Desk& desk_;
  Grip held_ = Grip::shaft;
  std::optional<QPointF> dragged_from_; // px
  int drag_ = 0;                        // counts drags, so that each is one step of undo
};

class SensorPlot : public HeightPlot {
  Q_OBJECT
public:
  explicit SensorPlot(Desk& desk, QWidget* parent = nullptr);

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  struct Curve {
    Column column;
    std::vector<double> values; // one a look of the sensor
  };
  [[nodiscard]] std::vector<Curve> curves() const;
};

} // namespace mavrel::app
