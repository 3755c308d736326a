// The complete window of an end: every limit in it, and why it goes no further: remedies tried on a copy of the build,
// what each buys until the next limit governs, and what it costs elsewhere.
#pragma once

#include "app/stages/clearance/questions.h"

#include <QWidget>

class QCheckBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class Chips;
class Desk;

class WindowsPage : public QWidget {
  Q_OBJECT
public:
  explicit WindowsPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  void ask_why(assess::WhichWindow window, assess::WhichEdge edge);
  [[nodiscard]] const std::optional<assess::Why>& answer() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void refresh();
  void refresh_limits();
  void refresh_remedies();
  void take_over();
  /// Sets the first preset of a use to a height at this end, in the words it is wished in.
  void set_preset(build::PresetUse use, double H);
  /// Heights worth proposing for a preset of this use at this end; none: none known.
  [[nodiscard]] std::optional<double> proposed(build::PresetUse use) const;

  Desk& desk_;
  assess::WhichWindow window_ = assess::WhichWindow::reach;
  assess::WhichEdge edge_ = assess::WhichEdge::low;
  LongAnswer<WhyQuestion> why_;
  Chips *edges_, *windows_;
  QCheckBox* sure_;
  QLabel *about_, *no_help_, *limits_about_;
  QTableWidget *remedies_, *limits_;
  QPushButton *take_, *park_, *ramp_;
  QWidget* beside_;
};

} // namespace mavrel::app
