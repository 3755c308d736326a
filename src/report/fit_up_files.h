// The fit-up as files: JSON of the plan and its checks, of what is cut and bought, of drawings and schools; CSV of
// lists.
#pragma once

#include "assess/fit_up/buying.h"
#include "assess/fit_up/places.h"
#include "assess/fit_up/plan.h"
#include "assess/fit_up/schools.h"

#include <string>

namespace mavrel::report {

[[nodiscard]] std::string plan_json(const assess::Plan& plan, const std::vector<assess::HoldPoint>& checks,
                                    const std::vector<assess::Job>& skipped);
[[nodiscard]] std::string parts_json(const assess::FitUpGiven& given, const assess::CutList& cut,
                                     const assess::BuyList& buy, const std::vector<assess::JudgedRoute>& routes);
[[nodiscard]] std::string templates_json(const assess::Templates& templates);
[[nodiscard]] std::string schools_json(const assess::Schools& schools);

[[nodiscard]] std::string plan_csv(const assess::Plan& plan);
[[nodiscard]] std::string cut_csv(const assess::CutList& cut);
[[nodiscard]] std::string buy_csv(const assess::BuyList& buy);
[[nodiscard]] std::string labels_csv(const std::vector<assess::JudgedRoute>& routes);

} // namespace mavrel::report
