// Which kits would do: what is wished for, and every kit of the shelf against it, each with why it lost.
#pragma once

#include "app/kit/page.h"
#include "app/stages/air/questions.h"

namespace mavrel::app {

class RunRow;

class SizingPage : public Page {
  Q_OBJECT
public:
  explicit SizingPage(Desk& desk, QWidget* parent = nullptr);
  void search() { answer_.ask(); }
  [[nodiscard]] const assess::Sizing* sizing() const { return answer_.value(); }
  /// Keeps the design and goes on in a new variant with this choice's kit.
  void take(std::size_t choice);

protected:
  void fill() override;

private:
  [[nodiscard]] QString said(const assess::Sizing& sizing) const;

  Asked<SizingQuestion> answer_;
  RunRow* run_;
  ListTable* table_;
  QPushButton* take_;
  QLabel* added_;
  std::shared_ptr<const void> filled_; // which answer stands in the table
};

} // namespace mavrel::app
