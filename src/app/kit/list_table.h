// A table that is only read: rows are picked, not edited.
#pragma once

#include <QColor>
#include <QTableWidget>

namespace mavrel::app {

/// @param heads  of its columns; the first is left-aligned and takes what room there is
[[nodiscard]] QTableWidget* list_table(const char* name, const QString& spoken, const QStringList& heads,
                                       QWidget* parent);
/// The text of a cell, which is also its tip.
/// @param words  left-aligned, as the first column is; else figures
void put_cell(QTableWidget* table, int row, int column, const QString& text, const QColor& ink, bool words = false);

} // namespace mavrel::app
