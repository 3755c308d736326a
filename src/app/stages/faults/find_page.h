// Finding a fault: what is told, read and seen goes in above; the odds move beside it; below stand what it may be, and
// the tests that tell most for their minutes.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/faults/answers.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class CourseView;

/// A row in which one finding is said: what, where, and the answer.
class FindingBox : public QWidget {
  Q_OBJECT
public:
  FindingBox(Desk& desk, QWidget* parent);
  void show_sign(const assess::SignAt& at);
  void refresh();

signals:
  void found(assess::FaultFinding finding);

private:
  [[nodiscard]] assess::SignAt at() const;
  void show_places();
  void show_answers();
  void say(const QString& answer);

  Desk& desk_;
  QComboBox *sign_, *where_;
  QLineEdit* figure_;
  QPushButton *yes_, *no_, *never_;
  QCheckBox* second_hand_;
};

class FindPage : public PlainPage {
  Q_OBJECT
public:
  FindPage(Desk& desk, FaultAnswers& answers, QWidget* parent = nullptr);
  void ask_for(const assess::SignAt& at);

protected:
  void fill() override;

private:
  void fill_course();
  void fill_ranked();
  void fill_next();
  void say_details();
  void note(const assess::FaultFinding& finding);
  void keep();
  void take_from_link();

  FaultAnswers& answers_;
  QLabel* summary_;
  FindingBox* box_;
  QCheckBox* nothing_else_;
  CourseView* course_;
  QTableWidget *ranked_, *next_;
  QLabel *cause_, *how_;
  QComboBox* by_;
  QPushButton *keep_, *strike_, *take_, *link_, *anew_;
  QCheckBox *to_log_, *to_plan_, *to_count_;
  std::string held_cause_, held_test_;
  std::vector<std::vector<assess::FaultAt>> ranked_sets_; // of the rows that stand
  std::vector<assess::TestAt> tests_;
};

} // namespace mavrel::app
