// What every drawing over height shares: the vertical axis of heights on the left, columns of values beside it, blocked
// stretches hatched, the pose line read across all of it and dragged with the mouse.
#pragma once

#include "app/kit/height_scale.h"
#include "quantity/kind.h"

#include <QPixmap>
#include <QWidget>

namespace mavrel::app {

class Desk;

class HeightPlot : public QWidget {
  Q_OBJECT
public:
  explicit HeightPlot(Desk& desk, QWidget* parent = nullptr);

  /// Top and bottom of the height scale, in this widget.
  [[nodiscard]] std::pair<int, int> band() const;
  [[nodiscard]] HeightScale scale() const;

  /// Room above and below the band, px at normal text: the same in every plot, so that the posts beside them stay put.
  static constexpr double head_room = 56, foot_room = 20;

signals:
  void band_moved();

protected:
  /// A column and the values at its left and right edge, SI. `high <= low`: nothing to show in it.
  struct Column {
    QRectF rect;
    double low = 0, high = -1;
    Kind kind = Kind::plain;
    [[nodiscard]] bool has_values() const { return high > low; }
    [[nodiscard]] double x(double value) const { return rect.left() + (value - low) / (high - low) * rect.width(); }
  };

  /// Everything but the pose, painted when something else than the pose changes.
  virtual void paint_ground(QPainter& painter) const = 0;
  /// The figures at the pose; the line is drawn already.
  virtual void paint_figures(QPainter& painter, double y) const = 0;
  /// The plot in words, for those who hear it.
  [[nodiscard]] virtual QString described() const { return {}; }

  [[nodiscard]] QRectF plot() const;
  /// Equal columns from `left` to the plot's right edge.
  [[nodiscard]] std::vector<QRectF> split(double left, int count) const;
  void paint_axis(QPainter& painter) const;
  /// The axis, and an empty frame where the plot goes. @returns the frame
  QRectF paint_frame(QPainter& painter) const;
  /// Words among the heights, on the ground: the pose line leaves them out.
  void paint_words(QPainter& painter, const QRectF& room, int flags, const QString& text) const;
  /// Name and unit above a column.
  void paint_head(QPainter& painter, const QRectF& column, const QString& name, const QString& unit) const;
  /// Blocked stretches of the active end under these columns, and their frames.
  void paint_blocked(QPainter& painter, const std::vector<QRectF>& columns) const;
  /// Where the edges of the active end's windows lie in nine cases of ten, across a column; nothing while that is not
  /// known.
  void paint_bands(QPainter& painter, const QRectF& column) const;
  /// Round values along a column's foot.
  void paint_values(QPainter& painter, const Column& column) const;
  /// A ring on the pose line and its figure beside it. @param mark  in front of the figure
  /// @param instead  shown for the figure, where it is known how sure it is
  void paint_figure(QPainter& painter, const Column& column, double value, double y, int decimals = -1,
                    const QString& mark = {}, const QString& instead = {}) const;
  /// The front's lines are solid, the rear's dashed, everywhere.
  [[nodiscard]] QPen line_pen(double width) const;

  Desk& desk_;

  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

  /// Something other than the build has changed what it shows.
  void redraw();

private:
  void pose_at(double y);

  mutable QRegion words_; // where they stand on the ground
  QPixmap ground_;        // everything but the pose, so that dragging it repaints little
  bool stale_ = true;
  bool dragging_ = false;
};

} // namespace mavrel::app
