// Places: where the kit lies, each judged by room, drain, heat, shake, sound, service and radio.
#pragma once

#include "app/stages/fit_up/fit_up_page.h"
#include "app/stages/fit_up/ways_view.h"

class QLabel;
class QTableWidget;

namespace mavrel::app {

class ChoiceBox;
class Field;

class PlacesPage : public FitUpPage {
  Q_OBJECT
public:
  PlacesPage(Desk& desk, FitUpAnswers& answers, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] WaysView* view() const { return view_; }
  void show_place(const QString& field);

protected:
  void fill() override;

private:
  WaysView* view_;
  QTableWidget* list_;
  QLabel* said_;
  std::vector<std::pair<Field*, const char*>> fields_; // of the place, with the last step of their path
  std::vector<std::pair<ChoiceBox*, const char*>> choices_;
  QString held_;
};

} // namespace mavrel::app
