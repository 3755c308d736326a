// What measured figures teach of this car: each figure before and after with its doubt, what it was learned from, and
// whether it is taken over.
#pragma once

#include "app/kit/page.h"
#include "app/stages/proving/questions.h"

class QComboBox;

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

class LearnPage : public Page {
  Q_OBJECT
public:
  explicit LearnPage(Desk& desk, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  void take();
  void forget();
  void fill_figures(const assess::Learning& learned);
  void fill_from(const assess::Learning& learned);
  [[nodiscard]] QString said() const;
  [[nodiscard]] QString kept() const;

  QLabel *said_, *kept_;
  QPushButton *work_out_, *take_, *forget_;
  QComboBox* by_;
  LearnedPlot* plot_;
  ListTable *figures_, *from_;
};

} // namespace mavrel::app
