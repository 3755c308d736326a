// What the person must be told or asked before going on, in rows under the strip. Offers stay until they are answered;
// what is merely said gives way to the next.
#pragma once

#include <QWidget>

#include <functional>

class QVBoxLayout;

namespace mavrel::app {

class Desk;

struct Notice {
  QString text;
  QString action; // the button that answers it
  std::function<void()> act;
  QString other; // a second button; empty: none
  std::function<void()> otherwise;
  bool stays = false; // an offer: nothing else takes its place
};

class NoticeBar : public QWidget {
  Q_OBJECT
public:
  explicit NoticeBar(QWidget* parent = nullptr);
  /// Shows it above the others; of those that do not stay, only the latest is shown.
  void show_notice(Notice notice);
  /// Takes away what was merely said.
  void forget_said();

signals:
  void resized_itself(); // rows came or went

private:
  void drop(QWidget* row);

  QVBoxLayout* rows_;
  QWidget* said_ = nullptr; // the one that does not stay
};

} // namespace mavrel::app
