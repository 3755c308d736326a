// How often each fault is: what is usual, what this shop says, and what it has counted.
#pragma once

#include "app/kit/page.h"

class QLineEdit;

namespace mavrel::assess {
struct FaultCause;
}

namespace mavrel::app {

class OddsPage : public Page {
  Q_OBJECT
public:
  explicit OddsPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString&) override { return true; }

protected:
  void fill() override;

private:
  void set();
  /// Takes what is typed for a fault. @returns what is wrong with it
  std::optional<QString> take(const assess::FaultCause* cause);
  void say_cause();
  [[nodiscard]] const assess::FaultCause* held() const;

  QLabel* words_;
  ListTable* list_;
  QLineEdit* often_;
  QPushButton *set_, *usual_, *forget_;
  const assess::FaultCause* typed_for_ = nullptr; // the fault that was held when typing began
};

} // namespace mavrel::app
