// What stands beside the drawing of an end: sheets and fields, one panel a concern. Which there are stands in
// panel.cpp.
#pragma once

#include "app/kit/end_panel.h"

#include <span>

namespace mavrel::app {

class SwingPanel : public EndPanel {
  Q_OBJECT
public:
  using EndPanel::EndPanel;
  /// A joint is held in the drawing, by its key in the file; empty: none.
  virtual void hold_joint(const QString&) {}

signals:
  void held_joint(const QString& joint);
  void wants_tape(bool right);
};

struct PanelEntry {
  const char* key;  // `cycle`
  const char* tab;  // marked for translation in the context `swing`
  const char* name; // for menus
  SwingPanel* (*make)(Desk& desk, QWidget* parent);
};
/// In the order of the work.
[[nodiscard]] std::span<const PanelEntry> panel_entries();

} // namespace mavrel::app
