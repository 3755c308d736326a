// What Fit-up's pages read: each part of it worked out when first asked for, and kept while the design is the same.
#pragma once

#include "app/desk/desk.h"
#include "assess/assessment.h"
#include "assess/fit_up/buying.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/fit_up/places.h"
#include "assess/fit_up/plan.h"

#include <QObject>

#include <functional>
#include <optional>

namespace mavrel::app {

/// Of the interface's thread; what it gives by reference is valid until the desk says `changed`, or the minute turns.
class FitUpAnswers : public QObject {
  Q_OBJECT
public:
  explicit FitUpAnswers(Desk& desk, QObject* parent = nullptr);

  [[nodiscard]] const assess::FitUpGiven& given() const { return desk_.assessment().fit_up.given(); }
  /// The minute it is; of a plan without dates none.
  [[nodiscard]] std::optional<work::Moment> now() const;

  [[nodiscard]] const assess::PlanGiven& plan_given();
  [[nodiscard]] const Expected<assess::Plan>& plan();
  [[nodiscard]] const std::vector<assess::HoldPoint>& checks();
  /// One of them; none of that id.
  [[nodiscard]] const assess::HoldPoint* check(const std::string& id);
  [[nodiscard]] const std::vector<assess::JudgedRoute>& routes();
  [[nodiscard]] const assess::Templates& templates();
  [[nodiscard]] const assess::CutList& cut();
  [[nodiscard]] const assess::BuyList& buy();
  [[nodiscard]] const std::vector<assess::JudgedPlace>& places();

signals:
  void minute_turned();

private:
  void fresh();
  void forget_plan();

  Desk& desk_;
  std::optional<assess::Answered<assess::FitUpFindingsQuestion>> of_; // what the answers are of
  std::optional<work::Moment> of_minute_;
  std::optional<assess::PlanGiven> plan_given_;
  std::optional<Expected<assess::Plan>> plan_;
  std::optional<std::vector<assess::HoldPoint>> checks_;
  std::optional<std::vector<assess::JudgedRoute>> routes_;
  std::optional<assess::Templates> templates_;
  std::optional<assess::CutList> cut_;
  std::optional<assess::BuyList> buy_;
  std::optional<std::vector<assess::JudgedPlace>> places_;
};

} // namespace mavrel::app
