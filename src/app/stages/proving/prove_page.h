// The proof of the whole car: each check with how it is done, what must be true before, what was predicted and what was
// measured on one scale, what a difference points to, and who signed it.
#pragma once

#include "app/checks/check_page.h"

namespace mavrel::app {

class LiveBox;
class ReadingsBox;

class ProvePage : public CheckPage {
  Q_OBJECT
public:
  explicit ProvePage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] LiveBox* live() const { return live_; }
  [[nodiscard]] ReadingsBox* readings() const { return readings_; }

protected:
  [[nodiscard]] QString summary(const Points& points) const override;
  void sign() override;
  void fill_more(const assess::HoldPoint* point) override;

private:
  QLabel* points_;
  ReadingsBox* readings_;
  LiveBox* live_;
};

} // namespace mavrel::app
