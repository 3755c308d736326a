// What is near the wheel: the section with its least gap, what lies there, and below the map over height and steer.
#pragma once

#include "app/stages/clearance/steer.h"

#include <QWidget>

#include <optional>
#include <utility>
#include <vector>

class QLabel;
class QPushButton;
class QSlider;
class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class Chips;
class Desk;
class EndPanel;
class GapSheet;
class ObstaclesPanel;
class SectionView;

class NearPage : public QWidget {
  Q_OBJECT
public:
  explicit NearPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  bool go_to(const QString& path);
  [[nodiscard]] bool takes_arrows() const;
  void show_panel(int index);
  [[nodiscard]] GapSheet* sheet() const { return sheet_; }
  [[nodiscard]] SectionView* view() const { return view_; }
  [[nodiscard]] Steer& steer() { return steer_; }
  void turn_page();
  /// To full lock, step by step; 0 is straight ahead.
  void steer_by(double share);

signals:
  void band_moved();

private:
  void look_from(int from);
  void refresh();

  Desk& desk_;
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
  QWidget* beside_; // where the posts stand
};

} // namespace mavrel::app
