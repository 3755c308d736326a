// How often each fault is: what is usual, what this shop says, and what it has counted.
#pragma once

#include "app/kit/plain_page.h"

class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class OddsPage : public PlainPage {
  Q_OBJECT
public:
  explicit OddsPage(Desk& desk, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  void set();
  void say_cause();

  QLabel *summary_, *words_;
  QTableWidget* list_;
  QLineEdit* often_;
  QPushButton *set_, *usual_, *forget_;
};

} // namespace mavrel::app
