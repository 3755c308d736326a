#include "app/kit/path_table.h"

#include "app/desk/desk.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QStyledItemDelegate>

#include <utility>

namespace mavrel::app {

/// The line that a cell is typed in. What is typed belongs to the place it was begun at, whatever is looked at since,
/// and is taken there before anything that is open changes under it.
class CellLine : public QLineEdit {
public:
  CellLine(Desk& desk, PathTable& table, const QString& path, QWidget* parent)
      : QLineEdit(parent), desk_(desk), table_(table), path_(path.startsWith('+') ? path : desk.resolve(path)) {
    setFrame(false);
    if (!path.startsWith('+')) setAccessibleName(desk_.words_of(desk_.field(path).label));
    connect(&desk_.document(), &Document::settling, this, [this](Unfinished unfinished) {
      if (const auto wrong = take()) desk_.document().could_not_take(*wrong);
      if (unfinished != Unfinished::give_up) return;
      setModified(false); // what comes next is another place
      table_.closeEditor(this, QAbstractItemDelegate::NoHint);
    });
  }
  /// @returns what is wrong with it, and it is as it was; none: it is taken, or nothing was typed
  std::optional<QString> take() {
    if (!isModified()) return std::nullopt;
    setModified(false); // taken once, whatever hears of the change
    const auto wrong = table_.type(path_, text());
    if (wrong) setModified(true);
    return wrong;
  }

private:
  Desk& desk_;
  PathTable& table_;
  QString path_;
};

/// Edits a cell in a line of its own. Enter and Tab leave what can't be taken in it, and say why.
class PathDelegate : public QStyledItemDelegate {
public:
  PathDelegate(Desk& desk, PathTable& table) : QStyledItemDelegate(&table), desk_(desk), table_(table) {}

  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex& index) const override {
    const QString path = table_.path_at(index);
    return path.isEmpty() ? nullptr : new CellLine(desk_, table_, path, parent);
  }
  void setEditorData(QWidget* editor, const QModelIndex& index) const override {
    auto* line = static_cast<CellLine*>(editor);
    if (line->isModified()) return; // the build changed while it is typed in: what is typed stays
    const QString path = table_.path_at(index);
    line->setText(path.startsWith('+') ? QString() : QString::fromStdString(desk_.field(path).editable));
    line->selectAll();
  }
  void setModelData(QWidget* editor, QAbstractItemModel*, const QModelIndex&) const override {
    if (const auto wrong = static_cast<CellLine*>(editor)->take()) desk_.tell(*wrong);
  }

protected:
  bool eventFilter(QObject* editor, QEvent* event) override {
    if (event->type() != QEvent::KeyPress) return QStyledItemDelegate::eventFilter(editor, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter;
    if (!enter && key != Qt::Key_Tab && key != Qt::Key_Backtab) return QStyledItemDelegate::eventFilter(editor, event);
    auto* line = static_cast<CellLine*>(editor);
    if (const auto wrong = line->take()) {
      desk_.tell(*wrong);
      line->selectAll();
      return true;
    }
    if (!enter) return QStyledItemDelegate::eventFilter(editor, event);
    emit closeEditor(line, NoHint);
    table_.go_down();
    return true;
  }

private:
  Desk& desk_;
  PathTable& table_;
};

PathTable::PathTable(Desk& desk, const QString& accessible_name, QWidget* parent) : QTableWidget(parent), desk_(desk) {
  setAccessibleName(accessible_name);
  setItemDelegate(new PathDelegate(desk, *this));
  setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                  QAbstractItemView::SelectedClicked | QAbstractItemView::EditKeyPressed);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setTabKeyNavigation(true);
  setShowGrid(false);
  setAlternatingRowColors(false);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  horizontalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
  horizontalHeader()->setHighlightSections(false);
  verticalHeader()->setHighlightSections(false);
  verticalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  setCornerButtonEnabled(false);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      stale_ = true;
      if (isVisible()) fill();
    });
  connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
    if (row != before && !filling_) emit held(row); // a row that goes while it is filled is nobody's choice
  });
}

