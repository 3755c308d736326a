// On the road: the design's ways of keeping the height side by side. Above, what each costs; below, heights over the
// drive beside the posts, and each way's errors and bursts.
#pragma once

#include "app/stages/leveling/questions.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Chart;
class DrivePlot;
class ErrorStrips;

class DrivePage : public QWidget {
  Q_OBJECT
public:
  explicit DrivePage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::pair<int, int> band() const; // in this widget
  void reserve_right(int px);
  bool go_to(const QString& path);
  /// The drives that are shown; none while they are worked out or can't be.
  [[nodiscard]] const assess::Drives* drives() const { return shown_ ? &*shown_ : nullptr; }
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }
  [[nodiscard]] std::size_t picked() const { return picked_; }
  void pick(int set_up);
  void write_csv();

signals:
  void band_moved();

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void look_at_span(int span);
  void refresh();
  void fill_table();
  void draw_costs();

  Desk& desk_;
  LongAnswer<DrivesQuestion> answer_;
  std::optional<assess::Drives> shown_; // the last answer: it stays while the next is worked out
  std::size_t picked_ = 0;
  QTableWidget* table_;
  Chart* costs_;
  DrivePlot* plot_;
  ErrorStrips* strips_;
  QComboBox* span_;
  QPushButton *given_, *csv_;
  QLabel* under_way_;
  QWidget* beside_;
};

} // namespace mavrel::app
