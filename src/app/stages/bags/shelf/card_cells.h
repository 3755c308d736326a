// A bag card's figures as a table to type in: units understood, suspect cells marked, a wrong figure refused and left
// to be put right.
#pragma once

#include "air/bag_card.h"
#include "quantity/quantity.h"

#include <QTableWidget>

#include <optional>

namespace mavrel::app {

class Desk;

class CardCells : public QTableWidget {
  Q_OBJECT
public:
  explicit CardCells(Desk& desk, QWidget* parent = nullptr);
  void show_card(const std::optional<air::BagCard>& card);
  /// A row half way to the next of the one held; behind the last, as far again.
  void add_row();
  void remove_row();

signals:
  void edited(const air::BagCard& card);

private:
  /// Reads or writes a figure of the card where it stands in the table. @returns none: there is none
  [[nodiscard]] std::optional<std::pair<double*, Kind>> figure(air::BagCard& card, int row, int column) const;
  [[nodiscard]] std::optional<QString> take(const QString& key, const QString& text);
  [[nodiscard]] int decimals_of(Kind kind) const;

  Desk& desk_;
  std::optional<air::BagCard> card_;
};

} // namespace mavrel::app
