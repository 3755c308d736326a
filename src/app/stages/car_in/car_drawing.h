// The car drawn from its own measurements, with every reading of it where the tape or the scale goes.
#pragma once

#include "build/build.h"

#include <QWidget>

#include <map>

namespace mavrel::app {

class Desk;
class Field;

class CarDrawing : public QWidget {
  Q_OBJECT
public:
  explicit CarDrawing(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QSize minimumSizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  bool event(QEvent* event) override;

private:
  /// Metres along the car (from the front axle, rearward) and up (from the floor) to pixels.
  struct View {
    double scale = 100, x0 = 0, y0 = 0;
    [[nodiscard]] QPointF at(double x, double z) const { return {x0 + x * scale, y0 - z * scale}; }
  };
  /// Measured figures, or stand-ins drawn faintly while they are missing.
  struct Shape {
    double wheelbase, front_overhang, rear_overhang, height, sill;
    double radius[2], arch[2];
    bool measured = true; // none of the outline is a stand-in
  };
  [[nodiscard]] Shape shape() const;
  [[nodiscard]] View view(const Shape& shape) const;
  void add(const char* key, const QString& path, const QString& caption);
  void place_fields();
  void paint_body(QPainter& painter, const Shape& shape, const View& view) const;
  void paint_wheels(QPainter& painter, const Shape& shape, const View& view) const;
  void paint_load(QPainter& painter, const Shape& shape, const View& view) const;
  void paint_leaders(QPainter& painter, const Shape& shape, const View& view) const;
  void dimension(QPainter& painter, QPointF from, QPointF to) const;

  Desk& desk_;
  std::map<QString, Field*> fields_;
};

} // namespace mavrel::app
