// The one thing that brings this car forward most, always in the same place: what, why, done or gone to by one key.
#pragma once

#include "assess/next/next.h"

#include <QWidget>

#include <optional>

class QPushButton;

namespace mavrel::app {

class Desk;
class PlainLabel;

class NextLine : public QWidget {
  Q_OBJECT
public:
  explicit NextLine(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] const std::optional<assess::NextStep>& step() const { return step_; }
  /// Does the step, or goes where it is done.
  void take();
  /// Puts the step off: the one after it comes.
  void put_off();
  /// What was put off comes again.
  void take_up();

protected:
  void resizeEvent(QResizeEvent* event) override;

private:
  void refresh();
  void arrange();

  Desk& desk_;
  PlainLabel *caption_, *why_;
  QPushButton *what_, *later_;
  std::optional<assess::NextStep> step_;
};

} // namespace mavrel::app
