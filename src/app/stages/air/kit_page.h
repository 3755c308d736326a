// The kit part by part, how it is worked, and what it is bought by.
#pragma once

#include "app/kit/page.h"
#include "app/stages/air/questions.h"

class QLayout;

namespace mavrel::app {

class ChoiceBox;
class PathTable;

class KitPage : public Page {
  Q_OBJECT
public:
  explicit KitPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  /// What the kit does; nullptr while it is worked out.
  [[nodiscard]] const assess::KitFigures* figures() const;

protected:
  void fill() override;

private:
  QLayout* make_parts();
  QLayout* make_ways(QWidget* side);
  [[nodiscard]] QString figures_text() const;
  [[nodiscard]] QStringList about(assess::KitRole role, const shelf::Part& part) const;

  std::vector<std::pair<assess::KitRole, QLabel*>> about_; // what a part is like, beside its box
  QLabel* figures_;
  PathTable* day_;
};

/// A box of the shelf's parts for a role; its field is that of the active variant's kit.
[[nodiscard]] ChoiceBox* part_box(Desk& desk, assess::KitRole role, QWidget* parent);

} // namespace mavrel::app
