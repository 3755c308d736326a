// The complete window of an end: every limit in it, and why it goes no further: remedies tried on a copy of the build,
// what each buys until the next limit governs, and what it costs elsewhere.
#pragma once

#include "app/kit/page.h"
#include "app/stages/clearance/questions.h"

class QCheckBox;

namespace mavrel::app {

class Chips;

class WindowsPage : public Page {
  Q_OBJECT
public:
  explicit WindowsPage(Desk& desk, QWidget* parent = nullptr);
  void ask_why(assess::WhichWindow window, assess::WhichEdge edge);
  [[nodiscard]] const assess::Why* answer() const { return why_.value(); }

protected:
  void fill() override;

private:
  [[nodiscard]] QString about() const;
  [[nodiscard]] QString no_help() const;
  void fill_limits();
  void fill_remedies();
  void take_over();
  QPushButton* proposer(QBoxLayout* row, const char* name, build::PresetUse use);
  void offer(QPushButton* button, build::PresetUse use, const QString& text);
  [[nodiscard]] std::optional<double> proposed(build::PresetUse use) const;

  assess::WhichWindow window_ = assess::WhichWindow::reach;
  assess::WhichEdge edge_ = assess::WhichEdge::low;
  Asked<WhyQuestion> why_;
  Chips *edges_, *windows_;
  QCheckBox* sure_;
  QLabel *about_, *no_help_;
  ListTable *remedies_, *limits_;
  QPushButton *take_, *park_, *ramp_;
};

} // namespace mavrel::app
