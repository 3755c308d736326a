// Places: where the kit lies, each judged by room, drain, heat, shake, sound, service and radio.
#pragma once

#include "app/kit/page.h"
#include "app/stages/fit_up/ways_view.h"

namespace mavrel::app {

class ChoiceBox;

class PlacesPage : public Page {
  Q_OBJECT
public:
  explicit PlacesPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] WaysView* view() const { return view_; }
  void show_place(const QString& field);

protected:
  void fill() override;

private:
  void make_fields();

  WaysView* view_;
  ListTable* list_;
  QLabel* said_;
  std::vector<std::pair<Field*, const char*>> fields_; // of the place, with the last step of their path
  std::vector<std::pair<ChoiceBox*, const char*>> choices_;
  QString held_;
};

} // namespace mavrel::app
