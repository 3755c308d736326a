// What is near the wheel: the section with its least gap, what lies there, and below the map over height and steer.
#pragma once

#include "app/kit/page.h"
#include "app/stages/clearance/steer.h"

class QSlider;
class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class Chips;
class EndPanel;
class GapSheet;
class ObstaclesPanel;
class SectionView;

class NearPage : public Page {
  Q_OBJECT
public:
  explicit NearPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] bool takes_arrows() const override;
  void show_panel(int index);
  [[nodiscard]] GapSheet* sheet() const { return sheet_; }
  [[nodiscard]] SectionView* view() const { return view_; }
  [[nodiscard]] Steer& steer() { return steer_; }
  void turn_page();
  /// To full lock, step by step; 0 is straight ahead.
  void steer_by(double share);

protected:
  void fill() override;

private:
  void look_from(int from);

  Steer steer_;
  Chips* views_;
  QSlider* wheel_;
  QLabel *wheel_about_, *sheet_about_;
  SectionView* view_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
  ObstaclesPanel* obstacles_;
  std::vector<EndPanel*> all_;
  QPushButton *more_, *worst_;
  GapSheet* sheet_;
};

} // namespace mavrel::app
