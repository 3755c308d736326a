// How much room each kind of thing asks for.
#pragma once

#include "app/kit/end_panel.h"

namespace mavrel::app {

class RoomsPanel : public EndPanel {
  Q_OBJECT
public:
  explicit RoomsPanel(Desk& desk, QWidget* parent = nullptr);
};

} // namespace mavrel::app
