// What else runs out as the end moves: the bar's link, the brake hose, shafts, joints. Each a limit when measured.
#pragma once

#include "app/stages/swing/panel.h"

class QLabel;

namespace mavrel::app {

class RunsPanel : public SwingPanel {
  Q_OBJECT
public:
  RunsPanel(Desk& desk, QWidget* parent);

private:
  void refresh();
  QLabel *said_, *shaft_;
};

} // namespace mavrel::app
