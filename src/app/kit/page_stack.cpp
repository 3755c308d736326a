#include "app/kit/page_stack.h"

#include "app/kit/long_text.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QLayout>
#include <QResizeEvent>
#include <QScrollBar>
#include <QTableWidget>

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

int least_width(const QTableWidget& table) {
  constexpr int looked_at = 40; // rows
  const int columns = table.columnCount();
  int sum = 0, most = 0;
  bool shared = columns > 0; // do all columns share the room alike?
  for (int c = 0; c < columns; ++c) {
    const QHeaderView& heads = *table.horizontalHeader();
    const bool shares = heads.sectionResizeMode(c) == QHeaderView::Stretch;
    // Heads of columns that share the room give way; a column that is as wide as it must be takes it first.
    int wanted = shares ? 0 : heads.sectionSizeHint(c);
    for (int r = 0; r < std::min(table.rowCount(), looked_at); ++r) {
      const QTableWidgetItem* cell = table.item(r, c);
      if (!cell) continue;
      const QFontMetrics letters(cell->font().resolve(table.font()));
      const bool whole = !shares || cell->text().size() <= never_cut;
      const QString text = whole ? cell->text() : cell->text().left(never_cut / 2);
      wanted = std::max(wanted, letters.horizontalAdvance(text) + letters.averageCharWidth());
    }
    sum += wanted;
    most = std::max(most, wanted);
    shared = shared && shares;
  }
  const int beside = table.verticalHeader()->isVisible() ? table.verticalHeader()->sizeHint().width() : 0;
  return (shared ? columns * most : sum) + beside + table.verticalScrollBar()->sizeHint().width();
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
