// Hold points: what is measured on the car before work goes on, beside what the design says, and who signed it.
#pragma once

#include "app/checks/check_page.h"

namespace mavrel::app {

class ChecksPage : public CheckPage {
  Q_OBJECT
public:
  explicit ChecksPage(Desk& desk, QWidget* parent = nullptr);

protected:
  [[nodiscard]] QString summary(const Points& points) const override;
  void sign() override;
};

} // namespace mavrel::app
