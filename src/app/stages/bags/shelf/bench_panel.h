// A card from a bench test: readings of a bag on a press are typed in, the fit shows its error as they come and says
// which reading it would like next.
#pragma once

#include "air/bag_card.h"
#include "shelf/bench_test.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class CardDrawing;
class Desk;

class BenchPanel : public QWidget {
  Q_OBJECT
public:
  explicit BenchPanel(Desk& desk, QWidget* parent = nullptr);
  /// Takes every reading away, once the person agrees.
  void clear();
  [[nodiscard]] const shelf::BenchAnswer& answer() const { return answer_; }

signals:
  void made(const air::BagCard& card);
  void left();

private:
  void refresh();
  [[nodiscard]] std::vector<shelf::BenchReading> readings();
  [[nodiscard]] air::BagCard about();

  Desk& desk_;
  std::vector<QLineEdit*> keys_;
  QComboBox* kind_;
  QTableWidget* table_;
  QLabel* said_;
  CardDrawing* drawing_;
  QPushButton* make_;
  shelf::BenchAnswer answer_;
  bool heads_right_ = true; // all that is typed above the readings can be taken
  std::vector<int> rows_;   // the table's row of each reading
};

} // namespace mavrel::app
