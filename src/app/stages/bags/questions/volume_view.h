// A volume beside the bag: stiffness and loss angle over frequency, what bounce and hop make of it, and the bore that
// suits.
#pragma once

#include "assess/bags/softening.h"

#include <QWidget>

#include <vector>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class Chart;
class Field;

class VolumeView : public QWidget {
  Q_OBJECT
public:
  explicit VolumeView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  void refresh();
  void draw();
  void use_fitting_bore();

  Desk& desk_;
  Chart* chart_;
  std::vector<Field*> fields_;
  QComboBox* line_;
  QLabel* figures_;
  QPushButton* use_bore_;
};

} // namespace mavrel::app
