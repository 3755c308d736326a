// Cut and buy: bars with what is cut from them, drawn to one scale; below, what is bought, what of it is there, and by
// when the rest must be ordered.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/buying.h"

#include "app/stages/fit_up/fit_up_page.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Field;
class FitUpAnswers;

/// Bars of every stock, one under the other.
class BarsView : public QWidget {
  Q_OBJECT
public:
  BarsView(Desk& desk, FitUpAnswers& answers, QWidget* parent);
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void describe();
  [[nodiscard]] double height_needed() const;
  Desk& desk_;
  FitUpAnswers& answers_;
};

class CutPage : public FitUpPage {
  Q_OBJECT
public:
  CutPage(Desk& desk, FitUpAnswers& answers, QWidget* parent = nullptr);
  void write_cut();
  void write_buy();

protected:
  void fill() override;

private:
  void fill_note();

  BarsView* bars_;
  QTableWidget* list_;
  QLabel *summary_, *troubles_, *sealing_;
  QPushButton *note_, *keep_;
  std::vector<std::pair<Field*, const char*>> fields_;
  QWidget* fields_row_;
};

} // namespace mavrel::app
