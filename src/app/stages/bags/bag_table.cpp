#include "app/stages/bags/bag_table.h"

#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
#include "app/stages/bags/edits.h"
#include "app/theme/text_line.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <QStyledItemDelegate>

#include <cmath>
#include <utility>

namespace mavrel::app {

using assess::BagOrder;
using assess::BagVerdict;
using assess::Fit;
using build::at;

namespace {

QString number_of(const std::optional<double>& value, Kind kind, const UnitPrefs& prefs) {
  return value ? QString::fromStdString(show_parts(*value, kind, prefs).number) : QString("–");
}

const BagVerdict& verdict_of(const QModelIndex& index) {
  return static_cast<const BagModel*>(index.model())->judged(index.row());
}

/// A cell's text and nothing else: a shelf is judged and drawn again at every move of a flag, and the style's own
/// drawing of cells takes most of a frame.
class TextDelegate : public QStyledItemDelegate {
public:
  TextDelegate(Desk& desk, QObject* parent) : QStyledItemDelegate(parent), desk_(desk) {}

  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Tokens& t = desk_.look().tokens();
    if (option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selected);
    const QVariant ink = index.data(Qt::ForegroundRole), align = index.data(Qt::TextAlignmentRole);
    painter->setFont(index.data(Qt::FontRole).value<QFont>());
    painter->setPen(ink.isValid() ? ink.value<QColor>() : t.ink);
    const auto where = align.isValid() ? Qt::Alignment(align.toInt()) : Qt::AlignLeft | Qt::AlignVCenter;
    draw_line(*painter, option.rect.adjusted(4, 0, -4, 0), where, index.data().toString());
  }

private:
  Desk& desk_;
};

/// Draws the two windows of a bag on the shared height range, lying down to fit a row: low at the left.
class WindowDelegate : public QStyledItemDelegate {
public:
  WindowDelegate(Desk& desk, QObject* parent) : QStyledItemDelegate(parent), desk_(desk) {}

  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Tokens& t = desk_.look().tokens();
    if (option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selected);
    const BagVerdict& v = verdict_of(index);
    const auto [low, high] = desk_.height_range();
    const QRectF area = QRectF(option.rect).adjusted(8, 0, -8, 0);
    const auto x = [&, lo = low, hi = high](double H) {
      return std::clamp(area.left() + (H - lo) / (hi - lo) * area.width(), area.left(), area.right());
    };
    const double middle = area.center().y(), half = desk_.look().px(4);
    painter->setPen(QPen(t.rule, 1));
    painter->drawLine(QPointF(area.left(), middle), QPointF(area.right(), middle));
    const QColor colour = t.end(desk_.end());
    if (v.reach) {
      painter->setPen(QPen(colour, 1));
      painter->setBrush(t.panel);
      painter->drawRect(QRectF(x(v.reach->first), middle - half, x(v.reach->second) - x(v.reach->first), 2 * half));
    }
    if (v.road)
      painter->fillRect(QRectF(x(v.road->first), middle - half + 1, x(v.road->second) - x(v.road->first), 2 * half - 1),
                        colour);
    painter->setPen(QPen(t.ink, 1));
    for (const auto& preset : desk_.assessment().end(desk_.end()).presets)
      if (preset)
        painter->drawLine(QPointF(x(preset->height), middle - half - 3), QPointF(x(preset->height), middle + half + 3));
  }

private:
  Desk& desk_;
};

/// The verdict: a shape for its severity, then the gravest reason.
class VerdictDelegate : public QStyledItemDelegate {
public:
  VerdictDelegate(Desk& desk, QObject* parent) : QStyledItemDelegate(parent), desk_(desk) {}

  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Tokens& t = desk_.look().tokens();
    if (option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selected);
    const BagVerdict& v = verdict_of(index);
    const QColor colour = v.fit == Fit::fits ? t.good : v.fit == Fit::with_care ? t.caution : t.stop;
    const double s = desk_.look().px(8);
    const QRectF mark(option.rect.left() + 6, option.rect.center().y() - s / 2 + 1, s, s);
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    if (v.fit == Fit::does_not_fit)
      painter->fillRect(mark, colour);
    else if (v.fit == Fit::with_care) {
      painter->setPen(Qt::NoPen);
      painter->setBrush(colour);
      painter->drawPolygon(QPolygonF{{QPointF(mark.center().x(), mark.top()), mark.bottomRight(), mark.bottomLeft()}});
    } else {
      painter->setPen(QPen(colour, 2));
      painter->setBrush(Qt::NoBrush);
      painter->drawEllipse(mark.adjusted(1, 1, -1, -1));
    }
    painter->restore();
    painter->setPen(colour);
    painter->setFont(desk_.look().font(TextSize::small));
    const QRect text = option.rect.adjusted(static_cast<int>(s) + 12, 0, -4, 0);
    draw_line(*painter, text, Qt::AlignLeft | Qt::AlignVCenter, index.data().toString());
  }

