// The ways of keeping the height, every number of each side by side; and what happens on the drive they are compared
// on.
#pragma once

#include "app/kit/page.h"
#include "app/kit/row_panel.h"

namespace mavrel::app {

/// One column a set-up, one row a number.
class RulesPanel : public RowPanel {
  Q_OBJECT
public:
  explicit RulesPanel(Desk& desk, QWidget* parent = nullptr);

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void add_way();
};

/// One row an event.
class EventsPanel : public RowPanel {
  Q_OBJECT
public:
  explicit EventsPanel(Desk& desk, QWidget* parent = nullptr);

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
};

class RulesPage : public Page {
  Q_OBJECT
public:
  explicit RulesPage(Desk& desk, QWidget* parent = nullptr);
};

} // namespace mavrel::app
