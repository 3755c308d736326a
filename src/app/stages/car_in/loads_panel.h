// The load case on the car: its masses at their distances, and what each axle then carries.
#pragma once

#include "app/kit/row_panel.h"

namespace mavrel::app {

class LoadsPanel : public RowPanel {
  Q_OBJECT
public:
  explicit LoadsPanel(Desk& desk, QWidget* parent = nullptr);

protected:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void refresh_rows() override;

private:
  QLabel* shares_ = nullptr;
};

} // namespace mavrel::app
