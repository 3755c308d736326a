// The logbook of the car: a line a thing that was read, done or happened, and one more written below.
#pragma once

#include "app/kit/page.h"
#include "build/care.h"

class QComboBox;
class QLineEdit;

namespace mavrel::app {

/// What a new line of the log is typed into; nothing of it is in the build before it is written.
class LogEntryBox : public QWidget {
  Q_OBJECT
public:
  LogEntryBox(Desk& desk, QWidget* parent);
  void refresh();

private:
  void show_kinds();
  void write();
  [[nodiscard]] build::LogKind kind() const;

  Desk& desk_;
  QComboBox *kind_, *what_, *where_;
  QLineEdit *day_, *text_, *by_;
  struct Number {
    const char* field; // `odometer_m`
    QLabel* caption;
    QLineEdit* edit;
  };
  std::vector<Number> numbers_;
  QPushButton* write_;
};

class LogPage : public Page {
  Q_OBJECT
public:
  explicit LogPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  /// Takes the entries of a table in: those that are there already are passed over.
  void read_table(const QString& file);

protected:
  void fill() override;

private:
  void remove();

  QLabel* summary_;
  ListTable* list_;
  LogEntryBox* entry_;
  QPushButton *remove_, *save_;
  std::vector<std::size_t> shown_; // places in the log, as the rows stand
};

} // namespace mavrel::app
