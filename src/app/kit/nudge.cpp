#include "app/kit/nudge.h"

#include "app/desk/document.h"

namespace mavrel::app {

std::optional<QPointF> nudge_of(const QKeyEvent& event) {
  const double step = event.modifiers() & Qt::ShiftModifier ? 0.010
                      : event.modifiers() & Qt::AltModifier ? 0.0001
                                                            : 0.001;
  switch (event.key()) {
  case Qt::Key_Left:
    return QPointF(-step, 0);
  case Qt::Key_Right:
    return QPointF(step, 0);
  case Qt::Key_Up:
    return QPointF(0, step);
  case Qt::Key_Down:
    return QPointF(0, -step);
  default:
    return std::nullopt;
  }
}

QString stroke_of(const QKeyEvent& event, Document& document) {
  if (!event.isAutoRepeat()) document.end_gesture();
  return "arrows";
}

bool is_arrow_for_shortcuts(const QEvent& event) {
  if (event.type() != QEvent::ShortcutOverride) return false;
  const int key = static_cast<const QKeyEvent&>(event).key();
  return key == Qt::Key_Left || key == Qt::Key_Right || key == Qt::Key_Up || key == Qt::Key_Down;
}

} // namespace mavrel::app
