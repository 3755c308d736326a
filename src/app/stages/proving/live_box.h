// A check measured over the bench link: heights and pressures read at a moment, and corners timed while a hand is on
// their valve.
#pragma once

#include "app/desk/bench_link.h"
#include "app/desk/played_rig.h"
#include "app/stages/proving/questions.h"
#include "assess/proving/series.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class HoldBar;

class LiveBox : public QWidget {
  Q_OBJECT
public:
  LiveBox(Desk& desk, QWidget* parent);
  void show_check(const QString& id);
  void refresh();
  [[nodiscard]] HoldBar* bar() const { return bar_; }

private:
  [[nodiscard]] const assess::HoldPoint* point() const;
  void read(assess::Reached from);
  void begin_timing();
  void end_timing();
  void look();
  /// The circuit that works a corner, as the rig calls it; none where it only reads.
  [[nodiscard]] const link::Circuit* circuit_of(std::size_t corner) const;

  Desk& desk_;
  BenchLink& bench_;
  PlayedRig& rig_;
  QString id_;
  QPushButton *play_, *below_, *above_;
  QComboBox* timed_;
  HoldBar* bar_;
  QLabel* says_;
  std::optional<assess::Stopwatch> watch_; // while the bar is held
  std::size_t figure_ = 0;                 // that is timed
};

} // namespace mavrel::app
