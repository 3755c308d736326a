#include "app/kit/page_stack.h"

#include <QKeyEvent>
#include <QLayout>
#include <QResizeEvent>

#include <algorithm>

namespace mavrel::app {

QSize least_room(const QWidget* widget, int width) {
  QSize least = QWidgetItem(const_cast<QWidget*>(widget)).minimumSize();
  if (const QLayout* inside = widget->layout(); inside && inside->hasHeightForWidth())
    least.setHeight(std::max(least.height(), inside->minimumHeightForWidth(std::max(width, least.width()))));
  return least;
}

bool is_arrow(const QKeyEvent& event) {
  switch (event.key()) {
  case Qt::Key_Up:
  case Qt::Key_Down:
  case Qt::Key_Left:
  case Qt::Key_Right:
    return true;
  default:
    return false;
  }
}

PageStack::PageStack(QWidget* parent) : QStackedWidget(parent) {
  connect(this, &QStackedWidget::currentChanged, this, [this] { updateGeometry(); });
}

QSize PageStack::minimumSizeHint() const {
  return currentWidget() ? least_room(currentWidget(), width()) : QSize();
}

void PageStack::resizeEvent(QResizeEvent* event) {
  QStackedWidget::resizeEvent(event);
  if (event->size().width() != event->oldSize().width()) updateGeometry();
}

} // namespace mavrel::app