private:
  Desk& desk_;
};

} // namespace

// ---- model

namespace {

/// On the active end, in the active load case.
const assess::JudgeQuestion::Answer& verdicts_of(const Desk& d) {
  return d.answers().at_once<assess::JudgeQuestion>(
      assess::judge_given(d.build(), d.shelf(), d.answered(d.end()).given(), d.load_case()));
}

} // namespace

BagModel::BagModel(Desk& desk, QObject* parent) : QAbstractTableModel(parent), desk_(desk) {}

int BagModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(verdicts_.size());
}
int BagModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : column_count;
}

void BagModel::refresh(bool stay) {
  std::vector<BagVerdict> now = verdicts_of(desk_);
  assess::sort_verdicts(now, order_);
  const bool at_road = now.empty() || now.front().road_height.has_value();
  const bool elsewhere = std::exchange(at_road_, at_road) != at_road;
  if (stay && now.size() == verdicts_.size())
    std::stable_sort(now.begin(), now.end(), [this](const BagVerdict& a, const BagVerdict& b) {
      return row_of(a.bag) < row_of(b.bag); // one that is new goes first
    });
  if (now.size() != verdicts_.size()) {
    beginResetModel();
    verdicts_ = std::move(now);
    endResetModel();
    return;
  }
  // The same rows with other figures, at every move of a flag.
  verdicts_ = std::move(now);
  if (!verdicts_.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, column_count - 1));
  const auto heads = std::pair(desk_.height_range(), desk_.prefs());
  if (heads == heads_ && !elsewhere) return;
  heads_ = heads;
  emit headerDataChanged(Qt::Horizontal, 0, column_count - 1);
}

void BagModel::set_order(assess::BagOrder order) {
  order_ = order;
  refresh();
}

int BagModel::row_of(const std::string& bag) const {
  for (std::size_t i = 0; i < verdicts_.size(); ++i)
    if (verdicts_[i].bag == bag) return static_cast<int>(i);
  return -1;
}

QVariant BagModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid() || index.row() >= rowCount()) return {};
  const BagVerdict& v = judged(index.row());
  const UnitPrefs& prefs = desk_.prefs();
  if (role == Qt::ToolTipRole) {
    QStringList lines;
    for (const Message& reason : v.reasons)
      lines << desk_.words_of(reason);
    if (v.beyond != air::Beyond::nothing) lines << tr("△ its road pressure is %1").arg(tr(air::beyond_name(v.beyond)));
    if (v.frequency && v.ride_frequency)
      lines << tr("%1 with the tyre, %2 without")
                   .arg(desk_.shown(*v.ride_frequency, Kind::frequency), desk_.shown(*v.frequency, Kind::frequency));
    return lines.isEmpty() ? tr("fits") : lines.join("\n");
  }
  if (role == Qt::TextAlignmentRole && index.column() >= frequency && index.column() <= diameter)
    return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
  if (role == Qt::FontRole) {
    const bool chosen = v.bag == desk_.build().variant().fit[at(desk_.end())].bag;
    return desk_.look().font(TextSize::normal, chosen && (index.column() == name));
  }
  if (role == Qt::ForegroundRole && index.column() == kind) return desk_.look().tokens().second;
  if (role != Qt::DisplayRole && role != Qt::AccessibleTextRole) return {};
  switch (index.column()) {
  case name: {
    const bool chosen = v.bag == desk_.build().variant().fit[at(desk_.end())].bag;
    return (chosen ? QString("● ") : QString()) + QString::fromStdString(v.bag);
  }
  case kind:
    return tr(air::bag_kind_name(v.kind));
  case window:
    if (role == Qt::DisplayRole) return {};
    return v.reach ? tr("reach %1 to %2")
                         .arg(desk_.shown(v.reach->first, Kind::length), desk_.shown(v.reach->second, Kind::length))
                   : tr("no window");
  case frequency:
    return number_of(v.ride_frequency, Kind::frequency, prefs);
  case pressure:
    return (v.beyond == air::Beyond::nothing ? QString() : QString("△ ")) +
           number_of(v.pressure, Kind::pressure, prefs);
  case diameter:
    return number_of(v.diameter, Kind::length, prefs);
  case verdict:
    return v.reasons.empty() ? tr("fits") : desk_.words_of(v.reasons.front());
  default:
    return {};
  }
}

