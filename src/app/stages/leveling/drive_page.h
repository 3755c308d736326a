// On the road: the design's ways of keeping the height side by side. Above, what each costs; below, heights over the
// drive beside the posts, and each way's errors and bursts.
#pragma once

#include "app/kit/page.h"
#include "app/stages/leveling/questions.h"

class QComboBox;

namespace mavrel::app {

class Chart;
class DrivePlot;
class ErrorStrips;

class DrivePage : public Page {
  Q_OBJECT
public:
  explicit DrivePage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  /// The drives that are shown; none while they are worked out or can't be.
  [[nodiscard]] const assess::Drives* drives() { return answer_.last(); }
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }
  [[nodiscard]] std::size_t picked() const { return picked_; }
  void pick(std::size_t set_up);
  void write_csv();

protected:
  void fill() override;

private:
  void look_at_span(int span);
  void show_spans();
  void fill_table();
  void draw_costs();

  Asked<DrivesQuestion> answer_;
  std::size_t picked_ = 0;
  ListTable* table_;
  Chart* costs_;
  DrivePlot* plot_;
  ErrorStrips* strips_;
  QComboBox* span_;
  QPushButton *given_, *csv_;
  QLabel* under_way_;
};

} // namespace mavrel::app
