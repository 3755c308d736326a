// Bags: the shelf judged on this end, and the height sheet of the chosen one.
#pragma once

#include "app/stages/stage.h"

class QLabel;

namespace mavrel::app {

class BagTable;
class Chips;
class Desk;
class Field;
class HeightSheet;

class BagsStage : public StagePage {
  Q_OBJECT
public:
  explicit BagsStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;

private:
  void refresh();

  Desk& desk_;
  QLabel *title_, *about_, *sheet_title_, *sheet_about_;
  Chips* ends_;
  BagTable* table_;
  HeightSheet* sheet_;
  QWidget* beside_; // where the posts stand
  std::vector<Field*> fit_fields_;
};

} // namespace mavrel::app
