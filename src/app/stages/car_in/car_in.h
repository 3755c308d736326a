// Car in: the survey on the drawing of the car, and the brief.
#pragma once

#include "app/kit/stage_page.h"

class QTabBar;
class QStackedWidget;

namespace mavrel::app {

class CarDrawing;
class TapeMode;

class CarInStage : public StagePage {
  Q_OBJECT
public:
  explicit CarInStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override {
    if (path.startsWith("tape:")) return true;
    return path.contains(".brief.") && !path.contains(".brief.grounds") && !path.contains(".brief.rooms");
  }
  void arrive() override { leave_tape(); }
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  [[nodiscard]] bool takes_arrows() const override;
  /// Tape mode has the page to itself: the car is to be large.
  [[nodiscard]] bool wants_posts() const override { return !takes_arrows(); }

  /// One reading at a time, instead of the whole survey.
  void begin_tape();
  void leave_tape();

protected:
  void fill() override;

private:
  [[nodiscard]] int panel_of(const QString& path) const;

  QStackedWidget* stack_; // the survey, and tape mode
  QWidget* survey_;
  QWidget* survey_area_ = nullptr; // in which it scrolls
  TapeMode* tape_;
  QLabel *title_, *about_;
  CarDrawing* drawing_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
};

} // namespace mavrel::app
