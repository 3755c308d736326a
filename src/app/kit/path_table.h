// A table whose cells are fields of the build: typed units understood, every edit undoable, by keyboard throughout.
// Enter takes what is typed and goes down, Tab goes on to the right.
#pragma once

#include "quantity/kind.h"

#include <QStringList>
#include <QTableWidget>

#include <functional>
#include <optional>
#include <vector>

namespace mavrel::app {

class Desk;

class PathTable : public QTableWidget {
  Q_OBJECT
public:
  struct Row {
    QString name;      // in front of its cells
    QStringList paths; // one a column; empty: no such cell
    QString flag;      // why the row is doubtful; empty: it is not
  };

  PathTable(Desk& desk, const QString& accessible_name, QWidget* parent = nullptr);
  /// Takes what is typed for a path that is no field yet: one that begins with `+`. @returns what is wrong with it
  using Take = std::function<std::optional<QString>(const QString& path, const QString& text)>;
  void set_take(Take take) { take_ = std::move(take); }
  /// Figures stand without their unit, which is in the heads of those that show the rows: `unit_in_head`. Columns are
  /// then as wide as they must be, and the first takes what is left.
  void set_narrow();
  /// `behind`, its unit below it.
  [[nodiscard]] QString unit_in_head(const QString& head, Kind kind) const;
  /// What it shows. Keeps the cell that is held while the rows stay as many.
  void show_rows(const QStringList& heads, std::vector<Row> rows);
  /// Gives the cell of a field the focus. @returns whether it is here
  bool go_to(const QString& path);
  /// The fields that its cells are of.
  [[nodiscard]] QStringList paths() const;
  [[nodiscard]] int held_row() const { return currentRow(); }

  [[nodiscard]] QSize minimumSizeHint() const override;

signals:
  void held(int row); // another row is

protected:
  void showEvent(QShowEvent* event) override;

private:
  int least_ = 0; // px across, of what was filled in last
  [[nodiscard]] QString path_at(const QModelIndex& index) const;
  void fill();
  [[nodiscard]] QString without_unit(QString shown, Kind kind) const;
  [[nodiscard]] std::optional<QString> type(const QString& path, const QString& text);

  Desk& desk_;
  QStringList heads_;
  std::vector<Row> rows_;
  Take take_;
  bool stale_ = false;
  bool narrow_ = false;
  bool filling_ = false;
};

} // namespace mavrel::app
