// Today's wheel against another: both over each other in section and from above, what gets nearer to what, and what is
// to be checked again on the car.
#pragma once

#include "app/kit/end_panel.h"

class QLabel;
class QTableWidget;

namespace mavrel::app {

class WheelDrawing;

class WheelPanel : public EndPanel {
  Q_OBJECT
public:
  explicit WheelPanel(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;

private:
  void refresh();

  WheelDrawing* drawing_;
  QLabel *change_, *about_;
  QTableWidget* checks_;
  bool filling_ = false;
};

} // namespace mavrel::app
