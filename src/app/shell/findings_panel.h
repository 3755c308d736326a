// What stops it: the findings, worst first. A click or Enter goes to the place.
#pragma once

#include "assess/assessment.h"

#include <QAbstractListModel>
#include <QListView>
#include <QWidget>

class QLabel;
class QToolButton;

namespace mavrel::app {

class Desk;

class FindingsModel : public QAbstractListModel {
  Q_OBJECT
public:
  explicit FindingsModel(Desk& desk, QObject* parent = nullptr);
  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
  /// @param first  the stage whose findings stand before the others
  void refresh(const assess::StageRow* first);
  /// The finding of a row as it was last refreshed. @param row  of the model
  [[nodiscard]] const std::vector<assess::Finding>& findings() const { return findings_; }
  [[nodiscard]] const assess::Finding& finding(int row) const { return findings_[static_cast<std::size_t>(row)]; }

private:
  Desk& desk_;
  std::vector<assess::Finding> findings_; // what the rows show, changed only while the model resets
};

class FindingsPanel : public QWidget {
  Q_OBJECT
public:
  explicit FindingsPanel(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QListView* list() const { return list_; }
  [[nodiscard]] bool is_folded() const { return folded_; }
  /// Folds or unfolds it, and leaves it so whatever the window's width.
  void set_folded(bool folded);
  /// The stage that is shown: what is found at it stands first. @param stage  nullptr: nothing is found there
  void show_stage(const assess::StageRow* stage);
  /// Until somebody folds or unfolds it, a window too narrow for everything folds it.
  void fit_to(int window_width);

signals:
  void folded(bool folded);

private:
  void refresh();
  void go(const QModelIndex& index);

  Desk& desk_;
  FindingsModel* model_;
  QListView* list_;
  QLabel* title_;
  QToolButton* fold_;
  void show_folded(bool fold);

  const assess::StageRow* stage_ = nullptr;
  bool folded_ = false;
  bool chosen_ = false; // by the person
};

} // namespace mavrel::app
