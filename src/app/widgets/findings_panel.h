// What stops it: the findings, worst first. A click or Enter goes to the place.
#pragma once

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
  void refresh();

private:
  Desk& desk_;
};

class FindingsPanel : public QWidget {
  Q_OBJECT
public:
  explicit FindingsPanel(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QListView* list() const { return list_; }
  [[nodiscard]] bool is_folded() const { return folded_; }
  void set_folded(bool folded);

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
  bool folded_ = false;
};

} // namespace mavrel::app
