// The proof of the whole car: each check with how it is done, what must be true before, what was predicted and what was
// measured on one scale, what a difference points to, and who signed it.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/proving/answers.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class FiguresPanel;
class LiveBox;
class ReadingsBox;

class ProvePage : public PlainPage {
  Q_OBJECT
public:
  ProvePage(Desk& desk, ProvingAnswers& answers, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  void show_check(const QString& id);
  [[nodiscard]] LiveBox* live() const { return live_; }
  [[nodiscard]] ReadingsBox* readings() const { return readings_; }

protected:
  void fill() override;

private:
  void pick(int row);
  void sign();
  void fill_list();
  void fill_check();

  ProvingAnswers& answers_;
  QTableWidget* list_;
  QLabel *summary_, *name_, *how_, *state_, *points_;
  FiguresPanel* figures_;
  ReadingsBox* readings_;
  LiveBox* live_;
  QComboBox* by_;
  QPushButton *begin_, *sign_;
  QString held_;
};

} // namespace mavrel::app
