// The kit part by part, how it is worked, and what it is bought by.
#pragma once

#include "app/kit/end_panel.h"
#include "app/stages/air/questions.h"

class QLabel;

namespace mavrel::app {

class ChoiceBox;
class PathTable;

class KitPage : public QWidget {
  Q_OBJECT
public:
  explicit KitPage(Desk& desk, QWidget* parent = nullptr);
  void reserve_right(int px);
  bool go_to(const QString& path);
  [[nodiscard]] const std::optional<assess::KitFigures>& figures() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  void ask();
  void refresh();
  [[nodiscard]] QString figures_text() const;

  Desk& desk_;
  LongAnswer<FiguresQuestion> answer_;
  std::vector<std::pair<assess::KitRole, QLabel*>> about_; // what a part is like, beside its box
  std::vector<QLabel*> captions_;
  QLabel *figures_, *caution_;
  PathTable* day_;
  QWidget* beside_;
};

/// A box of the shelf's parts for a role; its field is that of the active variant's kit.
[[nodiscard]] ChoiceBox* part_box(Desk& desk, assess::KitRole role, QWidget* parent);

} // namespace mavrel::app
