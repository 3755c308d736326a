// Car in: the survey on the drawing of the car, and the brief.
#pragma once

#include "app/kit/stage_page.h"

class QTabBar;
class QStackedWidget;
class QLabel;

namespace mavrel::app {

class CarDrawing;
class Desk;

class CarInStage : public StagePage {
  Q_OBJECT
public:
  explicit CarInStage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;

signals:
  void tape_wanted();

private:
  void refresh();
  [[nodiscard]] int panel_of(const QString& path) const;

  Desk& desk_;
  QLabel *title_, *about_;
  CarDrawing* drawing_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
};

} // namespace mavrel::app
