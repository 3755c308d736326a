// Heights over time beside the posts, at their scale: what the car does on its way from one preset to another.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/air/lift.h"

namespace mavrel::app {

/// Where seconds lie across both drawings of a move.
struct TimeAxis {
  double last = 1;            // s at the right edge
  double left = 0, right = 1; // px
  [[nodiscard]] double x(double t) const { return left + t / last * (right - left); }
};

class LiftPlot : public HeightPlot {
  Q_OBJECT
public:
  explicit LiftPlot(Desk& desk, QWidget* parent = nullptr);
  /// @param lift  what is drawn; nullptr: nothing. Must outlive the next call
  /// @param why   said in its place
  void show_lift(const assess::Lift* lift, const QString& why);
  [[nodiscard]] TimeAxis time() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  const assess::Lift* lift_ = nullptr;
  QString why_;
};

/// Under it, along the same seconds: the tank, the bags or the loads.
class LiftStrip : public QWidget {
  Q_OBJECT
public:
  enum class What { tank, bags, loads };
  LiftStrip(Desk& desk, const LiftPlot& above, QWidget* parent = nullptr);
  void show_lift(const assess::Lift* lift);
  void show_what(What what);
  [[nodiscard]] What what() const { return what_; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void describe();
  Desk& desk_;
  const LiftPlot& above_;
  const assess::Lift* lift_ = nullptr;
  What what_ = What::tank;
};

} // namespace mavrel::app
