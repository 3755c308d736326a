// Shop: its days and hours, its people and what they can do, its places, its habits, and what is left of bars.
#pragma once

#include "app/kit/page.h"
#include "app/kit/row_panel.h"

namespace mavrel::app {

/// One of the shop's lists: people, days off, habits, leftovers; or its fixed figures.
class ShopPanel : public RowPanel {
  Q_OBJECT
public:
  enum class What { figures, people, days_off, habits, stock, learned };
  ShopPanel(Desk& desk, What what, QWidget* parent);

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void figures();
  void people();
  void days_off();
  void habits();
  void stock();
  void learned();
  void put(const QString& path, const QString& caption, int row, int column, int span = 1);
  void remove_button(const QString& entry, int row, int column, std::function<QString()> what);
  void add_button(const QString& text, const char* name, int row, std::function<void()> act);

  What what_;
};

class ShopPage : public Page {
  Q_OBJECT
public:
  explicit ShopPage(Desk& desk, QWidget* parent = nullptr);
};

} // namespace mavrel::app
