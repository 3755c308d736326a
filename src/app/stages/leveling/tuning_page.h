// Averaging, band, wait and gain tried together: what each set of four keeps and costs, to pick from; and what a finer
// valve or a narrower line would change.
#pragma once

#include "app/stages/leveling/questions.h"

#include <QWidget>

class QLabel;
class QProgressBar;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Chart;

class TuningPage : public QWidget {
  Q_OBJECT
public:
  explicit TuningPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  void start();
  void try_parts();
  [[nodiscard]] const assess::Tuning* tuning() const;
  [[nodiscard]] const std::vector<assess::OtherPart>* other_parts() const;
  /// The numbers of the row that is held go to the way that the car gets.
  void take();
  /// The point of this number in the tuning is held.
  void pick(std::size_t point);

private:
  void refresh();
  void fill();
  void draw();
  [[nodiscard]] std::optional<std::size_t> held() const;

  Desk& desk_;
  LongAnswer<TuningQuestion> answer_;
  LongAnswer<OtherPartsQuestion> parts_;
  QPushButton *start_, *take_, *try_;
  QProgressBar* progress_;
  QLabel *about_, *parts_head_;
  Chart* chart_;
  QTableWidget *table_, *parts_table_;
  QWidget* beside_;
  std::vector<std::size_t> rows_; // which points the table shows
};

} // namespace mavrel::app
