// Cut and buy: bars with what is cut from them, drawn to one scale; below, what is bought, what of it is there, and by
// when the rest must be ordered.
#pragma once

#include "app/kit/page.h"
#include "assess/fit_up/buying.h"

namespace mavrel::app {

/// Bars of every stock, one under the other.
class BarsView : public QWidget {
  Q_OBJECT
public:
  BarsView(Desk& desk, QWidget* parent);
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void describe();
  [[nodiscard]] double height_needed() const;
  Desk& desk_;
};

class CutPage : public Page {
  Q_OBJECT
public:
  explicit CutPage(Desk& desk, QWidget* parent = nullptr);
  void write_cut();
  void write_buy();

protected:
  void fill() override;

private:
  void fill_note();
  [[nodiscard]] const assess::BuyLine* held() const;

  BarsView* bars_;
  ListTable* list_;
  QLabel *summary_, *troubles_, *sealing_;
  QPushButton *note_, *keep_, *ordered_, *came_;
  std::vector<std::pair<Field*, const char*>> fields_;
  QWidget* fields_row_;
};

} // namespace mavrel::app
