// Comfort of the whole car: both ends' frequency and damping in every load case, and how it pitches on after a bump at
// speed, as it is against the best that can be reached.
#pragma once

#include "app/kit/row_panel.h"
#include "assess/bags/ride.h"

namespace mavrel::app {

class Chart;
class Field;

/// The active end's damper by a few points of its curve.
class DamperPanel : public RowPanel {
  Q_OBJECT
public:
  explicit DamperPanel(Desk& desk, QWidget* parent = nullptr);

protected:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
};

class ComfortView : public QWidget {
  Q_OBJECT
public:
  explicit ComfortView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  class Dots;
  void refresh();

  Desk& desk_;
  Dots* dots_;
  Chart* pitch_;
  Field* speed_;
};

} // namespace mavrel::app
