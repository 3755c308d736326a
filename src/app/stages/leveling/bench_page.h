// The bench: a rig or a logger on the link, heights and pressures live beside the posts, a valve worked only while a
// hand is on it, and all of it recorded.
#pragma once

#include "app/desk/bench.h"
#include "app/kit/height_plot.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QProcess;
class QPushButton;
class QTableWidget;
class QTemporaryDir;

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

/// Open only while the mouse is down on it or the space bar is held.
class HoldBar : public QWidget {
  Q_OBJECT
public:
  explicit HoldBar(Desk& desk, QWidget* parent = nullptr);
  void show_words(const QString& words, bool can_hold);
  [[nodiscard]] bool is_held() const { return held_; }

signals:
  void pressed();
  void released();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  bool event(QEvent* event) override;

private:
  void set_held(bool held);
  Desk& desk_;
  QString words_;
  bool can_hold_ = false, held_ = false;
};

class BenchPage : public QWidget {
  Q_OBJECT
public:
  explicit BenchPage(Desk& desk, QWidget* parent = nullptr);
  ~BenchPage() override;
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
  void stop_playing();
  [[nodiscard]] std::optional<std::pair<QString, control::ValveOrder>> valve() const;

  Desk& desk_;
  Bench bench_;
  QTimer shown_;
  std::unique_ptr<QTemporaryDir> folder_; // of the rig that was started here
  std::unique_ptr<QProcess> rig_;
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
