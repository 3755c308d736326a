// What a controller is taught: heights and pressures to store, in order, what must be true before, and what bursts buy.
#pragma once

#include "app/stages/leveling/questions.h"

#include <QWidget>

class QLabel;
class QTableWidget;

namespace mavrel::app {

class StorePage : public QWidget {
  Q_OBJECT
public:
  explicit StorePage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  [[nodiscard]] const assess::Calibration* calibration() const;
  [[nodiscard]] bool is_settled() const { return !answer_.is_running(); }

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void refresh();

  Desk& desk_;
  LongAnswer<CalibrationQuestion> answer_;
  QLabel *before_, *steps_, *presets_head_, *bursts_head_;
  QTableWidget *presets_, *bursts_;
  QWidget* beside_;
};

} // namespace mavrel::app
