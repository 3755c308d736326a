// Whose car, which job, what body, and the air it stands in.
#pragma once

#include <QWidget>

class QComboBox;

namespace mavrel::app {

class Desk;

class JobPanel : public QWidget {
  Q_OBJECT
public:
  explicit JobPanel(Desk& desk, QWidget* parent = nullptr);

private:
  Desk& desk_;
};

} // namespace mavrel::app
