// One end's height upwards on the shared axis, the other's sideways: each thing on the ground forbids a region of this
// plane, presets are points in it, and the ways between them paths.
#pragma once

#include "app/kit/height_plot.h"
#include "app/stages/clearance/questions.h"

namespace mavrel::app {

class GroundPlot : public HeightPlot {
  Q_OBJECT
public:
  explicit GroundPlot(Desk& desk, QWidget* parent = nullptr);
  /// How the car goes from one preset to the next.
  void set_order(assess::Order order);
  [[nodiscard]] assess::Order order() const { return order_; }
  [[nodiscard]] QString summary() const;
  [[nodiscard]] const GroundsAnswer* answer() const { return planes_.value(); }
  /// Where a pair of heights lies, in this widget.
  [[nodiscard]] QPointF place_of(const std::array<double, 2>& H) const;

signals:
  void answered();

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override { return summary(); }
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  [[nodiscard]] std::optional<GroundsGiven> given() const;
  [[nodiscard]] build::End other() const;
  [[nodiscard]] Column column() const;
  void pose_other(double x);

  Asked<GroundsQuestion> planes_;
  assess::Order order_ = assess::Order::together;
};

} // namespace mavrel::app
