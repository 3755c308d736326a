#include "app/kit/list_table.h"

#include "app/kit/page_stack.h"
#include "file/csv.h"

#include <QApplication>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QHeaderView>
#include <QMenu>
#include <QRegularExpression>
#include <QSignalBlocker>

namespace mavrel::app {

namespace {

constexpr int row_role = Qt::UserRole + 7; // which row it was filled in as, on its first cell

/// The figure that a text begins with, whatever sign stands in front of it.
std::optional<double> figure_in(const QString& text) {
  static const QRegularExpression figure("^[^\\w+−-]*([+−-]?\\d+(?:\\.\\d+)?(?:e[+-]?\\d+)?)");
  const auto found = figure.match(text);
  if (!found.hasMatch()) return std::nullopt;
  return found.captured(1).replace(QString::fromUtf8("−"), "-").toDouble();
}

/// Sorted by its figure where both have one, what has none behind; else by its words.
class Cell : public QTableWidgetItem {
public:
  bool operator<(const QTableWidgetItem& other) const override {
    const auto a = figure_in(text()), b = figure_in(other.text());
    if (a && b && *a != *b) return *a < *b;
    if (a.has_value() != b.has_value()) return a.has_value();
    return QString::localeAwareCompare(text(), other.text()) < 0;
  }
};

QString cell_of(const QString& text, QChar between) {
  if (between == ',') return QString::fromStdString(csv_cell(text.toStdString()));
  return QString(text).replace('\n', ' ').replace(between, ' ');
}

} // namespace

ListTable::ListTable(const char* name, const QString& spoken, const QStringList& heads, QWidget* parent)
    : QTableWidget(parent) {
  setObjectName(name);
  setAccessibleName(spoken);
  setColumnCount(static_cast<int>(heads.size()));
  setHorizontalHeaderLabels(heads);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setShowGrid(false);
  setTabKeyNavigation(false);
  setWordWrap(false);
  verticalHeader()->hide();
  horizontalHeader()->setHighlightSections(false);
  horizontalHeader()->setSectionsClickable(true);
  horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(horizontalHeader(), &QHeaderView::sectionClicked, this, &ListTable::sort_by);
  connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int, int before) {
    if (row == before) return;
    if (const auto one = row_of(row)) emit chose(*one);
  });
  connect(this, &QTableWidget::cellActivated, this, [this](int row) { // Enter, or a double click
    if (const auto one = row_of(row)) emit picked(*one);
  });
}

