// The row over what takes long: a button that starts it, and stops it while it runs, how far it is, and a sentence.
#pragma once

#include "app/kit/page.h"

class QProgressBar;

namespace mavrel::app {

/// Belongs to the page whose question it starts.
class RunRow : public QWidget {
  Q_OBJECT
public:
  /// @param name   of the button. @param start  what is on it while nothing runs
  RunRow(Desk& desk, AskedAnything& asked, const char* name, QString start, QWidget* parent);
  /// What is to be done before it is asked; it is asked only where that says yes.
  void set_before(std::function<bool()> before) { before_ = std::move(before); }
  /// As it stands now. @param words  what is said of it: of the answer, or what it would do.
  /// @param running  what is said while it runs
  void show_words(const QString& words, const QString& running);
  /// More of the page's, behind it.
  [[nodiscard]] QHBoxLayout* row() const { return row_; }
  [[nodiscard]] QString text() const;
  void press();

private:
  Desk& desk_;
  AskedAnything& asked_;
  QString start_;
  std::function<bool()> before_;
  QHBoxLayout* row_;
  QPushButton* button_;
  QProgressBar* bar_;
  QLabel* words_;
};

} // namespace mavrel::app
