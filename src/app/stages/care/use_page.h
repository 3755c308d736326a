// How the car is used, how often its tasks come round, what was learned for the next one, and what still is another
// car's.
#pragma once

#include "app/kit/page.h"
#include "app/kit/row_panel.h"

namespace mavrel::app {

/// Rows of fields of one kind.
class CarePanel : public RowPanel {
  Q_OBJECT
public:
  enum class What { use, intervals, lessons };
  CarePanel(Desk& desk, What what, QWidget* parent);

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void put(const QString& path, const QString& caption, int row, int column, int span = 1);
  void add_button(const QString& text, const char* name, int row, std::function<void()> act);

  What what_;
};

class UsePage : public Page {
  Q_OBJECT
public:
  explicit UsePage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;

protected:
  void fill() override;

private:
  void confirm(bool all);

  QLabel* from_words_;
  QWidget* taken_box_;
  ListTable* taken_;
};

} // namespace mavrel::app
