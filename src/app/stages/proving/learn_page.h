// What measured figures teach of this car: each figure before and after with its doubt, what it was learned from, and
// whether it is taken over.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/proving/answers.h"

#include <set>

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

/// Each learned figure on a scale of its own doubt: the design in the middle, what is learned beside it.
class LearnedPlot : public QWidget {
  Q_OBJECT
public:
  LearnedPlot(Desk& desk, QWidget* parent);
  void show_learning(const assess::Learning* learning);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  Desk& desk_;
  std::vector<assess::LearnedFigure> figures_;
};

class LearnPage : public PlainPage {
  Q_OBJECT
public:
  LearnPage(Desk& desk, ProvingAnswers& answers, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  void take();

  ProvingAnswers& answers_;
  QLabel *summary_, *said_, *kept_;
  QPushButton *work_out_, *take_, *forget_;
  QComboBox* by_;
  LearnedPlot* plot_;
  QTableWidget *figures_, *from_;
};

} // namespace mavrel::app
