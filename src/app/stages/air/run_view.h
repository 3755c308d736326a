// The run of air, drawn from the kit: from intake to bags, left to right, as wide as each part lets air through, so
// that the narrow place is seen. Every part can be changed where it stands.
#pragma once

#include "assess/air/lift.h"

#include <QWidget>

namespace mavrel::app {

class Desk;

class RunView : public QWidget {
  Q_OBJECT
public:
  explicit RunView(Desk& desk, QWidget* parent = nullptr);
  /// What throttles the move that is shown; must outlive the next call.
  void show_throttles(const std::vector<assess::Throttle>* throttles);

  /// Where a part stands, in this widget; empty: it is not drawn.
  [[nodiscard]] QRectF place_of(assess::KitRole role) const;
  void hold(assess::KitRole role);
  [[nodiscard]] std::optional<assess::KitRole> held() const { return held_; }
  /// The shelf's parts for the held role in a menu; choosing one puts it there.
  void offer();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Station {
    assess::KitRole role;
    int column; // of the run; parts that hang on another stand under it
    int row;    // 0 in the run, 1.. hung below
  };
  [[nodiscard]] static const std::vector<Station>& stations();
  [[nodiscard]] QRectF station(const Station& s) const;
  [[nodiscard]] double run_y() const;
  [[nodiscard]] double branch_y(int circuit, int count) const;
  void paint_flow(QPainter& painter) const;
  void paint_station(QPainter& painter, const Station& s) const;
  [[nodiscard]] std::optional<assess::KitRole> at(const QPointF& where) const;
  [[nodiscard]] QString told(assess::KitRole role) const;
  void describe();

  Desk& desk_;
  const std::vector<assess::Throttle>* throttles_ = nullptr;
  std::optional<assess::KitRole> held_;
};

} // namespace mavrel::app
