// Heights over a drive beside the posts, at their scale; and under it the errors of each set-up, magnified, one above
// the other, with their bursts as ticks.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/leveling/drives.h"

namespace mavrel::app {

/// Where seconds lie across all drawings of a drive.
struct DriveAxis {
  double from = 0, until = 1; // s
  double left = 0, right = 1; // px
  [[nodiscard]] double x(double t) const { return left + (t - from) / (until - from) * (right - left); }
};

class DrivePlot : public HeightPlot {
  Q_OBJECT
public:
  explicit DrivePlot(Desk& desk, QWidget* parent = nullptr);
  /// @param drives  what is drawn; nullptr: nothing. Must outlive the next call
  /// @param picked  which set-up's heights
  /// @param why     said in its place
  void show_drives(const assess::Drives* drives, std::size_t picked, const QString& why);
  /// The stretch of the drive that is looked at, s; none: all of it.
  void look_at(std::optional<std::pair<double, double>> span);
  [[nodiscard]] DriveAxis axis() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  [[nodiscard]] const assess::Driven* driven() const;
  void paint_events(QPainter& painter, const DriveAxis& axis) const;
  const assess::Drives* drives_ = nullptr;
  std::size_t picked_ = 0;
  std::optional<std::pair<double, double>> span_;
  QString why_;
};

class ErrorStrips : public QWidget {
  Q_OBJECT
public:
  ErrorStrips(Desk& desk, const DrivePlot& above, QWidget* parent = nullptr);
  void show_drives(const assess::Drives* drives, std::size_t picked);
  void refresh();

signals:
  void picked(std::size_t set_up);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

private:
  void paint_strip(QPainter& painter, const QRectF& area, std::size_t set_up, double most) const;
  [[nodiscard]] double most_error() const;
  Desk& desk_;
  const DrivePlot& above_;
  const assess::Drives* drives_ = nullptr;
  std::size_t picked_ = 0;
};

} // namespace mavrel::app
