// Sensors: where shaft, lever, rod and pickup of an end's sensor sit, and what they read.
#pragma once

#include "app/kit/page.h"

namespace mavrel::app {

class ChoiceBox;
class SensorView;

class SensorPage : public Page {
  Q_OBJECT
public:
  explicit SensorPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] SensorView* view() const { return view_; }
  /// Lever and rod that read best from here, of one crossing.
  void take_best(int which);

protected:
  void fill() override;

private:
  [[nodiscard]] QString path(const char* key) const;
  [[nodiscard]] QString said() const;

  SensorView* view_;
  QPushButton *place_, *best_[2];
  QLabel* words_;
  std::vector<std::pair<Field*, const char*>> fields_;
  std::vector<std::pair<ChoiceBox*, const char*>> choices_;
};

} // namespace mavrel::app
