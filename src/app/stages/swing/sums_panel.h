// The bench's sums for one end: what is wanted and what the tape says, and under them the answers.
#pragma once

#include "app/stages/swing/panel.h"

class QLabel;

namespace mavrel::app {

class SumsPanel : public SwingPanel {
  Q_OBJECT
public:
  SumsPanel(Desk& desk, QWidget* parent);

private:
  void refresh();
  QLabel* said_;
};

} // namespace mavrel::app
