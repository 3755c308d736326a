// Fit-up: from a design to a car on the floor. The plan, its hold points, what is cut and bought, templates, places,
// routes, schools, and the shop it is done in.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class ChecksPage;
class CutPage;
class FitUpAnswers;
class PlacesPage;
class PlanPage;
class RoutesPage;
class SchoolsPage;
class ShopPage;
class TemplatesPage;

class FitUpStage : public PagedStage {
  Q_OBJECT
public:
  explicit FitUpStage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  [[nodiscard]] bool takes_arrows() const override;

private:
  FitUpAnswers* answers_;
  PlanPage* plan_;
  ChecksPage* checks_;
  CutPage* cut_;
  TemplatesPage* templates_;
  PlacesPage* places_;
  RoutesPage* routes_;
  SchoolsPage* schools_;
  ShopPage* shop_;
};

} // namespace mavrel::app
