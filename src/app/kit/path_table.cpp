#include "app/kit/path_table.h"

#include "app/desk/desk.h"
#include "app/kit/cell_editing.h"
#include "app/kit/page_stack.h"
#include "quantity/quantity.h"

#include <QHeaderView>

#include <utility>

namespace mavrel::app {

PathTable::PathTable(Desk& desk, const QString& accessible_name, QWidget* parent) : QTableWidget(parent), desk_(desk) {
  setAccessibleName(accessible_name);
  edit_cells(desk, *this,
             {[this](const QModelIndex& index) {
                const QString path = path_at(index);
                return path.isEmpty() || path.startsWith('+') ? path : desk_.resolve(path);
              },
              [this](const QString& path) {
                return path.startsWith('+') ? QString() : QString::fromStdString(desk_.field(path).editable);
              },
              [this](const QString& path) {
                return path.startsWith('+') ? tr("new row") : desk_.words_of(desk_.field(path).label);
              },
              [this](const QString& path, const QString& text) { return type(path, text); }});
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

void PathTable::set_narrow() {
  narrow_ = true;
  horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  horizontalHeader()->setMinimumSectionSize(desk_.look().px(24));
}

QString PathTable::unit_in_head(const QString& head, Kind kind) const {
  const QString unit = QString::fromStdString(unit_name(kind, desk_.prefs()));
  return unit.isEmpty() ? head : QString("%1\n%2").arg(head, unit);
}

QString PathTable::without_unit(QString shown, Kind kind) const {
  const QString unit = " " + QString::fromStdString(unit_name(kind, desk_.prefs()));
  if (unit.size() > 1 && shown.endsWith(unit)) shown.chop(unit.size());
  return shown;
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
  if (narrow_ && columnCount() > 0) horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
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
      const QString other = path.isEmpty() || !view.filled ? QString() : desk_.not_of_this_car(path);
      const QString shown = path.isEmpty()    ? QString()
                            : !view.filled    ? tr("·")
                            : other.isEmpty() ? QString::fromStdString(view.shown)
                                              : "≈ " + QString::fromStdString(view.shown);
      const QString bare = narrow_ && !path.isEmpty() ? without_unit(shown, view.kind) : shown;
      if (cell->text() != bare) cell->setText(bare);
      cell->setFlags(path.isEmpty() ? Qt::ItemIsEnabled
                                    : Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
      cell->setForeground(row.flag.isEmpty() ? t.ink : t.caution);
      QString tip = row.flag.isEmpty() ? desk_.words_of(view.label) : row.flag;
      if (!other.isEmpty()) tip += '\n' + other;
      cell->setToolTip(tip);
    }
  }
  setVerticalHeaderLabels(names);
  if (const int least = least_width(*this); least != least_) {
    least_ = least;
    updateGeometry();
  }
  filling_ = false;
  if (currentRow() != before)
    QMetaObject::invokeMethod(
        this, [this] { emit held(currentRow()); }, Qt::QueuedConnection);
}

QStringList PathTable::paths() const {
  QStringList out;
  for (const Row& row : rows_)
    out << row.paths;
  return out;
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

QSize PathTable::minimumSizeHint() const {
  return {least_, QTableWidget::minimumSizeHint().height()};
}

} // namespace mavrel::app
