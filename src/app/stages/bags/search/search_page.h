// Find what fits: the search of the whole shelf at both ends, its trade-off as a scatter to pick from, and why each
// pair of bags lost. Runs beside the interface; a result for a build that has changed since says so and is taken away.
#pragma once

#include "assess/search/search.h"

#include <QWidget>

#include <memory>
#include <thread>

class QComboBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Chart;
class Desk;

class SearchPage : public QWidget {
  Q_OBJECT
public:
  explicit SearchPage(Desk& desk, QWidget* parent = nullptr);
  ~SearchPage() override;

  void start();
  void stop();
  [[nodiscard]] bool is_running() const { return running_; }
  [[nodiscard]] const std::optional<assess::SearchResult>& result() const { return result_; }
  /// The choice held, by its rank; none without a result.
  [[nodiscard]] std::optional<std::size_t> chosen() const;

signals:
  void taken(); // the choice held was taken over as a variant
  void finished();

protected:
  void showEvent(QShowEvent* event) override;

private:
  void found(Expected<assess::SearchResult> result, quint64 number);
  void refresh();
  void fill_table();
  void draw();
  void pick_at(const QPointF& where);
  void hold(std::size_t choice);
  void take();
  void forget(const QString& why);
  [[nodiscard]] bool still_holds() const; // only after a search was begun
  [[nodiscard]] std::optional<assess::SearchSpace> space();

  Desk& desk_;
  QLineEdit *volumes_, *stacks_;
  QPushButton *go_, *take_;
  QProgressBar* progress_;
  QLabel *said_, *held_;
  QComboBox *across_, *up_;
  Chart* scatter_;
  QTableWidget* table_;
  std::optional<assess::SearchResult> result_;
  std::optional<std::size_t> held_choice_;
  std::optional<assess::SearchGiven> searched_; // what the result is for
  std::jthread worker_;
  bool running_ = false;
  quint64 number_ = 0; // of the latest search: an older one's result is dropped
};

} // namespace mavrel::app
