// Plan: the days above; below, what is done today and by whom, and the picked job with why it comes now.
#pragma once

#include "app/kit/page.h"
#include "app/stages/fit_up/plan_view.h"

class QComboBox;
class QLineEdit;
class QTimer;

namespace mavrel::app {

class ChoiceBox;

class PlanPage : public Page {
  Q_OBJECT
public:
  explicit PlanPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override { return Page::go_to(path) || path.endsWith(".order"); }
  [[nodiscard]] PlanView* view() const { return view_; }
  void write_csv();
  void write_sheets();

signals:
  void wants_check(const QString& id); // somebody picked a hold point

protected:
  void fill() override;

private:
  [[nodiscard]] QWidget* make_today();
  [[nodiscard]] QWidget* make_job();
  void make_note();
  void add_another();
  void fill_today(const assess::Plan& plan);
  void fill_job(const assess::Plan& plan);
  void fill_moves();
  void fill_skipped();
  [[nodiscard]] QString about(const assess::Plan& plan, const assess::Job& job) const;
  [[nodiscard]] const assess::Job* held() const;
  [[nodiscard]] std::string moment() const;
  void hold(const QString& id);
  void finish();
  void skip();

  PlanView* view_;
  QLabel *summary_, *today_head_, *today_, *name_, *about_, *moves_;
  QPushButton *begin_, *done_, *skip_, *split_, *more_, *forget_, *learn_;
  QLineEdit* new_name_;
  QComboBox* skipped_;
  QPushButton* unskip_;
  std::vector<std::pair<Field*, const char*>> fields_; // of the note, with the last step of their path
  ChoiceBox* place_;
  QWidget* note_;
  QTimer* later_;
};

} // namespace mavrel::app
