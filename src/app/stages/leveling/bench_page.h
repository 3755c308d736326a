// The bench: a rig or a logger on the link, heights and pressures live beside the posts, a valve worked only while a
// hand is on it, and all of it recorded.
#pragma once

#include "app/desk/bench_link.h"
#include "app/desk/played_rig.h"
#include "app/kit/height_plot.h"
#include "app/kit/page.h"

class QLineEdit;
class QListWidget;

namespace mavrel::app {

/// Heights of the last minute over time, at the posts' scale.
class LivePlot : public HeightPlot {
  Q_OBJECT
public:
  LivePlot(Desk& desk, BenchLink& bench, QWidget* parent = nullptr);
  void tick() { redraw(); }

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  BenchLink& bench_;
};

class HoldBar;

class BenchPage : public Page {
  Q_OBJECT
public:
  explicit BenchPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  [[nodiscard]] BenchLink& bench() { return bench_; }
  [[nodiscard]] HoldBar* bar() const { return bar_; }
  /// Starts a rig that plays the car that is open, and links to it.
  void play();
  void record(const QString& file);

protected:
  void fill() override;

private:
  void make_buttons();
  void record_or_end();
  void show_state();
  void show_valves();
  [[nodiscard]] QString standing() const;
  /// Is there something on the link whose valves can be worked?
  [[nodiscard]] bool works() const;
  [[nodiscard]] std::optional<std::pair<QString, control::ValveOrder>> valve() const;

  BenchLink& bench_;
  PlayedRig& rig_;
  QTimer shown_;
  QLineEdit* address_;
  QPushButton *link_, *controller_, *drive_, *record_;
  QLabel* standing_;
  ListTable* table_;
  QListWidget* valves_;
  HoldBar* bar_;
  LivePlot* plot_;
};

} // namespace mavrel::app
