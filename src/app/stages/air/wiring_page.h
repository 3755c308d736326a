// The kit's wiring: drawn from the design, with its list and what it costs.
#pragma once

#include "assess/air/wiring.h"

#include <QWidget>

class QLabel;
class QTableWidget;

namespace mavrel::app {

class Desk;
class WiringView;

class WiringPage : public QWidget {
  Q_OBJECT
public:
  explicit WiringPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  bool go_to(const QString& path);

private:
  void refresh();
  Desk& desk_;
  WiringView* view_;
  QTableWidget* table_;
  QLabel *about_, *caution_;
  QWidget* beside_;
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
