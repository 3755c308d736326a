// Every bag on the shelf judged on this end: its windows drawn, its figures, whether it fits and why not. A click holds
// a row, Enter or a double click chooses its bag; the headings sort.
#pragma once

#include "app/desk/desk.h"
#include "assess/bags/judge.h"

#include <QAbstractTableModel>
#include <QTableView>

namespace mavrel::app {

class BagModel : public QAbstractTableModel {
  Q_OBJECT
public:
  enum Column { name, kind, window, frequency, pressure, diameter, verdict, column_count };

  explicit BagModel(Desk& desk, QObject* parent = nullptr);

  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
  [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  [[nodiscard]] int row_of(const std::string& bag) const;
  /// The bag of a row as it was last refreshed. @param row  of the model
  [[nodiscard]] const assess::BagVerdict& judged(int row) const { return verdicts_[static_cast<std::size_t>(row)]; }
  /// @param stay  rows stay where they are, whatever their figures have become
  void refresh(bool stay = false);
  void set_order(assess::BagOrder order);

private:
  Desk& desk_;
  assess::BagOrder order_ = assess::BagOrder::best;
  std::pair<std::pair<double, double>, UnitPrefs> heads_; // what the headings say
  bool at_road_ = true; // figures are of road height; else of where it stands now, none being wished for
  std::vector<assess::BagVerdict> verdicts_; // what the rows show, changed only while the model resets
};

class BagTable : public QTableView {
  Q_OBJECT
public:
  explicit BagTable(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] const BagModel& bags() const { return *model_; }

protected:
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void leaveEvent(QEvent* event) override;

private:
  void choose(const QModelIndex& index);
  void refresh();
  void fit_columns();

  Desk& desk_;
  BagModel* model_;
  std::pair<End, std::string> chosen_; // what was chosen when it was filled last
};

} // namespace mavrel::app
