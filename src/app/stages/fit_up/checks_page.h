// Hold points: what is measured on the car before work goes on, beside what the design says, and who signed it.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/checks.h"

#include "app/stages/fit_up/fit_up_page.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class FiguresPanel;

class ChecksPage : public FitUpPage {
  Q_OBJECT
public:
  ChecksPage(Desk& desk, FitUpAnswers& answers, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  void show_check(const QString& id);

protected:
  void fill() override;

private:
  void pick(int row);
  /// Those that stop the work; the proof of the whole car is Proving's.
  [[nodiscard]] std::vector<const assess::HoldPoint*> shown() const;

  QTableWidget* list_;
  QLabel *summary_, *name_, *how_, *state_;
  FiguresPanel* figures_;
  QComboBox* by_;
  QPushButton *begin_, *sign_;
  QString held_;
};

} // namespace mavrel::app
