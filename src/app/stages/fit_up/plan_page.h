// Plan: the days above; below, what is done today and by whom, and the picked job with why it comes now.
#pragma once

#include "app/stages/fit_up/fit_up_page.h"
#include "app/stages/fit_up/plan_view.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTimer;

namespace mavrel::app {

class ChoiceBox;
class Field;

class PlanPage : public FitUpPage {
  Q_OBJECT
public:
  PlanPage(Desk& desk, FitUpAnswers& answers, QWidget* parent = nullptr);
  [[nodiscard]] PlanView* view() const { return view_; }
  void write_csv();
  void write_sheets();

signals:
  void wants_check(const QString& id); // somebody picked a hold point

protected:
  void fill() override;

private:
  void fill_today(const assess::Plan& plan);
  void fill_job(const assess::Plan& plan);
  void fill_moves();
  [[nodiscard]] const assess::Job* held() const;
  [[nodiscard]] std::string moment() const;
  void begin();
  void finish();
  void skip();

  PlanView* view_;
  QLabel *summary_, *today_head_, *today_, *name_, *about_, *moves_;
  QPushButton *begin_, *done_, *skip_, *split_, *more_, *forget_, *add_, *learn_;
  QLineEdit* new_name_;
  QComboBox* skipped_;
  QPushButton* unskip_;
  std::vector<std::pair<Field*, const char*>> fields_; // of the note, with the last step of their path
  ChoiceBox* place_;
  QWidget* note_;
  QTimer* later_;
};

} // namespace mavrel::app
