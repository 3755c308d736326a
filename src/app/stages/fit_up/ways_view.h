// The car from the side and from above, with the kit in its places and lines on their ways. What is held is dragged, or
// nudged with the arrows.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/places.h"
#include "assess/fit_up/routes.h"

#include <QWidget>

namespace mavrel::app {

class WaysView : public QWidget {
  Q_OBJECT
public:
  WaysView(Desk& desk, QWidget* parent = nullptr);
  /// A line of this key is held, and one of its points; -1: none.
  void hold_route(const QString& key, int point = -1);
  /// A place is held by its field below the variant: `air.tank_at`.
  void hold_place(const QString& field);
  [[nodiscard]] int held_point() const { return point_; }
  [[nodiscard]] const QString& held_route() const { return route_; }
  /// Where a point of the held line lies, seen from the side (0) or from above (1); in this widget.
  [[nodiscard]] QPointF point_at(int point, int view) const;
  /// Where a place lies.
  [[nodiscard]] QPointF place_at(const QString& field, int view) const;
  QSize sizeHint() const override;

signals:
  void chose_route(const QString& key);
  void chose_point(int point);
  void chose_place(const QString& field);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  /// One of the two views: px a metre, and where the front axle's middle on the ground lies.
  struct Frame {
    double scale = 100, x0 = 0, y0 = 0;
    [[nodiscard]] QPointF at(double x, double v) const { return {x0 + x * scale, y0 - v * scale}; }
  };
  [[nodiscard]] Frame frame(int view) const;
  [[nodiscard]] QPointF at(int view, double x, double y, double z) const;
  void paint_car(QPainter& painter) const;
  void paint_kit(QPainter& painter, int view) const;
  void paint_routes(QPainter& painter, int view) const;
  /// Moves what is held: rearward, and up or to the left.
  /// @param by  m to the right and up  @param grain  m that places are rounded to  @returns m that it moved by
  QPointF move_held(int view, QPointF by, double grain, const QString& gesture);
  [[nodiscard]] const assess::JudgedRoute* held() const;
  void describe();

  Desk& desk_;
  QString route_, place_;
  int point_ = -1;
  int drag_view_ = -1, drag_ = 0;
  QPointF last_; // px
};

} // namespace mavrel::app