ListTable::Row& ListTable::Row::put(const QString& text, const QColor& ink, bool left) {
  const int column = column_++;
  QTableWidgetItem* item = table_.item(row_, column);
  const Qt::Alignment side = (column == 0 || left ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter;
  if (!item) {
    item = new Cell;
    table_.setItem(row_, column, item);
    // A head stands over what it heads.
    if (QTableWidgetItem* head = table_.horizontalHeaderItem(column)) head->setTextAlignment(side);
  }
  item->setTextAlignment(side);
  item->setText(text);
  item->setToolTip(text);
  item->setForeground(ink);
  if (column == 0) item->setData(row_role, row_);
  return *this;
}

ListTable::Row& ListTable::Row::figure(const QString& text, const QColor& ink) {
  return put(text, ink, false);
}
ListTable::Row& ListTable::Row::words(const QString& text, const QColor& ink) {
  return put(text, ink, true);
}
ListTable::Row& ListTable::Row::tip(const QString& text) {
  table_.item(row_, column_ - 1)->setToolTip(text);
  return *this;
}
ListTable::Row& ListTable::Row::hold() {
  table_.wanted_ = static_cast<std::size_t>(row_);
  return *this;
}

void ListTable::fill(std::size_t rows, const std::function<void(std::size_t, Row&)>& put) {
  const QSignalBlocker quiet(this);
  wanted_ = held();
  const int count = static_cast<int>(rows);
  if (sorted_by_ >= 0) setRowCount(0); // they are filled in as they come
  setRowCount(count);
  for (int r = 0; r < count; ++r) {
    Row row(*this, r);
    put(static_cast<std::size_t>(r), row);
  }
  if (sorted_by_ >= 0) sort_again();
  if (const int least = least_width(*this); least != least_) {
    least_ = least;
    updateGeometry();
  }
  if (count == 0) return;
  hold(std::min(wanted_.value_or(0), rows - 1));
}

std::optional<std::size_t> ListTable::row_of(int shown) const {
  const QTableWidgetItem* first = shown >= 0 ? item(shown, 0) : nullptr;
  if (!first || !first->data(row_role).isValid()) return std::nullopt;
  return static_cast<std::size_t>(first->data(row_role).toInt());
}

std::optional<std::size_t> ListTable::held() const {
  return row_of(currentRow());
}

void ListTable::hold(std::size_t row) {
  for (int r = 0; r < rowCount(); ++r)
    if (row_of(r) == row) return setCurrentCell(r, 0);
}

void ListTable::stretch(int column) {
  horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  horizontalHeader()->setSectionResizeMode(column, QHeaderView::Stretch);
}

// ---- sorted, copied, saved

void ListTable::sort_by(int column) {
  if (sorted_by_ != column)
    sorted_by_ = column, downwards_ = false;
  else if (!downwards_)
    downwards_ = true;
  else
    sorted_by_ = -1;
  horizontalHeader()->setSortIndicatorShown(sorted_by_ >= 0);
  const auto kept = held();
  const QSignalBlocker quiet(this);
  sort_again();
  if (kept) hold(*kept);
}

void ListTable::sort_again() {
  if (sorted_by_ >= 0) {
    horizontalHeader()->setSortIndicator(sorted_by_, downwards_ ? Qt::DescendingOrder : Qt::AscendingOrder);
    return sortItems(sorted_by_, downwards_ ? Qt::DescendingOrder : Qt::AscendingOrder);
  }
  // Back as they came.
  std::vector<std::vector<QTableWidgetItem*>> rows(static_cast<std::size_t>(rowCount()));
  for (int r = 0; r < rowCount(); ++r) {
    auto& cells = rows[row_of(r).value_or(static_cast<std::size_t>(r))];
    for (int c = 0; c < columnCount(); ++c)
      cells.push_back(takeItem(r, c));
  }
  for (int r = 0; r < rowCount(); ++r)
    for (int c = 0; c < columnCount(); ++c)
      if (QTableWidgetItem* cell = rows[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)]) setItem(r, c, cell);
}

QString ListTable::text(QChar between) const {
  QStringList lines;
  QStringList cells;
  for (int c = 0; c < columnCount(); ++c)
    cells << cell_of(horizontalHeaderItem(c)->text(), between);
  lines << cells.join(between);
  for (int r = 0; r < rowCount(); ++r) {
    cells.clear();
    for (int c = 0; c < columnCount(); ++c)
      cells << cell_of(item(r, c) ? item(r, c)->text() : QString(), between);
    lines << cells.join(between);
  }
  return lines.join('\n') + '\n';
}

void ListTable::keyPressEvent(QKeyEvent* event) {
  if (event->matches(QKeySequence::Copy) && currentRow() >= 0) {
    QStringList cells;
    for (int c = 0; c < columnCount(); ++c)
      cells << (item(currentRow(), c) ? item(currentRow(), c)->text() : QString());
    return QApplication::clipboard()->setText(cells.join('\t'));
  }
  QTableWidget::keyPressEvent(event);
}

void ListTable::contextMenuEvent(QContextMenuEvent* event) {
  open_menu(event->reason() == QContextMenuEvent::Keyboard ? mapToGlobal(rect().center()) : event->globalPos());
}

void ListTable::open_menu(const QPoint& at) {
  auto* menu = new QMenu(this);
  menu->setAttribute(Qt::WA_DeleteOnClose);
  menu->setObjectName("table_menu");
  menu->addAction(tr("Copy the table"), this, [this] { QApplication::clipboard()->setText(text('\t')); });
  menu->addAction(tr("Save it as CSV …"), this, [this] { emit wants_file(text(',')); });
  menu->addSeparator();
  for (int c = 0; c < columnCount(); ++c)
    menu->addAction(tr("Sort by %1").arg(horizontalHeaderItem(c)->text()), this, [this, c] { sort_by(c); });
  menu->popup(at);
}

QSize ListTable::minimumSizeHint() const {
  return {least_, QTableWidget::minimumSizeHint().height()};
}

} // namespace mavrel::app
