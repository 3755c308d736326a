// Averaging, band, wait and gain tried together: what each set of four keeps and costs, to pick from; and what a finer
// valve or a narrower line would change.
#pragma once

#include "app/kit/page.h"
#include "app/stages/leveling/questions.h"

namespace mavrel::app {

class Chart;
class RunRow;

class TuningPage : public Page {
  Q_OBJECT
public:
  explicit TuningPage(Desk& desk, QWidget* parent = nullptr);
  void start() { answer_.ask(); }
  void try_parts() { parts_.ask(); }
  [[nodiscard]] const assess::Tuning* tuning() const { return answer_.value(); }
  [[nodiscard]] const std::vector<assess::OtherPart>* other_parts() const { return parts_.value(); }
  /// The numbers of the row that is held go to the way that the car gets.
  void take();
  /// The point of this number in the tuning is held.
  void pick(std::size_t point);

protected:
  void fill() override;

private:
  void choose_rows();
  void fill_table();
  void fill_parts();
  void draw();
  [[nodiscard]] QString said() const;
  [[nodiscard]] std::optional<std::size_t> held() const;
  [[nodiscard]] std::optional<std::size_t> point_at(const QPoint& at) const;

  [[nodiscard]] assess::LevelingGiven asked() const;
  /// The point that the car's numbers are; none: they are none of them.
  [[nodiscard]] std::optional<std::size_t> standing() const;

  Asked<TuningQuestion> answer_;
  Asked<OtherPartsQuestion> parts_;
  RunRow *run_, *run_parts_;
  QPushButton* take_;
  Chart* chart_;
  ListTable *table_, *parts_table_;
  std::vector<std::size_t> rows_;      // which points the table shows
  std::shared_ptr<const void> sorted_; // of which answer they are
};

} // namespace mavrel::app
