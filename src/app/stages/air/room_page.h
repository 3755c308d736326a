// Where the kit lies: its parts as boxes in the car from the side and from above, to be dragged; what they weigh, what
// they leave of the boot, and what is near what is hot.
#pragma once

#include "app/kit/page.h"
#include "assess/air/room.h"

namespace mavrel::app {

class ChoiceBox;
class PathTable;
class RoomView;

class RoomPage : public Page {
  Q_OBJECT
public:
  explicit RoomPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] bool takes_arrows() const override { return true; }
  [[nodiscard]] RoomView* view() const { return view_; }

protected:
  void fill() override;

private:
  void hold(int box);
  void fill_about(const assess::KitRoom& room);

  RoomView* view_;
  QLabel *held_, *about_;
  std::vector<std::pair<Field*, QString>> fields_; // of the held part's place, with the last step of their path
  std::vector<std::pair<ChoiceBox*, QString>> choices_;
  PathTable* hot_;
  QString place_ = "tank_at";
};

class RoomView : public QWidget {
  Q_OBJECT
public:
  RoomView(Desk& desk, QWidget* parent);
  [[nodiscard]] int held() const { return held_; }
  void hold(int box);
  /// A box in the view from the side (0) or from above (1), in this widget.
  [[nodiscard]] QRectF box_rect(int box, int view) const;
  [[nodiscard]] const assess::KitRoom& room() const;

signals:
  void chose(int box);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Plan {
    QRectF area;
    double scale = 1, x0 = 0, v0 = 0; // px a metre; m at the left, and at the bottom or the middle
  };
  [[nodiscard]] Plan plan(int view) const;
  [[nodiscard]] QPointF at(const Plan& plan, double x, double v) const;
  [[nodiscard]] QRectF rect_of(const Plan& plan, double x, double v, double along, double height) const;
  void paint_side(QPainter& painter) const;
  void paint_above(QPainter& painter) const;
  void paint_boxes(QPainter& painter, int view) const;
  void move_held(int view, double dx, double dv, const QString& gesture);
  void describe();

  Desk& desk_;
  int held_ = 0;
  int drag_view_ = -1, drag_ = 0;
  QPointF grabbed_; // m, of the held box's middle from the pointer
};

} // namespace mavrel::app
