// The ground: the car over what lies on it above, and below which pairs of heights get over it.
#pragma once

#include "app/kit/page.h"

class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class Chips;
class DriveView;
class GroundPlot;
class PathTable;
class EndPanel;

class GroundPage : public Page {
  Q_OBJECT
public:
  explicit GroundPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] DriveView* view() const { return view_; }
  [[nodiscard]] GroundPlot* plot() const { return plot_; }
  /// @returns whether it was a profile
  bool take_file(const QString& file);

protected:
  void fill() override;

private:
  void make_head();
  [[nodiscard]] QLayout* make_sheets();
  void fill_tables();
  void add_low_point();
  void add_profile_point();
  [[nodiscard]] QStringList crossings() const;
  [[nodiscard]] QStringList ways() const;
  [[nodiscard]] QStringList loading() const;
  [[nodiscard]] std::optional<std::size_t> held_ground() const;

  Chips *grounds_, *orders_;
  DriveView* view_;
  QLabel *told_, *about_, *least_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
  PathTable *underside_, *points_;
  EndPanel* ground_form_;
  GroundPlot* plot_;
};

} // namespace mavrel::app