void PathTable::showEvent(QShowEvent* event) {
  QTableWidget::showEvent(event);
  if (stale_) fill();
}

QString PathTable::path_at(const QModelIndex& index) const {
  if (!index.isValid() || static_cast<std::size_t>(index.row()) >= rows_.size()) return {};
  return rows_[static_cast<std::size_t>(index.row())].paths.value(index.column());
}

std::optional<QString> PathTable::type(const QString& path, const QString& text) {
  if (!path.startsWith('+')) return desk_.type(path, text);
  return take_ && !text.trimmed().isEmpty() ? take_(path, text) : std::nullopt;
}

void PathTable::show_rows(const QStringList& heads, std::vector<Row> rows) {
  if (filling_) { // once it stands
    QMetaObject::invokeMethod(
        this, [this, heads, rows] { show_rows(heads, rows); }, Qt::QueuedConnection);
    return;
  }
  heads_ = heads;
  rows_ = std::move(rows);
  stale_ = true;
  if (isVisible()) fill();
}

void PathTable::fill() {
  if (std::exchange(filling_, true)) return; // the rows are those of now: whoever fills goes on with them
  const int before = currentRow();
  stale_ = false;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  setFont(look.font());
  horizontalHeader()->setFont(look.font(TextSize::small));
  verticalHeader()->setFont(look.font());
  verticalHeader()->setDefaultSectionSize(look.px(22));
  verticalHeader()->setMinimumSectionSize(look.px(22));
  if (columnCount() != heads_.size()) setColumnCount(static_cast<int>(heads_.size()));
  if (rowCount() != static_cast<int>(rows_.size())) setRowCount(static_cast<int>(rows_.size()));
  setHorizontalHeaderLabels(heads_);
  QStringList names;
  for (int r = 0; r < rowCount(); ++r) {
    const Row& row = rows_[static_cast<std::size_t>(r)];
    names << (row.flag.isEmpty() ? row.name : QString("△ %1").arg(row.name));
    for (int c = 0; c < columnCount(); ++c) {
      QTableWidgetItem* cell = item(r, c);
      if (!cell) {
        cell = new QTableWidgetItem;
        cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        setItem(r, c, cell);
      }
      const QString path = row.paths.value(c);
      const auto view = path.isEmpty() || path.startsWith('+') ? build::FieldView{} : desk_.field(path);
      const QString shown = path.isEmpty() ? QString() : view.filled ? QString::fromStdString(view.shown) : tr("·");
      if (cell->text() != shown) cell->setText(shown);
      cell->setFlags(path.isEmpty() ? Qt::ItemIsEnabled
                                    : Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
      cell->setForeground(row.flag.isEmpty() ? t.ink : t.caution);
      cell->setToolTip(row.flag.isEmpty() ? desk_.words_of(view.label) : row.flag);
    }
  }
  setVerticalHeaderLabels(names);
  filling_ = false;
  if (currentRow() != before)
    QMetaObject::invokeMethod(
        this, [this] { emit held(currentRow()); }, Qt::QueuedConnection);
}

void PathTable::go_down() {
  const int row = currentRow() + 1;
  if (row < rowCount() && !path_at(model()->index(row, currentColumn())).isEmpty())
    setCurrentCell(row, currentColumn());
}

bool PathTable::go_to(const QString& path) {
  for (std::size_t r = 0; r < rows_.size(); ++r)
    for (int c = 0; c < rows_[r].paths.size(); ++c)
      if (desk_.resolve(rows_[r].paths[c]) == path) {
        setCurrentCell(static_cast<int>(r), c);
        setFocus(Qt::OtherFocusReason);
        return true;
      }
  return false;
}

void PathTable::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    if (state() != QAbstractItemView::EditingState && currentIndex().isValid()) edit(currentIndex());
    return;
  }
  QTableWidget::keyPressEvent(event);
}

} // namespace mavrel::app
