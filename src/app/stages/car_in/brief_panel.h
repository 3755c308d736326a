// The brief: heights wanted per end, reserves, comfort, and the wishes in words.
#pragma once

#include "app/kit/row_panel.h"

#include <vector>

class QPlainTextEdit;

namespace mavrel::app {

class BriefPanel : public RowPanel {
  Q_OBJECT
public:
  explicit BriefPanel(Desk& desk, QWidget* parent = nullptr);

protected:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void refresh_rows() override;

private:
  std::vector<QLabel*> heights_; // what the wishes come to, front and rear a row
};

} // namespace mavrel::app
