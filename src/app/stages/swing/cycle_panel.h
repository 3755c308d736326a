// The cycle sheet of one end as a table: a row a step of the jack, in any order, repeats allowed.
#pragma once

#include "app/stages/swing/panel.h"

class QLabel;
class QPushButton;

namespace mavrel::app {

class Chips;
class PathTable;

class CyclePanel : public SwingPanel {
  Q_OBJECT
public:
  CyclePanel(Desk& desk, QWidget* parent);
  bool go_to(const QString& path) override;
  [[nodiscard]] PathTable* table() const { return table_; }

private:
  void refresh();
  void add_row();
  void add_gap();
  [[nodiscard]] std::optional<QString> take_gap(const QString& path, const QString& text);

  PathTable* table_;
  Chips* sides_;
  QLabel* about_;
  QPushButton* drop_;
  bool right_ = false;
  QStringList new_gaps_; // columns that somebody asked for and no row has a reading of yet
};

} // namespace mavrel::app
