// The joints of one end in one table, in the units of the bay, and what carries spring and damper.
#pragma once

#include "app/stages/swing/panel.h"

#include <vector>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class Chips;
class PathTable;

class JointsPanel : public SwingPanel {
  Q_OBJECT
public:
  JointsPanel(Desk& desk, QWidget* parent);
  bool go_to(const QString& path) override;
  void hold_joint(const QString& joint) override;
  [[nodiscard]] PathTable* table() const { return table_; }

private:
  void refresh();
  [[nodiscard]] std::optional<QString> take_joint(const QString& path, const QString& text);
  [[nodiscard]] QString side() const;

  PathTable* table_;
  Chips* sides_;
  QLabel* about_;
  QPushButton* usual_;
  std::vector<std::pair<QComboBox*, const char*>> carriers_; // with their fields
  std::vector<QString> keys_;                                // of the rows shown
  bool right_ = false;
};

} // namespace mavrel::app
