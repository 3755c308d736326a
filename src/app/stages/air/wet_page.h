// Where the water goes, by climate; and what leaks, by readings.
#pragma once

#include "app/stages/air/questions.h"
#include "assess/air/leaking.h"
#include "assess/air/wet.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Chart;

class WetPage : public QWidget {
  Q_OBJECT
public:
  explicit WetPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  bool go_to(const QString& path);
  /// Readings of a leak. Tells what is wrong with the file.
  void take_file(const QString& file);
  [[nodiscard]] QString leak_words() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  void open();
  void ask();
  void refresh();
  void refresh_leak();
  [[nodiscard]] std::size_t place() const;

  Desk& desk_;
  LongAnswer<FiguresQuestion> answer_; // for the air of a day
  std::vector<std::vector<air::LeakReading>> readings_ =
      std::vector<std::vector<air::LeakReading>>(assess::leak_places);    // by place
  std::vector<QString> from_ = std::vector<QString>(assess::leak_places); // the files they are of
  QTableWidget* table_;
  QLabel *water_, *leak_, *head_;
  QComboBox* place_;
  QPushButton* open_;
  Chart* chart_;
  QWidget* beside_;
};

} // namespace mavrel::app