QVariant BagModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal) return {};
  const UnitPrefs& prefs = desk_.prefs();
  const auto unit = [&](Kind measured) { return QString::fromStdString(unit_name(measured, prefs)); };
  if (role == Qt::TextAlignmentRole)
    return static_cast<int>((section >= frequency && section <= diameter ? Qt::AlignRight : Qt::AlignLeft) |
                            Qt::AlignVCenter);
  if (role == Qt::ToolTipRole) {
    if (section == window)
      return tr(
          "Sort by lowest reach. Outline: where it may stand. Filled: where it may be driven. Ticks: the presets.");
    if ((section == frequency || section == pressure) && !at_road_)
      return tr("At the height it stands at now: no road height is set yet. Click to sort by this.");
    if (section == frequency) return tr("At road height, with the tyre in series. Click to sort by this.");
    if (section == pressure) return tr("At road height, on the heavier side. Click to sort by this.");
    return tr("Click to sort by this.");
  }
  if (role == Qt::FontRole) return desk_.look().font(TextSize::small);
  if (role != Qt::DisplayRole) return {};
  const auto [low, high] = desk_.height_range();
  switch (section) {
  case name:
    return tr("bag");
  case kind:
    return tr("kind");
  case window:
    return tr("reach and road, %1 to %2").arg(number_of(low, Kind::length, prefs), desk_.shown(high, Kind::length));
  case frequency:
    return (at_road_ ? tr("ride %1") : tr("ride now %1")).arg(unit(Kind::frequency));
  case pressure:
    return (at_road_ ? tr("road %1") : tr("now %1")).arg(unit(Kind::pressure));
  case diameter:
    return tr("over all %1").arg(unit(Kind::length));
  case verdict:
    return tr("verdict, best first");
  default:
    return {};
  }
}

// ---- view

BagTable::BagTable(Desk& desk, QWidget* parent) : QTableView(parent), desk_(desk), model_(new BagModel(desk, this)) {
  setObjectName("bag_table");
  setAccessibleName(tr("Bags on the shelf"));
  setModel(model_);
  setItemDelegate(new TextDelegate(desk, this));
  setItemDelegateForColumn(BagModel::window, new WindowDelegate(desk, this));
  setItemDelegateForColumn(BagModel::verdict, new VerdictDelegate(desk, this));
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setShowGrid(false);
  setTabKeyNavigation(false);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  verticalHeader()->hide();
  horizontalHeader()->setSectionsClickable(true);
  horizontalHeader()->setHighlightSections(false);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
  horizontalHeader()->setMinimumSectionSize(20);
  connect(horizontalHeader(), &QHeaderView::sectionClicked, this, [this](int section) {
    static constexpr BagOrder orders[] = {BagOrder::name,     BagOrder::best,     BagOrder::lowest, BagOrder::frequency,
                                          BagOrder::pressure, BagOrder::diameter, BagOrder::best};
    const std::string held = currentIndex().isValid() ? model_->judged(currentIndex().row()).bag : std::string();
    model_->set_order(orders[section]);
    if (const int row = model_->row_of(held); row >= 0) selectRow(row);
  });
  connect(this, &QTableView::doubleClicked, this, &BagTable::choose);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &BagTable::refresh);
  refresh();
}

void BagTable::refresh() {
  if (!isVisibleTo(window()) && model_->rowCount() > 0) return; // judged again when shown
  const int row_height = desk_.look().px(23);
  verticalHeader()->setDefaultSectionSize(row_height);
  horizontalHeader()->setFixedHeight(desk_.look().px(22));
  const int held = currentIndex().isValid() ? currentIndex().row() : -1;
  const std::string held_bag = held >= 0 ? model_->judged(held).bag : std::string();
  model_->refresh(underMouse()); // nothing leaps away from under a hand
  fit_columns();
  // The row that a person looks at stays held by its bag, until another is chosen or another end is looked at.
  const auto chosen = std::pair(desk_.end(), desk_.build().variant().fit[at(desk_.end())].bag);
  const bool same = chosen == chosen_ && !held_bag.empty();
  chosen_ = chosen;
  const int row = model_->row_of(same ? held_bag : chosen.second);
  if (row >= 0 && same) {
    selectRow(row);
  } else if (row >= 0) {
    selectRow(row);
    scrollTo(model_->index(row, 0));
  } else {
    clearSelection();
  }
}

void BagTable::fit_columns() {
  const Look& look = desk_.look();
  const int widths[] = {look.px(112), look.px(102), 0, look.px(62), look.px(64), look.px(88), 0};
  int left = viewport()->width();
  for (const int w : widths)
    left -= w;
  const int window = std::max(look.px(80), static_cast<int>(left * 0.38));
  for (int i = 0; i < BagModel::column_count; ++i)
    setColumnWidth(i, widths[i] > 0           ? widths[i]
                      : i == BagModel::window ? window
                                              : std::max(look.px(80), left - window));
}

void BagTable::resizeEvent(QResizeEvent* event) {
  QTableView::resizeEvent(event);
  fit_columns();
}

void BagTable::leaveEvent(QEvent* event) {
  QTableView::leaveEvent(event);
  refresh();
}

void BagTable::showEvent(QShowEvent* event) {
  QTableView::showEvent(event);
  refresh(); // nothing was judged while nobody looked
}

void BagTable::choose(const QModelIndex& index) {
  if (index.isValid()) choose_bag(desk_, desk_.end(), model_->judged(index.row()).bag);
}

void BagTable::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
    choose(currentIndex());
  else
    QTableView::keyPressEvent(event);
}

} // namespace mavrel::app
