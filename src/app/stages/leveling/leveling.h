// Leveling: height kept while it drives. Pages: on the road, the rules, tuning, sensors, what is stored, and the bench.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class BenchPage;
class DrivePage;
class RulesPage;
class SensorPage;
class StorePage;
class TuningPage;

class LevelingStage : public PagedStage {
  Q_OBJECT
public:
  explicit LevelingStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;

  // Pages: 0 on the road, 1 the rules, 2 tuning, 3 sensors, 4 stored, 5 bench.
  [[nodiscard]] DrivePage* drive() const { return drive_.get(); }
  [[nodiscard]] TuningPage* tuning() const { return tuning_.get(); }
  [[nodiscard]] SensorPage* sensor() const { return sensor_.get(); }
  [[nodiscard]] StorePage* store() const { return store_.get(); }
  [[nodiscard]] BenchPage* bench() const { return bench_.get(); }

private:
  LazyPage<DrivePage> drive_;
  LazyPage<RulesPage> rules_;
  LazyPage<TuningPage> tuning_;
  LazyPage<SensorPage> sensor_;
  LazyPage<StorePage> store_;
  LazyPage<BenchPage> bench_;
};

} // namespace mavrel::app
