// The plan drawn: days sideways, places downwards, hold points as gates. A job is picked by mouse or arrows.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/plan.h"
#include "build/fit_up.h"

#include <QWidget>

namespace mavrel::app {

class PlanView : public QWidget {
  Q_OBJECT
public:
  PlanView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] const QString& held() const { return held_; } // id of the picked job; empty: none
  void hold(const QString& id);
  /// Where a job's bar lies, in this widget; empty while it is out of sight or there is no plan.
  [[nodiscard]] QRectF bar_of(const QString& id) const;
  void show_days(int days); // zooms
  QSize sizeHint() const override;

signals:
  void chose(const QString& id);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  struct Lane {
    build::WorkPlace place = build::WorkPlace::none;
    std::vector<std::vector<std::size_t>> rows; // of jobs, a row one after the other
    double top = 0;
  };
  struct Bar {
    std::size_t job = 0;
    QRectF rect;
    QRectF name; // where it is written, in the bar or beside it: clicked alike
  };
  void lay();
  [[nodiscard]] const Bar* bar_at(const QPointF& at) const; // nullptr: there is none
  [[nodiscard]] double x_of(double hours) const;
  [[nodiscard]] QString label_of(std::size_t job) const;
  [[nodiscard]] const assess::Plan* plan() const;
  void paint_days(QPainter& painter) const;
  void paint_lanes(QPainter& painter) const;
  void paint_bar(QPainter& painter, const Bar& bar) const;
  void paint_gates(QPainter& painter, const Bar& bar) const;
  void paint_links(QPainter& painter) const;
  void scroll_to(std::size_t job);
  void describe();
  void step(int dx, int dy);

  Desk& desk_;
  QString held_;
  int first_ = 0, days_ = 4; // days in sight
  std::vector<Lane> lanes_;
  std::vector<Bar> bars_;
  std::vector<double> columns_; // px of each day in sight, and the last one's end
  double row_ = 0;              // px of a row
};

} // namespace mavrel::app
