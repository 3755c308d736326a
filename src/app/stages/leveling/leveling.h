// Leveling: height kept while it drives. Pages: on the road, the rules, tuning, sensors, what is stored, and the bench.
#pragma once

#include "app/kit/stage_page.h"

class QStackedWidget;

namespace mavrel::app {

class BenchPage;
class Chips;
class Desk;
class DrivePage;
class RulesPage;
class SensorPage;
class StorePage;
class TuningPage;

class LevelingStage : public StagePage {
  Q_OBJECT
public:
  explicit LevelingStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] bool takes_arrows() const override;

  /// 0 on the road, 1 the rules, 2 tuning, 3 sensors, 4 stored, 5 bench.
  void show_page(int page);
  [[nodiscard]] DrivePage* drive() const { return drive_; }
  [[nodiscard]] TuningPage* tuning() const { return tuning_; }
  [[nodiscard]] SensorPage* sensor() const { return sensor_; }
  [[nodiscard]] StorePage* store() const { return store_; }
  [[nodiscard]] BenchPage* bench() const { return bench_; }

private:
  void refresh();

  Desk& desk_;
  Chips* pages_;
  QStackedWidget* stack_;
  DrivePage* drive_;
  RulesPage* rules_;
  TuningPage* tuning_;
  SensorPage* sensor_;
  StorePage* store_;
  BenchPage* bench_;
};

} // namespace mavrel::app
