// A table that is only read: rows are picked, not edited. Each is copied, sorted and saved in the same way, by mouse
// and by keyboard.
#pragma once

#include <QColor>
#include <QTableWidget>

#include <functional>
#include <optional>

namespace mavrel::app {

/// Its columns are named once, by their heads; the first takes what room there is unless another does. Ctrl+C copies
/// the held row; the menu of the table (Menu key, right click) copies all of it, sorts it and saves it. A click on a
/// head sorts by it, a second the other way round, a third puts the rows back as they came.
class ListTable : public QTableWidget {
  Q_OBJECT
public:
  ListTable(const char* name, const QString& spoken, const QStringList& heads, QWidget* parent);

  /// A row while it is filled, cell by cell from the left.
  class Row {
  public:
    /// A figure, at the right; in the first column words.
    Row& figure(const QString& text, const QColor& ink);
    /// Words, at the left.
    Row& words(const QString& text, const QColor& ink);
    /// What its last cell says when asked, in place of itself.
    Row& tip(const QString& text);
    /// It is what is held from now on.
    Row& hold();

  private:
    friend class ListTable;
    Row(ListTable& table, int row) : table_(table), row_(row) {}
    Row& put(const QString& text, const QColor& ink, bool left);
    ListTable& table_;
    int row_, column_ = 0;
  };
  /// Fills it anew, a call a row. Nothing is heard meanwhile; the row that was held stays held while there are as many,
  /// unless another says that it is.
  void fill(std::size_t rows, const std::function<void(std::size_t, Row&)>& put);
  /// The held row, as they were filled in; none: none is.
  [[nodiscard]] std::optional<std::size_t> held() const;
  /// Holds a row, as they were filled in.
  void hold(std::size_t row);
  /// The column that takes what room there is; the first then is as wide as it needs.
  void stretch(int column);
  /// The rows as a table of text, as they stand. @param between  what parts the cells
  [[nodiscard]] QString text(QChar between) const;

  [[nodiscard]] QSize minimumSizeHint() const override;

signals:
  void chose(std::size_t row);   // another row is held, as they were filled in
  void wants_file(QString text); // somebody wants it saved, as CSV
  void picked(std::size_t row);  // Enter or a double click on a row

protected:
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;

private:
  int least_ = 0; // px across, of what was filled in last
  void sort_by(int column);
  void sort_again();
  [[nodiscard]] std::optional<std::size_t> row_of(int shown) const;
  void open_menu(const QPoint& at);

  int sorted_by_ = -1;
  bool downwards_ = false;
  std::optional<std::size_t> wanted_; // while it is filled
};

} // namespace mavrel::app
