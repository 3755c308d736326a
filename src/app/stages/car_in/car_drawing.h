// The car drawn from its own measurements, with every reading of it where the tape or the scale goes.
#pragma once

#include "app/kit/car_outline.h"

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
  [[nodiscard]] CarView view(const CarShape& shape) const;
  /// @param foot  px that are kept free below the car
  [[nodiscard]] CarView view_over(const CarShape& shape, double foot) const;
  [[nodiscard]] int field_px() const;
  void look_how_tight();
  void add(const char* key, const QString& path, const QString& caption);
  void place_fields();
  void paint_load(QPainter& painter, const CarShape& shape, const CarView& view) const;
  void paint_leaders(QPainter& painter, const CarShape& shape, const CarView& view) const;

  bool tight_ = false; // there is no room between the wheels' fields for those of the whole car
  Desk& desk_;
  std::map<QString, Field*> fields_;
};

} // namespace mavrel::app
