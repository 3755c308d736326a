// How the bag is mounted: the school, brackets by the gauge, seats, mounts and threaded bodies, and what each is worth.
#pragma once

#include "app/stages/swing/panel.h"

#include <vector>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class Field;

class MountingPanel : public SwingPanel {
  Q_OBJECT
public:
  MountingPanel(Desk& desk, QWidget* parent);

private:
  void refresh();

  QComboBox *school_, *held_;
  std::vector<Field*> angles_; // that may be straight by themselves
  std::vector<Field*> moves_;  // that move joints, where there are any
  QPushButton* straight_;
  QLabel *gauge_, *presets_, *worth_, *wanted_;
};

} // namespace mavrel::app
