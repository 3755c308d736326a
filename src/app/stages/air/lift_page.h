// A lift: above, the run of air, each part to be changed where it stands; below, heights over time beside the posts.
#pragma once

#include "app/kit/page.h"
#include "app/stages/air/questions.h"

class QComboBox;

namespace mavrel::app {

class Chips;
class LiftPlot;
class LiftStrip;
class RunView;

class LiftPage : public Page {
  Q_OBJECT
public:
  explicit LiftPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  [[nodiscard]] RunView* run() const { return run_; }
  /// The move that is shown; none while it is worked out or can't be.
  [[nodiscard]] const assess::Lift* lift() { return answer_.last(); }
  /// Is what is shown the answer to what is asked now?
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }
  /// Other presets to move between, by their numbers in the brief.
  void show_move(std::size_t from, std::size_t to);
  void write_csv();

protected:
  void fill() override;

private:
  void show_presets();
  [[nodiscard]] std::optional<assess::LiftGiven> given();
  [[nodiscard]] QString why_not() const;

  Asked<LiftQuestion> answer_;
  RunView* run_;
  QComboBox *from_, *to_;
  QPushButton *engine_, *csv_;
  QLabel *throttled_, *others_;
  LiftPlot* plot_;
  LiftStrip* strip_;
  Chips* what_;
};

} // namespace mavrel::app
