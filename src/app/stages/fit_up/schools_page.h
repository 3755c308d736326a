// Schools: what builders disagree on and this design decides, a card each, both ways worked out on this car.
#pragma once

#include "app/desk/desk.h"
#include "app/desk/stoppable.h"
#include "assess/fit_up/schools.h"

#include <QWidget>

class QLabel;
class QVBoxLayout;

namespace mavrel::app {

class FitUpAnswers;

using SchoolsQuestion = Stoppable<assess::SchoolsGiven, assess::Schools, assess::answer_schools>;

class SchoolsPage : public QWidget {
  Q_OBJECT
public:
  SchoolsPage(Desk& desk, FitUpAnswers& answers, QWidget* parent = nullptr);
  void reserve_right(int px);
  bool go_to(const QString& path);
  /// The cards that are shown; none while they are worked out.
  [[nodiscard]] const assess::Schools* schools() const { return shown_ ? &*shown_ : nullptr; }

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void refresh();
  void build_cards();
  void take(std::string key, std::size_t way);

  Desk& desk_;
  FitUpAnswers& answers_;
  LongAnswer<SchoolsQuestion> answer_;
  std::optional<assess::Schools> shown_;
  QLabel* summary_;
  QWidget *cards_, *page_ = nullptr;
  QVBoxLayout* column_;
  QWidget* beside_;
};

} // namespace mavrel::app
