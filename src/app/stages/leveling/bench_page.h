// The bench: a rig or a logger on the link, heights and pressures live beside the posts, a valve worked only while a
// hand is on it, and all of it recorded.
#pragma once

#include "app/desk/bench.h"
#include "app/desk/played_rig.h"
#include "app/kit/height_plot.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

/// Heights of the last minute over time, at the posts' scale.
class LivePlot : public HeightPlot {
  Q_OBJECT
public:
  LivePlot(Desk& desk, Bench& bench, QWidget* parent = nullptr);
  void tick() { redraw(); }

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  Bench& bench_;
};

class HoldBar;

class BenchPage : public QWidget {
  Q_OBJECT
public:
  explicit BenchPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  [[nodiscard]] Bench& bench() { return bench_; }
  [[nodiscard]] HoldBar* bar() const { return bar_; }
  /// Starts a rig that plays the car that is open, and links to it.
  void play();
  void record(const QString& file);

signals:
  void band_moved();

private:
  void refresh();
  void show_state();
  [[nodiscard]] std::optional<std::pair<QString, control::ValveOrder>> valve() const;

  Desk& desk_;
  Bench& bench_;
  PlayedRig& rig_;
  QTimer shown_;
  QLineEdit* address_;
  QPushButton *link_, *play_, *controller_, *drive_, *record_;
  QLabel *standing_, *caution_;
  QTableWidget* table_;
  QListWidget* valves_;
  HoldBar* bar_;
  LivePlot* plot_;
  QWidget* beside_;
};

} // namespace mavrel::app
