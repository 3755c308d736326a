// What is near the wheel and the bag: each with its gap at the pose, and under the list the one that is held, with
// everything that says where it lies.
#pragma once

#include "app/kit/end_panel.h"

#include <optional>
#include <vector>

class QComboBox;
class QLabel;
class QTableWidget;

namespace mavrel::app {

class Field;
class Steer;

class ObstaclesPanel : public EndPanel {
  Q_OBJECT
public:
  ObstaclesPanel(Desk& desk, Steer& steer, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  void hold(std::optional<std::size_t> obstacle);
  [[nodiscard]] std::optional<std::size_t> held() const { return held_; }

signals:
  void chose(std::optional<std::size_t> obstacle);

private:
  void refresh();
  void refresh_gaps();
  void show_held();

  Steer& steer_;
  std::optional<std::size_t> held_;
  QTableWidget* list_;
  QLabel* about_;
  QWidget* form_;
  std::vector<std::pair<QComboBox*, const char*>> choices_;
  struct Bound {
    Field* field;
    const char* key;
    unsigned shapes; // a bit for each shape it belongs to
  };
  std::vector<Bound> fields_;
  std::vector<QWidget*> order_; // fields and choices, as they stand in the form
};

} // namespace mavrel::app
