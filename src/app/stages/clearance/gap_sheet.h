// The map of an end over height and steer, and beside it every gap as a track over height: what is blocked is hatched,
// the worst place is marked, and a click poses the car and steers it there.
#pragma once

#include "app/kit/paged_plot.h"
#include "app/stages/clearance/questions.h"

namespace mavrel::app {

class Steer;

class GapSheet : public PagedPlot {
  Q_OBJECT
public:
  GapSheet(Desk& desk, Steer& steer, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;
  [[nodiscard]] QStringList names() const;
  /// Where the map lies in this widget; empty: it shows none.
  [[nodiscard]] QRectF map_rect() const;
  [[nodiscard]] const assess::ClearanceMap* map() const { return map_.value(); }
  /// Poses and steers to the map's worst place.
  void go_to_worst();

signals:
  void worked_out(); // the map came, or went

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  struct Strip : Column {
    const assess::GapCurve* gap = nullptr;
    QString name;
  };
  void ask();
  [[nodiscard]] std::optional<assess::MapGiven> given() const;
  [[nodiscard]] std::vector<Strip> strips() const;
  [[nodiscard]] std::vector<const assess::GapCurve*> gaps() const; // tightest first
  [[nodiscard]] std::size_t count() const override { return gaps().size(); }
  [[nodiscard]] QRectF area() const override;
  void paint_map(QPainter& painter) const;
  void paint_strip(QPainter& painter, const Strip& strip) const;
  void steer_at(const QPointF& at);

  Steer& steer_;
  Asked<MapQuestion> map_;
};

} // namespace mavrel::app
