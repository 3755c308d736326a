// The stages in working order and the state of each. A stage that is not built yet is not here.
#pragma once

#include <QWidget>

#include <vector>

class QToolButton;

namespace mavrel::app {

class Desk;

class StageRail : public QWidget {
  Q_OBJECT
public:
  explicit StageRail(Desk& desk, QWidget* parent = nullptr);
  void set_current(const QString& key);

signals:
  void chosen(const QString& key);

private:
  void refresh();
  Desk& desk_;
  std::vector<QToolButton*> buttons_;
};

} // namespace mavrel::app
