#include "app/stages/bags/shelf/card_cells.h"

#include "app/desk/desk.h"
#include "quantity/quantity.h"
#include "shelf/card_check.h"

#include <QHeaderView>

#include <algorithm>

namespace mavrel::app {

CardCells::CardCells(Desk& desk, QWidget* parent) : QTableWidget(parent), desk_(desk) {
  setObjectName("card_cells");
  setAccessibleName(tr("The card's figures"));
  verticalHeader()->hide();
  setTabKeyNavigation(true);
  setSelectionMode(QAbstractItemView::SingleSelection);
  connect(this, &QTableWidget::cellChanged, this, &CardCells::cell_edited);
}

void CardCells::show_card(const std::optional<air::BagCard>& card_shown) {
  const QSignalBlocker quiet(this);
  const Look& look = desk_.look();
  card_ = card_shown;
  clear();
  setFont(look.font(TextSize::normal));
  horizontalHeader()->setFont(look.font(TextSize::small));
  verticalHeader()->setDefaultSectionSize(look.px(22));
  if (!card_) {
    setRowCount(0);
    return;
  }
  const UnitPrefs& prefs = desk_.prefs();
  const air::BagCard& card = *card_;
  const auto unit = [&](Kind kind) { return QString::fromStdString(unit_name(kind, prefs)); };
  QStringList names = {tr("height\n%1").arg(unit(Kind::length)), tr("volume\n%1").arg(unit(Kind::volume))};
  for (const double p : card.pressures)
    names << tr("%1\nat %2").arg(unit(Kind::force), desk_.shown(p, Kind::pressure, -2));
  if (!card.diameters.empty()) names << tr("diameter\n%1").arg(unit(Kind::length));
  setColumnCount(static_cast<int>(names.size()));
  setHorizontalHeaderLabels(names);
  setRowCount(static_cast<int>(card.heights.size()));
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  const auto suspects = shelf::suspect_cells(card);
  const Tokens& t = look.tokens();
  for (std::size_t i = 0; i < card.heights.size(); ++i) {
    int column = 0;
    const auto put_cell = [&](double value, Kind kind, int decimals, bool suspect) {
      auto* item = new QTableWidgetItem(QString::fromStdString(show_parts(value, kind, prefs, decimals).number) +
                                        (suspect ? "  △" : ""));
      item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      if (suspect) {
        item->setForeground(t.stop);
        item->setFont(look.font(TextSize::normal, true));
        item->setToolTip(tr("This figure does not go with those around it."));
      }
      setItem(static_cast<int>(i), column++, item);
    };
    const auto doubted = [&](std::optional<std::size_t> load) {
      return std::find(suspects.begin(), suspects.end(), shelf::SuspectCell{i, load}) != suspects.end();
    };
    put_cell(card.heights[i], Kind::length, prefs.length == LengthUnit::mm ? 1 : 2, false);
    put_cell(card.volumes[i], Kind::volume, 3, doubted(std::nullopt));
    for (std::size_t j = 0; j < card.loads.size(); ++j)
      put_cell(card.loads[j][i], Kind::force, 0, doubted(j));
    if (!card.diameters.empty())
      put_cell(card.diameters[i], Kind::length, prefs.length == LengthUnit::mm ? 1 : 2, false);
  }
}

void CardCells::cell_edited(int row, int column) {
  if (!card_) return;
  air::BagCard card = *card_;
  const auto r = static_cast<std::size_t>(row), c = static_cast<std::size_t>(column);
  if (r >= card.heights.size()) return;
  Kind kind = Kind::force;
  double* to = nullptr;
  if (c == 0)
    kind = Kind::length, to = &card.heights[r];
  else if (c == 1)
    kind = Kind::volume, to = &card.volumes[r];
  else if (c - 2 < card.loads.size())
    to = &card.loads[c - 2][r];
  else
    kind = Kind::length, to = &card.diameters[r];
  const auto value = parse_quantity(item(row, column)->text().remove("△").trimmed().toStdString(), kind, desk_.prefs());
  if (!value || !(*value > 0)) {
    desk_.tell(value ? tr("A figure of a card is above 0.") : desk_.words_of(value.error()));
    return show_card(card_); // the last good value stands
  }
  *to = *value;
  emit edited(card);
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
