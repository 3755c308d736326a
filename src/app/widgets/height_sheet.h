// The height sheet: what the chosen bag does at every height. Tracks side by side on the shared height scale, blocked
// stretches hatched and named, the pose line read across all of it. Drag the line, or click where it should go.
#pragma once

#include "app/widgets/height_scale.h"
#include "assess/assessment.h"

#include <QPixmap>
#include <QWidget>

namespace mavrel::app {

class Desk;

class HeightSheet : public QWidget {
  Q_OBJECT
public:
  explicit HeightSheet(Desk& desk, QWidget* parent = nullptr);

  /// Top and bottom of the height scale, in this widget.
  [[nodiscard]] std::pair<int, int> band() const;
  [[nodiscard]] HeightScale scale() const;

signals:
  void band_moved();

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

private:
  /// A column of the sheet.
  struct Column {
    assess::TrackCode code;
    QRectF rect;
    double low = 0, high = 1; // values at its left and right edge, SI
    [[nodiscard]] double x(double value) const { return rect.left() + (value - low) / (high - low) * rect.width(); }
  };
  [[nodiscard]] std::vector<Column> columns() const;
  void redraw();
  void paint_ground(QPainter& painter) const;
  void paint_limits(QPainter& painter, const QRectF& area) const;
  void paint_column(QPainter& painter, const Column& column) const;
  void paint_pose(QPainter& painter) const;
  [[nodiscard]] QRectF plot() const;
  [[nodiscard]] QRectF limits_area() const;
  void describe();

  Desk& desk_;
  QPixmap ground_; // everything but the pose, so that dragging it repaints little
  bool stale_ = true;
  bool dragging_ = false;
};

} // namespace mavrel::app
