// Clearance: what touches, where, and what of the car meets the ground. Three pages: near the wheel, what would fit,
// and the ground.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class Chips;
class FitsPage;
class GroundPage;
class NearPage;
class WindowsPage;

class ClearanceStage : public PagedStage {
  Q_OBJECT
public:
  // Pages: 0 near the wheel, 1 what would fit, 2 the ground, 3 the window.
  explicit ClearanceStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  QStringList take_files(const QStringList& files) override;

protected:
  void fill() override;

private:
  Chips* ends_;
  QLabel* about_;
  LazyPage<NearPage> near_;
  LazyPage<FitsPage> fits_;
  LazyPage<GroundPage> ground_;
  LazyPage<WindowsPage> windows_;
};

} // namespace mavrel::app
