// The car from the side over what lies on the ground, on its wheels, to be dragged along; what touches is named where
// it does. Low points of the underside are dragged up and down while the car stands on flat ground.
#pragma once

#include "assess/ground/ground.h"

#include <QWidget>

#include <optional>

namespace mavrel::app {

class Desk;

class DriveView : public QWidget {
  Q_OBJECT
public:
  explicit DriveView(Desk& desk, QWidget* parent = nullptr);
  /// Which of the brief's things it drives over; none: flat ground.
  void drive_over(std::optional<std::size_t> ground);
  [[nodiscard]] std::optional<std::size_t> ground() const { return ground_; }
  [[nodiscard]] double at() const { return at_; } // m, of the front wheel along the profile
  void drive_to(double x);
  /// To where the underside is nearest to the ground.
  void drive_to_worst();
  /// Where a low point of the build's list is drawn, in this widget.
  [[nodiscard]] std::optional<QPointF> place_of(std::size_t low_point) const;
  /// What is nearest at this place, in words.
  [[nodiscard]] QString told() const;

signals:
  void driven();
  void turned_to(std::optional<std::size_t> ground); // it drives over another thing

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Scene : assess::OnTheGround {
    assess::GroundGiven given;
  };
  [[nodiscard]] std::optional<Scene> scene() const;
  struct Frame {
    double px_per_m = 100, x0 = 0, y0 = 0;
    [[nodiscard]] QPointF at(const space::SidePoint& p) const { return {x0 - p.x * px_per_m, y0 - p.z * px_per_m}; }
  };
  [[nodiscard]] Frame frame(const Scene& scene) const;

  Desk& desk_;
  std::optional<std::size_t> ground_;
  double at_ = 0;
  /// Which low point of the build's list is under the hand.
  [[nodiscard]] std::optional<std::size_t> low_point_at(const Scene& scene, const QPointF& at) const;

  bool dragging_ = false;
  double began_ = 0, grabbed_ = 0;
  std::optional<std::size_t> held_; // a low point being dragged
  int drags_ = 0;
};

} // namespace mavrel::app
