// Find what fits: the search of the whole shelf at both ends, its trade-off as a scatter to pick from, and why each
// pair of bags lost. Runs beside the interface; a result for a build that has changed since says so and is taken away.
#pragma once

#include "app/kit/page.h"
#include "assess/search/search.h"

class QCheckBox;
class QComboBox;
class QLineEdit;

namespace mavrel::app {

class Chart;
class RunRow;

/// The search as the runner does it.
struct SearchQuestion {
  using Given = assess::SearchGiven;
  using Answer = Expected<assess::SearchResult>;
  static Answer answer(const Given& given, const RunControl& control) {
    return assess::search(given, {0, control.stop, control.progress});
  }
};

class SearchPage : public Page {
  Q_OBJECT
public:
  explicit SearchPage(Desk& desk, QWidget* parent = nullptr);

  void start();
  void stop();
  [[nodiscard]] bool is_running() const { return search_.is_running(); }
  /// nullptr while there is none, or it would not hold any more.
  [[nodiscard]] const assess::SearchResult* result() const { return search_.value(); }
  /// The choice held, by its rank; none without a result.
  [[nodiscard]] std::optional<std::size_t> chosen() const;

signals:
  void taken(); // the choice held was taken over as a variant
  void finished();

protected:
  void fill() override;

private:
  void make_asks();
  void make_choices();
  void changed(); // the search began, ended, or was given up
  void step(int by);
  void look_at(std::size_t pair);
  [[nodiscard]] QString said() const;
  [[nodiscard]] QString about(const assess::SearchChoice& choice) const;
  void fill_table();
  void draw();
  void pick_at(const QPointF& where);
  void hold(std::size_t choice);
  void take();
  [[nodiscard]] std::optional<assess::SearchSpace> space();

  QLineEdit *volumes_, *stacks_;
  QCheckBox* sure_;
  QWidget* choices_; // the scatter, and the one that is held
  RunRow* run_;
  QPushButton* take_;
  QLabel* held_;
  QComboBox *across_, *up_;
  Chart* scatter_;
  ListTable* table_;
  assess::SearchSpace tried_; // of the search there is
  assess::Sure tried_sure_ = assess::Sure::as_read;
  Asked<SearchQuestion> search_;
  std::optional<std::size_t> held_choice_;
};

} // namespace mavrel::app
