// Hold points: what is measured on the car before work goes on, beside what the design says, and who signed it.
#pragma once

#include "app/desk/desk.h"
#include "app/kit/row_panel.h"
#include "assess/fit_up/checks.h"

#include "app/stages/fit_up/fit_up_page.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class FitUpAnswers;

/// The figures of one check, each with the field it is typed into.
class FiguresPanel : public RowPanel {
  Q_OBJECT
public:
  FiguresPanel(Desk& desk, FitUpAnswers& answers, QWidget* parent);
  void show_check(const QString& id);
  /// The check as it stands; none of that id.
  [[nodiscard]] const assess::HoldPoint* point() const;

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void refresh_rows() override;

  FitUpAnswers& answers_;
  QString id_;
  std::vector<QLabel*> verdicts_; // of the rows that stand
};

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

  QTableWidget* list_;
  QLabel *summary_, *name_, *how_, *state_;
  FiguresPanel* figures_;
  QComboBox* by_;
  QPushButton *begin_, *sign_;
  QString held_;
};

} // namespace mavrel::app
