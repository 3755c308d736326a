// What a tip says is told to those without a mouse as well: at the foot of the window, while its widget or its cell of
// a table has the focus.
#pragma once

#include <QObject>
#include <QPointer>

class QAbstractItemView;
class QWidget;

namespace mavrel::app {

class TipsTold : public QObject {
  Q_OBJECT
public:
  /// @param window  whose widgets' tips are told
  explicit TipsTold(QWidget* window);

signals:
  /// The tip of what has the focus now; empty: it has none that says more than is seen.
  void tells(const QString& tip);

private:
  void follow(QWidget* focus);

  QWidget* window_;
  QMetaObject::Connection cells_;
};

} // namespace mavrel::app
