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
  /// The hand is on the bar: the corner is brought to where its time begins, or timed where it stands there.
  void begin();
  /// It left: what was not timed to its end says so, as the rig's next word on the valve will.
  void end_hold();
  void end_timing();
  void bring();
  void look();
  void refuse(const QString& why);
  /// What the bar would do now.
  void name_bar();
  /// The time that is chosen; none: nothing here is timed.
  [[nodiscard]] const assess::AskedFigure* chosen() const;
  /// m, mean over the corners that the circuit works; none: the link tells none.
  [[nodiscard]] std::optional<double> height_of(const link::Circuit& circuit) const;
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
  std::optional<bool> brought_up_;         // while the bar is held: brought up or down to where the time begins
  QString refused_;                        // why the last timing came to nothing, until the next is begun
  std::size_t figure_ = 0;                 // that is timed
};

} // namespace mavrel::app
