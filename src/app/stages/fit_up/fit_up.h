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
  Later<PlanPage> plan_;
  Later<ChecksPage> checks_;
  Later<CutPage> cut_;
  Later<TemplatesPage> templates_;
  Later<PlacesPage> places_;
  Later<RoutesPage> routes_;
  Later<SchoolsPage> schools_;
  Later<ShopPage> shop_;
};

} // namespace mavrel::app
