// How the cells of a table are edited: in a line that belongs to the place it was begun at, as a field's does.
#pragma once

#include <QModelIndex>
#include <QString>

#include <functional>
#include <optional>

class QTableWidget;

namespace mavrel::app {

class Desk;

/// What a table says of its cells. A key is a place that stays the same when the table is sorted or filled anew.
struct CellEditing {
  std::function<QString(const QModelIndex&)> key;    // empty: not edited
  std::function<QString(const QString& key)> text;   // to begin with
  std::function<QString(const QString& key)> spoken; // its accessible name
  /// Takes what was typed. @returns what is wrong with it, and nothing has changed
  std::function<std::optional<QString>(const QString& key, const QString& text)> take;
};

/// From now on the table's cells are edited so: any key, Enter, F2 or a second click begins; Enter takes and goes down,
/// Tab takes and goes on and leaves after the last; both leave what can't be taken in the line and say why; Escape
/// gives it up. Outside a line Tab leaves the table. What is half typed is taken, where it was begun, before anything
/// that is open changes under it.
void edit_cells(Desk& desk, QTableWidget& table, CellEditing how);
/// Takes what is half typed in a cell now, and closes its line: what comes next is another place.
void settle_cells(QTableWidget& table);

} // namespace mavrel::app
