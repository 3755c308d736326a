#include "app/stages/bags/shelf/card_cells.h"

#include "app/desk/desk.h"
#include "app/kit/cell_editing.h"
#include "quantity/quantity.h"
#include "shelf/card_check.h"

#include <QHeaderView>

#include <algorithm>

namespace mavrel::app {

namespace {

QString key_of(int row, int column) {
  return QString("%1/%2").arg(row).arg(column);
}
std::pair<int, int> place_of(const QString& key) {
  return {key.section('/', 0, 0).toInt(), key.section('/', 1, 1).toInt()};
}

} // namespace

CardCells::CardCells(Desk& desk, QWidget* parent) : QTableWidget(parent), desk_(desk) {
  setObjectName("card_cells");
  setAccessibleName(tr("The card's figures"));
  verticalHeader()->hide();
  edit_cells(desk, *this,
             {[this](const QModelIndex& at) { return card_ ? key_of(at.row(), at.column()) : QString(); },
              [this](const QString& key) {
                const auto [row, column] = place_of(key);
                const QTableWidgetItem* cell = item(row, column);
                return cell ? cell->text().remove("△").trimmed() : QString();
              },
              [this](const QString& key) {
                const auto [row, column] = place_of(key);
                return tr("%1, row %2").arg(horizontalHeaderItem(column)->text().replace('\n', ' ')).arg(row + 1);
              },
              [this](const QString& key, const QString& text) { return take(key, text); }});
}

int CardCells::decimals_of(Kind kind) const {
  return kind == Kind::volume ? 3 : kind == Kind::force ? 0 : desk_.prefs().length == LengthUnit::mm ? 1 : 2;
}

std::optional<std::pair<double*, Kind>> CardCells::figure(air::BagCard& card, int row, int column) const {
  const auto r = static_cast<std::size_t>(row), c = static_cast<std::size_t>(column);
  if (r >= card.heights.size()) return std::nullopt;
  if (c == 0) return std::pair{&card.heights[r], Kind::length};
  if (c == 1) return std::pair{&card.volumes[r], Kind::volume};
  if (c - 2 < card.loads.size()) return std::pair{&card.loads[c - 2][r], Kind::force};
  if (c - 2 == card.loads.size() && r < card.diameters.size()) return std::pair{&card.diameters[r], Kind::length};
  return std::nullopt;
}

void CardCells::show_card(const std::optional<air::BagCard>& card_shown) {
  const QSignalBlocker quiet(this);
  const Look& look = desk_.look();
  card_ = card_shown;
  setFont(look.font(TextSize::normal));
  horizontalHeader()->setFont(look.font(TextSize::small));
  verticalHeader()->setDefaultSectionSize(look.px(22));
  if (!card_) {
    setRowCount(0);
    return;
  }
  const UnitPrefs& prefs = desk_.prefs();
  air::BagCard& card = *card_;
  const auto unit = [&](Kind kind) { return QString::fromStdString(unit_name(kind, prefs)); };
  QStringList names = {tr("height\n%1").arg(unit(Kind::length)), tr("volume\n%1").arg(unit(Kind::volume))};
  for (const double p : card.pressures)
    names << tr("%1\nat %2").arg(unit(Kind::force), desk_.shown(p, Kind::pressure, -2));
  if (!card.diameters.empty()) names << tr("diameter\n%1").arg(unit(Kind::length));
  // Cells stay where they are, and the one that is held with them: a figure typed in one leads here.
  if (columnCount() != names.size()) setColumnCount(static_cast<int>(names.size()));
  setHorizontalHeaderLabels(names);
  if (rowCount() != static_cast<int>(card.heights.size())) setRowCount(static_cast<int>(card.heights.size()));
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  const auto suspects = shelf::suspect_cells(card);
  const Tokens& t = look.tokens();
  for (int row = 0; row < rowCount(); ++row)
    for (int column = 0; column < columnCount(); ++column) {
      const auto found = figure(card, row, column);
      if (!found) continue;
      QTableWidgetItem* cell = item(row, column);
      if (!cell) {
        cell = new QTableWidgetItem;
        cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        setItem(row, column, cell);
      }
      const auto r = static_cast<std::size_t>(row), c = static_cast<std::size_t>(column);
      const bool suspect = c > 0 && c - 1 <= card.loads.size() &&
                           shelf::is_suspect(suspects, r, c == 1 ? std::nullopt : std::optional(c - 2));
      const Kind kind = found->second;
      const QString text = QString::fromStdString(show_parts(*found->first, kind, prefs, decimals_of(kind)).number) +
                           (suspect ? "  △" : "");
      if (cell->text() != text) cell->setText(text);
      cell->setForeground(suspect ? t.stop : t.ink);
      cell->setFont(look.font(TextSize::normal, suspect));
      cell->setToolTip(suspect ? tr("This figure does not go with those around it.") : QString());
    }
}

std::optional<QString> CardCells::take(const QString& key, const QString& text) {
  const auto [row, column] = place_of(key);
  if (!card_) return tr("This card is not shown any more.");
  air::BagCard card = *card_;
  const auto found = figure(card, row, column);
  if (!found) return tr("The card has no such row any more.");
  const auto value = parse_quantity(QString(text).remove("△").trimmed().toStdString(), found->second, desk_.prefs());
  if (!value) return desk_.words_of(value.error());
  if (!(*value > 0)) return tr("A figure of a card is above 0.");
  *found->first = *value;
  emit edited(card);
  return std::nullopt;
}

void CardCells::add_row() {
  if (!card_) return;
  air::BagCard card = *card_;
  // Between the row held and the next one, half way; the last row is followed by one as far again.
  const std::size_t n = card.heights.size();
  const auto at = static_cast<std::size_t>(std::clamp(currentRow(), 0, static_cast<int>(n) - 1));
  const std::size_t low = at + 1 < n ? at : n - 2;
  const double t = at + 1 < n ? 0.5 : 2;
  const auto insert = [&](std::vector<double>& column) {
    column.insert(column.begin() + static_cast<std::ptrdiff_t>(at) + 1,
                  column[low] + t * (column[low + 1] - column[low]));
  };
  insert(card.heights);
  insert(card.volumes);
  for (auto& column : card.loads)
    insert(column);
  if (!card.diameters.empty()) insert(card.diameters);
  emit edited(card);
}

void CardCells::remove_row() {
  if (!card_ || currentRow() < 0) return;
  air::BagCard card = *card_;
  const auto at = static_cast<std::ptrdiff_t>(currentRow());
  if (card.heights.size() <= 3) {
    desk_.tell(tr("A card needs at least 3 rows."));
    return;
  }
  const auto erase = [&](std::vector<double>& column) { column.erase(column.begin() + at); };
  erase(card.heights);
  erase(card.volumes);
  for (auto& column : card.loads)
    erase(column);
  if (!card.diameters.empty()) erase(card.diameters);
  emit edited(card);
}

} // namespace mavrel::app
