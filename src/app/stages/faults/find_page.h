// Finding a fault: what is told, read and seen goes in above; the odds move beside it; below stand what it may be, and
// the tests that tell most for their minutes.
#pragma once

#include "app/kit/page.h"
#include "app/stages/faults/questions.h"

class QCheckBox;
class QComboBox;
class QLineEdit;

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

class FindPage : public Page {
  Q_OBJECT
public:
  explicit FindPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override { return path.startsWith("faults."); }
  void ask_for(const assess::SignAt& at);

protected:
  void fill() override;

private:
  void make_head();
  void make_lists();
  void make_foot();
  void fill_course();
  void fill_ranked();
  void fill_next();
  void say_details();
  [[nodiscard]] QString said() const;
  [[nodiscard]] QString words_of_cause() const;
  [[nodiscard]] QString words_of_test() const;
  void note(const assess::FaultFinding& finding);
  void keep();
  void take_at_hand();
  void take_from_link();

  QLabel* summary_;
  FindingBox* box_;
  QCheckBox* nothing_else_;
  CourseView* course_;
  ListTable *ranked_, *next_;
  QLabel *cause_, *how_;
  QComboBox* by_;
  QPushButton *keep_, *strike_, *link_;
  QCheckBox *to_log_, *to_plan_, *to_count_;
  std::string held_cause_, held_test_;
  std::vector<std::vector<assess::FaultAt>> ranked_sets_; // of the rows that stand
  std::vector<assess::TestAt> tests_;
};

} // namespace mavrel::app
