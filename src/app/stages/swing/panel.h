// What stands beside the drawing of an end: sheets and fields, one panel a concern. Which there are stands in
// panels.cpp.
#pragma once

#include <QWidget>

#include <span>

namespace mavrel::app {

class Desk;

class SwingPanel : public QWidget {
  Q_OBJECT
public:
  explicit SwingPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}
  /// Gives a field the focus. @returns whether it is here
  virtual bool go_to(const QString& path);
  /// A joint is held in the drawing, by its key in the file; empty: none.
  virtual void hold_joint(const QString&) {}

signals:
  void held_joint(const QString& joint);
  void wants_tape();

protected:
  Desk& desk_;
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
