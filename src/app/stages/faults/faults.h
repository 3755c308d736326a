// Faults: what is wrong with a car by what is told, read and seen of it; a car to practise on; how often what is.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class FindPage;
class PractisePage;
class OddsPage;

class FaultsStage : public PagedStage {
  Q_OBJECT
public:
  explicit FaultsStage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;

private:
  LazyPage<FindPage> find_;
  LazyPage<PractisePage> practise_;
  LazyPage<OddsPage> odds_;
};

} // namespace mavrel::app
