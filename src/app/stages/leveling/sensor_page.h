// Sensors: where shaft, lever, rod and pickup of an end's sensor sit, and what they read.
#pragma once

#include <QWidget>

class QGridLayout;
class QLabel;
class QPushButton;

namespace mavrel::app {

class ChoiceBox;
class Desk;
class Field;
class SensorPlot;
class SensorView;

class SensorPage : public QWidget {
  Q_OBJECT
public:
  explicit SensorPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  bool go_to(const QString& path);
  [[nodiscard]] SensorView* view() const { return view_; }
  /// Lever and rod that read best from here, of one crossing.
  void take_best(int which);

signals:
  void band_moved();

private:
  void refresh();
  [[nodiscard]] QString path(const char* key) const;

  Desk& desk_;
  SensorView* view_;
  SensorPlot* plot_;
  QPushButton *place_, *best_[2];
  QLabel* words_;
  std::vector<std::pair<Field*, const char*>> fields_;
  std::vector<std::pair<ChoiceBox*, const char*>> choices_;
  QWidget* beside_;
};

} // namespace mavrel::app
