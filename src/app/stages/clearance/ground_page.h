// The ground: the car over what lies on it above, and below which pairs of heights get over it.
#pragma once

#include <QWidget>

#include <optional>
#include <utility>

class QLabel;
class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class Chips;
class Desk;
class DriveView;
class GroundPlot;
class PathTable;
class EndPanel;

class GroundPage : public QWidget {
  Q_OBJECT
public:
  explicit GroundPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  bool go_to(const QString& path);
  [[nodiscard]] bool takes_arrows() const;
  [[nodiscard]] DriveView* view() const { return view_; }
  [[nodiscard]] GroundPlot* plot() const { return plot_; }
  /// @returns whether it was a profile
  bool take_file(const QString& file);

signals:
  void band_moved();

private:
  void refresh();
  void refresh_tables();
  [[nodiscard]] std::optional<std::size_t> held_ground() const;

  Desk& desk_;
  Chips *grounds_, *orders_;
  DriveView* view_;
  QLabel *told_, *about_, *least_;
  QTabBar* tabs_;
  QStackedWidget* panels_;
  PathTable *underside_, *points_;
  EndPanel* ground_form_;
  GroundPlot* plot_;
  QWidget* beside_;
};

} // namespace mavrel::app
