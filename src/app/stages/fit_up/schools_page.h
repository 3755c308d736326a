// Schools: what builders disagree on and this design decides, a card each, both ways worked out on this car.
#pragma once

#include "app/kit/page.h"
#include "app/stages/fit_up/questions.h"

namespace mavrel::app {

class SchoolsPage : public Page {
  Q_OBJECT
public:
  explicit SchoolsPage(Desk& desk, QWidget* parent = nullptr);
  /// The cards that are shown; none while they are worked out.
  [[nodiscard]] const assess::Schools* schools() { return answer_.last(); }

protected:
  void fill() override;

private:
  void build_cards(const assess::Schools& schools);
  [[nodiscard]] QWidget* make_card(const assess::SchoolCard& card);
  [[nodiscard]] QString shown(const assess::CostRow& what, const std::optional<double>& cost) const;
  void take(const std::string& key, std::size_t way);

  Asked<SchoolsQuestion> answer_;
  QLabel* summary_;
  QWidget *cards_, *page_ = nullptr;
};

} // namespace mavrel::app
