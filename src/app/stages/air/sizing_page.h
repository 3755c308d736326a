// Which kits would do: what is wished for, and every kit of the shelf against it, each with why it lost.
#pragma once

#include "app/stages/air/questions.h"

#include <QWidget>

class QLabel;
class QProgressBar;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class SizingPage : public QWidget {
  Q_OBJECT
public:
  explicit SizingPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  bool go_to(const QString& path);
  void search();
  [[nodiscard]] const assess::Sizing* sizing() const;
  /// Keeps the design and goes on in a new variant with this choice's kit.
  void take(int row);

private:
  [[nodiscard]] assess::SizingGiven given() const;
  void refresh();

  Desk& desk_;
  LongAnswer<SizingQuestion> answer_;
  assess::SizingGiven asked_;
  QPushButton *find_, *take_;
  QProgressBar* progress_;
  QLabel* about_;
  QTableWidget* table_;
  QWidget* beside_;
};

} // namespace mavrel::app
