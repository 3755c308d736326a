// What is due: the years with their trends above, below the list of what comes round next and why, done with one press.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/care/answers.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class YearsView;

class DuePage : public PlainPage {
  Q_OBJECT
public:
  DuePage(Desk& desk, CareAnswers& answers, QWidget* parent = nullptr);
  /// @returns whether it was written; else why not is told
  bool write_calendar(const QString& to);

protected:
  void fill() override;

private:
  void done();

  CareAnswers& answers_;
  QLabel *summary_, *how_, *says_;
  YearsView* years_;
  QTableWidget* list_;
  QComboBox* by_;
  QPushButton *done_, *calendar_;
};

} // namespace mavrel::app
