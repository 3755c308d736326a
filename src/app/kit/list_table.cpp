#include "app/kit/list_table.h"

#include <QHeaderView>

namespace mavrel::app {

QTableWidget* list_table(const char* name, const QString& spoken, const QStringList& heads, QWidget* parent) {
  auto* table = new QTableWidget(parent);
  table->setObjectName(name);
  table->setAccessibleName(spoken);
  table->setColumnCount(static_cast<int>(heads.size()));
  table->setHorizontalHeaderLabels(heads);
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setSelectionBehavior(QAbstractItemView::SelectRows);
  table->setSelectionMode(QAbstractItemView::SingleSelection);
  table->setShowGrid(false);
  table->setTabKeyNavigation(false);
  table->verticalHeader()->hide();
  table->horizontalHeader()->setHighlightSections(false);
  table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table->horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  return table;
}

void put_cell(QTableWidget* table, int row, int column, const QString& text, const QColor& ink, bool words) {
  QTableWidgetItem* item = table->item(row, column);
  if (!item) {
    item = new QTableWidgetItem;
    const Qt::Alignment side = (column == 0 || words ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter;
    item->setTextAlignment(side);
    table->setItem(row, column, item);
    // A head stands over what it heads.
    if (QTableWidgetItem* head = table->horizontalHeaderItem(column)) head->setTextAlignment(side);
  }
  item->setText(text);
  item->setToolTip(text);
  item->setForeground(ink);
}

} // namespace mavrel::app
