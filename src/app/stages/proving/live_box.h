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
  /// One circuit's part of a time: of a corner alone, or of all together.
  struct Part {
    const link::Circuit* circuit; // as the rig calls it
    double from, to;              // m, H
    [[nodiscard]] QString name() const { return QString::fromStdString(circuit->name); }
  };
  /// Those of a figure; none where the rig only reads, or lacks a circuit of them.
  [[nodiscard]] std::vector<Part> parts_of(const assess::AskedFigure& figure) const;
  /// m, mean over the corners that the circuit works; none: the link tells none.
  [[nodiscard]] std::optional<double> height_of(const link::Circuit& circuit) const;
  [[nodiscard]] bool is_open(const link::Circuit& circuit) const;
  [[nodiscard]] QString start_of(const std::vector<Part>& parts) const; // `357 mm and 370 mm`
  /// Those that stand too far from where their time begins.
  [[nodiscard]] std::vector<Part> off(const std::vector<Part>& parts) const;

  Desk& desk_;
  BenchLink& bench_;
  PlayedRig& rig_;
  QString id_;
  QPushButton *play_, *below_, *above_;
  QComboBox* timed_;
  HoldBar* bar_;
  QLabel* says_;
  std::vector<assess::Stopwatch> watches_; // while the bar is held: one a part
  // While the bar is held: circuits on their way up, or down, to where the time begins.
  std::vector<std::pair<QString, bool>> brought_;
  QString refused_;        // why the last timing came to nothing, until the next is begun
  std::size_t figure_ = 0; // that is timed
};

} // namespace mavrel::app
