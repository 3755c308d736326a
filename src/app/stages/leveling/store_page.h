// What a controller is taught: heights and pressures to store, in order, what must be true before, and what bursts buy.
#pragma once

#include "app/kit/page.h"
#include "app/stages/leveling/questions.h"

namespace mavrel::app {

class StorePage : public Page {
  Q_OBJECT
public:
  explicit StorePage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] const assess::Calibration* calibration() const { return answer_.value(); }
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }

protected:
  void fill() override;

private:
  void fill_presets(const assess::Calibration& c);
  void fill_bursts(const assess::Calibration& c);

  Asked<CalibrationQuestion> answer_;
  QLabel *before_, *steps_, *presets_head_, *bursts_head_;
  ListTable *presets_, *bursts_;
};

} // namespace mavrel::app
