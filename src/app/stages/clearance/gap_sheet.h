// The map of an end over height and steer, and beside it every gap as a track over height: what is blocked is hatched,
// the worst place is marked, and a click poses the car and steers it there.
#pragma once

#include "app/kit/height_plot.h"
#include "app/stages/clearance/questions.h"

namespace mavrel::app {

class Steer;

class GapSheet : public HeightPlot {
  Q_OBJECT
public:
  GapSheet(Desk& desk, Steer& steer, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;
  [[nodiscard]] QStringList names() const;
  /// What does not fit beside each other stands on a further page: which is shown, of how many.
  [[nodiscard]] std::pair<int, int> page() const;
  void turn_page();
  /// Where the map lies in this widget; empty: it shows none.
  [[nodiscard]] QRectF map_rect() const;
  [[nodiscard]] const std::optional<assess::ClearanceMap>& map() const;
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
  [[nodiscard]] std::vector<Strip> strips() const;
  [[nodiscard]] std::vector<const assess::GapCurve*> gaps() const; // tightest first
  [[nodiscard]] std::size_t room() const;                          // for how many
  void paint_map(QPainter& painter) const;
  void paint_strip(QPainter& painter, const Strip& strip) const;
  void steer_at(const QPointF& at);

  Steer& steer_;
  LongAnswer<MapQuestion> map_;
  int page_ = 0;
};

} // namespace mavrel::app
