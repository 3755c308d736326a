// The kit's wiring: drawn from the design, with its list and what it costs.
#pragma once

#include "app/kit/page.h"
#include "assess/air/wiring.h"

namespace mavrel::app {

class WiringView;

class WiringPage : public Page {
  Q_OBJECT
public:
  explicit WiringPage(Desk& desk, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  WiringView* view_;
  ListTable* table_;
  QLabel* about_;
};

/// Battery, fuses, relays, compressors, switch and feed, as the wiring has them.
class WiringView : public QWidget {
  Q_OBJECT
public:
  WiringView(Desk& desk, QWidget* parent);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  Desk& desk_;
};

} // namespace mavrel::app
