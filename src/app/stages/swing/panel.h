// What stands beside the drawing of an end: sheets and fields, one panel a concern. Which there are stands in
// panels.cpp.
#pragma once

#include <QWidget>

#include <functional>
#include <span>

class QBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace mavrel::app {

class Desk;
class Field;

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
  void wants_tape(bool right);

protected:
  /// A field of the end that is looked at, whichever that is; `%` in the path stands for it.
  Field* field(const QString& path, const QString& caption);
  QPushButton* button(QBoxLayout* row, const QString& text, const QString& tip, std::function<void()> act);
  /// The panel's one page, which scrolls up and down where it is taller than its place.
  QVBoxLayout* scrolled_page();

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
