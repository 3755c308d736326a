// Clearance: what touches, where, and what of the car meets the ground. Three pages: near the wheel, what would fit,
// and the ground.
#pragma once

#include "app/kit/stage_page.h"

class QLabel;
class QStackedWidget;

namespace mavrel::app {

class Chips;
class Desk;
class FitsPage;
class GroundPage;
class NearPage;
class WindowsPage;

class ClearanceStage : public StagePage {
  Q_OBJECT
public:
  explicit ClearanceStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  [[nodiscard]] bool reads_across() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] bool takes_arrows() const override;
  QStringList take_files(const QStringList& files) override;

  /// 0 near the wheel, 1 what would fit, 2 the ground, 3 the window.
  void show_page(int page);

private:
  void refresh();

  Desk& desk_;
  Chips *ends_, *pages_;
  QLabel *title_, *about_;
  QStackedWidget* stack_;
  NearPage* near_;
  FitsPage* fits_;
  GroundPage* ground_;
  WindowsPage* windows_;
};

} // namespace mavrel::app
