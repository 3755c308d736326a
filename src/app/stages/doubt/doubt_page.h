// How sure: each answer with its doubt, what of the readings carries it, and what to measure again.
#pragma once

#include "app/kit/row_panel.h"
#include "app/kit/stage_page.h"
#include "assess/doubt/doubt.h"

class QCheckBox;
class QComboBox;

namespace mavrel::app {

/// What each tool is good for, in one place.
class ToolsPanel : public RowPanel {
  Q_OBJECT
public:
  ToolsPanel(Desk& desk, QWidget* parent);

private:
  [[nodiscard]] QString shape() const override { return "tools"; }
  void build_rows() override;
};

class DoubtPage : public StagePage {
  Q_OBJECT
public:
  explicit DoubtPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool owns(const QString& path) const override;

protected:
  void fill() override;

private:
  void say_summary();
  void fill_answers();
  void fill_carried();
  void go_to_reading();
  void walk();
  void look_at(std::size_t row);
  [[nodiscard]] std::pair<QString, QColor> stands(const assess::DoubtAnswer& answer) const;
  [[nodiscard]] const assess::DoubtInput* held_reading() const;
  void show_tools();
  void take_with(int index);

  QLabel *summary_, *trouble_, *again_;
  ListTable *answers_, *carried_;
  QComboBox* tool_;
  QPushButton *go_, *walk_;
  QCheckBox* bands_;
  std::string held_;               // name of the answer that is looked at
  std::vector<std::size_t> shown_; // answers of the rows that stand
  std::vector<std::size_t> read_;  // inputs of the rows that stand
};

} // namespace mavrel::app
