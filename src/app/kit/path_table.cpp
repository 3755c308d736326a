#include "app/kit/path_table.h"

#include "app/desk/desk.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QStyledItemDelegate>

#include <utility>

namespace mavrel::app {

/// Edits a cell in a line of its own; what can't be taken stays in it, and is said.
class PathDelegate : public QStyledItemDelegate {
public:
  PathDelegate(Desk& desk, PathTable& table) : QStyledItemDelegate(&table), desk_(desk), table_(table) {}

  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex& index) const override {
    const QString path = table_.path_at(index);
    if (path.isEmpty()) return nullptr;
    auto* line = new QLineEdit(parent);
    line->setFrame(false);
    if (!path.startsWith('+')) line->setAccessibleName(desk_.words_of(desk_.field(path).label));
    return line;
  }
  void setEditorData(QWidget* editor, const QModelIndex& index) const override {
    auto* line = static_cast<QLineEdit*>(editor);
    if (line->isModified()) return; // the build changed while it is typed in: what is typed stays
    const QString path = table_.path_at(index);
    line->setText(path.startsWith('+') ? QString() : QString::fromStdString(desk_.field(path).editable));
    line->selectAll();
  }
  void setModelData(QWidget* editor, QAbstractItemModel*, const QModelIndex& index) const override {
    auto* line = static_cast<QLineEdit*>(editor);
    if (!line->isModified()) return;
    line->setModified(false); // taken once, whatever hears of the change
    if (const auto wrong = table_.type(table_.path_at(index), line->text())) desk_.tell(*wrong);
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
