// A bag card's figures as a table to type in: units understood, suspect cells marked, a wrong figure refused with the
// last good one standing.
#pragma once

#include "air/bag_card.h"

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
  void cell_edited(int row, int column);

  Desk& desk_;
  std::optional<air::BagCard> card_;
};

} // namespace mavrel::app
