#include "app/kit/cell_editing.h"

#include "app/desk/desk.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPointer>
#include <QStyledItemDelegate>
#include <QTableWidget>

#include <utility>

namespace mavrel::app {

namespace {

/// The line that a cell is typed in.
class CellLine : public QLineEdit {
public:
  CellLine(const CellEditing& how, QString key, const QModelIndex& at, QWidget* parent)
      : QLineEdit(parent), how_(how), key_(std::move(key)), at_(at) {
    setFrame(false);
    setAccessibleName(how_.spoken(key_));
  }
  /// @returns what is wrong with it, and it is as it was; none: it is taken, or nothing was typed
  std::optional<QString> take() {
    if (!isModified()) return std::nullopt;
    setModified(false); // taken once, whatever hears of the change
    const auto wrong = how_.take(key_, text());
    if (wrong) setModified(true);
    return wrong;
  }
  [[nodiscard]] const QString& key() const { return key_; }
  /// The cell that it lies over, for as long as there is one.
  [[nodiscard]] QModelIndex at() const { return at_; }

private:
  const CellEditing& how_;
  QString key_;
  QPersistentModelIndex at_;
};

class CellDelegate : public QStyledItemDelegate {
public:
  CellDelegate(Desk& desk, QTableWidget& table, CellEditing how)
      : QStyledItemDelegate(&table), desk_(desk), table_(table), how_(std::move(how)) {
    table.installEventFilter(this);
  }

  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex& index) const override {
    const QString key = how_.key(index);
    if (key.isEmpty()) return nullptr;
    if (line_) { // one that could not be taken is put right or given up first
      line_->setFocus();
      return nullptr;
    }
    auto* line = new CellLine(how_, key, index, parent);
    line_ = line;
    connect(&desk_.document(), &Document::settling, line, [this, line](Unfinished unfinished) {
      if (const auto wrong = line->take()) {
        desk_.tell(*wrong); // whoever settles it need not say it
        desk_.document().could_not_take(*wrong);
      }
      if (unfinished == Unfinished::give_up && line_ == line) close(line);
    });
    return line;
  }
  void setEditorData(QWidget* editor, const QModelIndex&) const override {
    auto* line = static_cast<CellLine*>(editor);
    if (line->isModified()) return; // the build changed while it is typed in: what is typed stays
    line->setText(how_.text(line->key()));
    line->selectAll();
  }
  void setModelData(QWidget* editor, QAbstractItemModel*, const QModelIndex& index) const override {
    auto* line = static_cast<CellLine*>(editor);
    const auto wrong = line->take();
    if (!wrong) return;
    desk_.tell(*wrong);
    // The view closes the line where another cell is held from now on: it is opened again as it stood, to be put right
    // or given up.
    QMetaObject::invokeMethod(
        const_cast<CellDelegate*>(this),
        [this, index = QPersistentModelIndex(index), key = line->key(), text = line->text()] {
          if (line_ || !index.isValid() || how_.key(index) != key) return;
          table_.setCurrentCell(index.row(), index.column());
          table_.edit(index);
          if (!line_) return;
          line_->setText(text);
          line_->setModified(true);
          line_->selectAll();
        },
        Qt::QueuedConnection);
  }
  void destroyEditor(QWidget* editor, const QModelIndex& index) const override {
    auto* line = static_cast<CellLine*>(editor);
    line->setModified(false); // it is there until it is deleted, and given up
    if (line_ == line) line_ = nullptr;
    QStyledItemDelegate::destroyEditor(editor, index);
  }
  void settle() {
    if (!line_) return;
    if (const auto wrong = line_->take()) desk_.tell(*wrong);
    if (line_) close(line_);
  }

protected:
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == QEvent::FocusOut && watched != &table_) {
      // Another window in front takes nothing; what can't be taken stays in its line when somebody goes elsewhere.
      if (static_cast<QFocusEvent*>(event)->reason() == Qt::ActiveWindowFocusReason) return false;
      const auto wrong = static_cast<CellLine*>(watched)->take();
      if (wrong) {
        desk_.tell(*wrong);
        return false;
      }
    }
    if (event->type() != QEvent::KeyPress)
      return watched != &table_ && QStyledItemDelegate::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter;
    if (watched == &table_) {
      if (enter && !line_ && table_.currentIndex().isValid()) {
        table_.edit(table_.currentIndex());
        return true;
      }
      return false;
    }
    const bool tab = key == Qt::Key_Tab, back = key == Qt::Key_Backtab;
    if (!enter && !tab && !back) return QStyledItemDelegate::eventFilter(watched, event);
    const QPointer<CellLine> line = static_cast<CellLine*>(watched);
    const auto wrong = line->take();
    if (!line) return true; // its row went with what was taken
    if (wrong) {
      desk_.tell(*wrong);
      line->selectAll();
      return true;
    }
    if (enter) {
      close(line);
      go_down();
      return true;
    }
    if (next(back ? -1 : 1)) return QStyledItemDelegate::eventFilter(watched, event);
    close(line);
    QCoreApplication::postEvent(&table_,
                                new QKeyEvent(QEvent::KeyPress, key, tab ? Qt::NoModifier : Qt::ShiftModifier));
    return true;
  }

private:
  /// Is there a cell to be edited after this one, or before it?
  [[nodiscard]] bool next(int by) const {
    const int columns = table_.columnCount(), cells = columns * table_.rowCount();
    for (int i = table_.currentRow() * columns + table_.currentColumn() + by; i >= 0 && i < cells; i += by)
      if (!how_.key(table_.model()->index(i / columns, i % columns)).isEmpty()) return true;
    return false;
  }
  void go_down() {
    const int row = table_.currentRow() + 1;
    if (row < table_.rowCount() && !how_.key(table_.model()->index(row, table_.currentColumn())).isEmpty())
      table_.setCurrentCell(row, table_.currentColumn());
  }
  void close(CellLine* line) const {
    line->setModified(false);
    // Where its row went with what was taken the view has closed it already.
    if (line->at().isValid() && table_.isPersistentEditorOpen(line->at()))
      emit const_cast<CellDelegate*>(this)->closeEditor(line, NoHint);
    else
      line_ = nullptr;
  }

  Desk& desk_;
  QTableWidget& table_;
  CellEditing how_;
  mutable QPointer<CellLine> line_; // while a cell is edited
};

} // namespace

void edit_cells(Desk& desk, QTableWidget& table, CellEditing how) {
  table.setItemDelegate(new CellDelegate(desk, table, std::move(how)));
  table.setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                        QAbstractItemView::SelectedClicked | QAbstractItemView::EditKeyPressed);
  table.setSelectionMode(QAbstractItemView::SingleSelection);
  table.setTabKeyNavigation(false);
}

void settle_cells(QTableWidget& table) {
  if (auto* delegate = dynamic_cast<CellDelegate*>(table.itemDelegate())) delegate->settle();
}

} // namespace mavrel::app
