// The end as it stands at the pose, drawn to scale from its own joints, from the front, the side or above. The ground
// stays, the body sinks with the pose line. Joints are dragged with the mouse, or chosen with Tab and moved with the
// arrows.
#pragma once

#include "assess/swing/end_scene.h"

#include <QWidget>

#include <optional>

namespace mavrel::app {

class Desk;

class EndView : public QWidget {
  Q_OBJECT
public:
  enum class From { front, side, above };
  explicit EndView(Desk& desk, QWidget* parent = nullptr);

  void look_from(From from);
  [[nodiscard]] From from() const { return from_; }
  /// The joint that is held, by its key in the file; empty: none.
  [[nodiscard]] QString chosen() const { return chosen_; }
  void choose(const QString& joint);
  /// Where a joint is drawn, in this widget; none while it is not.
  [[nodiscard]] std::optional<QPointF> place_of(const QString& joint) const;

signals:
  void chose(const QString& joint);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Frame; // from places to pixels
  [[nodiscard]] std::optional<assess::EndScene> scene() const;
  [[nodiscard]] Frame frame(const assess::EndScene& scene) const;
  [[nodiscard]] const assess::SceneJoint* joint_at(const assess::EndScene& scene, const QPointF& at) const;
  /// Moves the chosen joint by so much of the drawing's two axes, m.
  void move_chosen(double right, double up, const QString& gesture);
  void step_choice(int by);

  void paint_ground(QPainter& painter, const Frame& f) const;
  void paint_wheel(QPainter& painter, const assess::EndScene& s, const Frame& f, const motion::Point& centre) const;
  void paint_height(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_bars(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_damper(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_shaft(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_bag(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_joints(QPainter& painter, const assess::EndScene& s, const Frame& f) const;
  void paint_words(QPainter& painter, const assess::EndScene& s, const Frame& f) const;

  Desk& desk_;
  From from_ = From::front;
  QString chosen_, hovered_;
  bool dragging_ = false;
  QPointF dragged_from_;
  motion::Point began_; // where the joint was measured when the drag began
  int drags_ = 0;
};

} // namespace mavrel::app
