// The height sheet: what the chosen bag does at every height. Tracks side by side on the shared height scale, blocked
// stretches hatched and named, the pose line read across all of it. Drag the line, or click where it should go.
#pragma once

#include "app/kit/height_plot.h"
#include "assess/assessment.h"
#include "assess/height/track.h"

namespace mavrel::app {

class HeightSheet : public HeightPlot {
  Q_OBJECT
public:
  explicit HeightSheet(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  struct TrackColumn : Column {
    const assess::TrackRow* what = nullptr;
  };
  [[nodiscard]] std::vector<TrackColumn> columns() const;
  [[nodiscard]] QString with_doubt(const TrackColumn& column, double H, double value) const;
  [[nodiscard]] QRectF limits_area() const;
  void paint_limits(QPainter& painter, const QRectF& area) const;
  void paint_column(QPainter& painter, const TrackColumn& column) const;
  /// Where the pressures rest on less than the card knows, or must not be used, the line is broken.
  void paint_beyond(QPainter& painter, const TrackColumn& column, const assess::Track& track) const;
};

} // namespace mavrel::app
