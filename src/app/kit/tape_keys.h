// The keys that walk through readings taken one at a time, whoever takes them.
#pragma once

#include <QKeyEvent>

namespace mavrel::app {

enum class TapeKey { other, back, on, leave };

[[nodiscard]] inline TapeKey tape_key(const QEvent* event) {
  if (event->type() != QEvent::KeyPress) return TapeKey::other;
  switch (static_cast<const QKeyEvent*>(event)->key()) {
  case Qt::Key_Up:
    return TapeKey::back;
  case Qt::Key_Down:
    return TapeKey::on;
  case Qt::Key_Escape:
    return TapeKey::leave;
  default:
    return TapeKey::other;
  }
}

} // namespace mavrel::app
