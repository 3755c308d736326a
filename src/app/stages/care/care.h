// Care: what comes round for a car on the road, its logbook, and how it is used.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class DuePage;
class LogPage;
class UsePage;

class CareStage : public PagedStage {
  Q_OBJECT
public:
  explicit CareStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool owns(const QString& path) const override;
  bool go_to(const QString& path) override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  /// What is overdue when a car is opened, as a sentence; empty: nothing is.
  [[nodiscard]] QString reminder() override;

private:
  LazyPage<DuePage> due_;
  LazyPage<LogPage> log_;
  LazyPage<UsePage> use_;
};

} // namespace mavrel::app
