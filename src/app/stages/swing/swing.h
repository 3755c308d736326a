// Swing: how the end really moves, and how the bag is mounted in it. Above, the end at the pose, drawn from its own
// joints, and beside it the sheets it comes from; below, everything that moves as tracks over height.
#pragma once

#include "app/kit/stage_page.h"
#include "app/stages/swing/panel.h"

#include <vector>

class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class Chips;
class CycleTape;
class EndView;
class MotionSheet;

class SwingStage : public StagePage {
  Q_OBJECT
public:
  explicit SwingStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  [[nodiscard]] bool takes_arrows() const override;
  QStringList take_files(const QStringList& files) override;

  /// By its key, as in panel.cpp.
  void show_panel(const QString& key);
  void begin_tape(bool right = false);
  void leave_tape();

protected:
  void fill() override;

private:
  /// The panel itself, made when it is first asked for.
  SwingPanel* panel(std::size_t index);
  void look_from(int from);

  QStackedWidget* stack_;
  QWidget* page_;
  CycleTape* tape_;
  QLabel *title_, *about_, *sheet_about_;
  QPushButton* more_;
  Chips *ends_, *views_;
  EndView* view_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
  MotionSheet* sheet_;
  QWidget* beside_; // where the posts stand
  std::vector<SwingPanel*> made_;
};

} // namespace mavrel::app
