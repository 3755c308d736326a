// What stands beside a drawing of one end: fields of the end that is looked at, buttons, a page that scrolls.
#pragma once

#include <QWidget>

#include <functional>

class QBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace mavrel::app {

class Desk;
class Field;

class EndPanel : public QWidget {
  Q_OBJECT
public:
  explicit EndPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}
  /// Gives a field the focus. @returns whether it is here
  virtual bool go_to(const QString& path);

protected:
  /// A field of the end that is looked at, whichever that is; `%` in the path stands for it.
  Field* field(const QString& path, const QString& caption);
  QPushButton* button(QBoxLayout* row, const QString& text, const QString& tip, std::function<void()> act);
  /// The panel's one page, which scrolls up and down where it is taller than its place.
  QVBoxLayout* scrolled_page();

  Desk& desk_;
};

} // namespace mavrel::app
