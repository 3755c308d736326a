// What Fit-up's pages read: each part of it worked out when first asked for, and kept while the design is the same.
#pragma once

#include "app/desk/desk.h"
#include "assess/assessment.h"
#include "assess/fit_up/buying.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/fit_up/places.h"
#include "assess/fit_up/plan.h"
#include "assess/fit_up/schools.h"

namespace mavrel::app {

/// The fit-up of what is open: what all of it starts from.
[[nodiscard]] inline const assess::FitUpGiven& fit_up_of(const Desk& desk) {
  return desk.assessment().fit_up.given();
}
/// The minute it is; of a plan without dates none.
[[nodiscard]] std::optional<work::Moment> now_in_plan(const Desk& desk);

[[nodiscard]] const assess::PlanGiven& plan_given_of(const Desk& desk);
[[nodiscard]] const Expected<assess::Plan>& plan_of(const Desk& desk);
[[nodiscard]] const std::vector<assess::HoldPoint>& checks_of(const Desk& desk);
[[nodiscard]] const std::vector<assess::JudgedRoute>& routes_of(const Desk& desk);
[[nodiscard]] const assess::Templates& templates_of(const Desk& desk);
[[nodiscard]] const assess::CutList& cut_list_of(const Desk& desk);
[[nodiscard]] const assess::BuyList& buy_list_of(const Desk& desk);
[[nodiscard]] const std::vector<assess::JudgedPlace>& places_of(const Desk& desk);

struct SchoolsQuestion : Stoppable<assess::SchoolsGiven, assess::Schools, assess::answer_schools> {};

} // namespace mavrel::app
