// What Care's pages read: what is due today, and the trends.
#pragma once

#include "app/desk/air_use.h"
#include "app/desk/clock.h"
#include "assess/care/care_findings.h"
#include "assess/care/care_plan.h"

namespace mavrel::app {

struct CarePlanGiven {
  assess::Answered<assess::CareFindingsQuestion> care;
  std::optional<double> air_a_day;
  work::Day today = 0;
  friend bool operator==(const CarePlanGiven&, const CarePlanGiven&) = default;
};
struct CarePlanQuestion {
  using Given = CarePlanGiven;
  using Answer = std::optional<assess::CarePlan>;
  static Answer answer(const Given& given) {
    return assess::care_plan(given.care.given(), given.air_a_day, given.today);
  }
};

/// None while the car is not on the road.
[[nodiscard]] inline const std::optional<assess::CarePlan>& care_plan(const Desk& desk) {
  return desk.answers().at_once<CarePlanQuestion>({desk.assessment().care, air_a_day(desk), clock_now().day});
}
/// It is still worked out how much air goes through.
[[nodiscard]] inline bool air_use_is_running(const Desk& desk) {
  return desk.answers().of_the_car<AirUseQuestion>().is_running();
}

} // namespace mavrel::app
