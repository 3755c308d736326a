// A lift: above, the run of air, each part to be changed where it stands; below, heights over time beside the posts.
#pragma once

#include "app/stages/air/questions.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class Chips;
class ChoiceBox;
class LiftPlot;
class LiftStrip;
class RunView;

class LiftPage : public QWidget {
  Q_OBJECT
public:
  explicit LiftPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  [[nodiscard]] RunView* run() const { return run_; }
  /// The move that is shown; none while it is worked out or can't be.
  [[nodiscard]] const assess::Lift* lift() const;
  /// Is what is shown the answer to what is asked now?
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }
  /// Other presets to move between, by their numbers in the brief.
  void show_move(std::size_t from, std::size_t to);
  void write_csv();

signals:
  void band_moved();

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void refresh();

  Desk& desk_;
  LongAnswer<LiftQuestion> answer_;
  RunView* run_;
  QComboBox *from_, *to_;
  ChoiceBox* order_;
  QPushButton *engine_, *turn_, *csv_;
  QLabel *throttled_, *arrow_;
  LiftPlot* plot_;
  LiftStrip* strip_;
  Chips* what_;
  QWidget* beside_;
  std::optional<assess::Lift> shown_; // the last answer: it stays while the next is worked out
};

} // namespace mavrel::app
