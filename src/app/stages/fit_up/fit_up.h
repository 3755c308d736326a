// Fit-up: from a design to a car on the floor. The plan, its hold points, what is cut and bought, templates, places,
// routes, schools, and the shop it is done in.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class ChecksPage;
class CutPage;
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
  [[nodiscard]] bool owns(const QString& path) const override;
  bool go_to(const QString& path) override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;

protected:
  void made(int page) override;

private:
  void show_check(const QString& id);

  LazyPage<PlanPage> plan_;
  LazyPage<ChecksPage> checks_;
  LazyPage<CutPage> cut_;
  LazyPage<TemplatesPage> templates_;
  LazyPage<PlacesPage> places_;
  LazyPage<RoutesPage> routes_;
  LazyPage<SchoolsPage> schools_;
  LazyPage<ShopPage> shop_;
};

} // namespace mavrel::app
