// Two variants side by side: what was chosen differently, and what that does to windows, comfort and pressures.
#pragma once

#include "app/kit/stage_page.h"
#include "assess/assess.h"
#include "assess/compare/compare.h"

#include <array>

class QComboBox;

namespace mavrel::app {

class ComparePage : public StagePage {
  Q_OBJECT
public:
  explicit ComparePage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool wants_posts() const override { return false; }

protected:
  void fill() override;

private:
  class Canvas;

  void show_nothing();
  void fill_lists(const std::array<QString, 2>& names);

  QLabel *about_, *differ_;
  ListTable *choices_, *stops_;
  QComboBox *first_, *second_;
  Canvas* canvas_;
  std::size_t a_ = 0, b_ = 1;
  std::optional<assess::Comparison> comparison_; // that is shown
  std::array<assess::Assessor, 2> assessors_;    // keep what each side was last worked out from
};

} // namespace mavrel::app
