#include "app/stages/fit_up/answers.h"

#include "app/desk/clock.h"

#include <QTimer>

namespace mavrel::app {

FitUpAnswers::FitUpAnswers(Desk& desk, QObject* parent) : QObject(parent), desk_(desk) {
  auto* clock = new QTimer(this);
  clock->setInterval(20'000);
  connect(clock, &QTimer::timeout, this, [this] {
    if (!of_ || now() == of_minute_) return;
    // The clock turns the plan here and nowhere else: what a page holds stays while it is at work.
    of_minute_ = now();
    forget_plan();
    emit minute_turned();
  });
  clock->start();
}

std::optional<work::Moment> FitUpAnswers::now() const {
  if (!work::parse_day(desk_.build().shop->first_day)) return std::nullopt;
  return clock_now();
}

void FitUpAnswers::fresh() {
  const auto& fit_up = desk_.assessment().fit_up;
  if (of_ && of_->same(fit_up)) return;
  checks_.reset();
  routes_.reset();
  templates_.reset();
  cut_.reset();
  places_.reset();
  forget_plan();
  of_ = fit_up;
  of_minute_ = now();
}

void FitUpAnswers::forget_plan() {
  plan_given_.reset();
  plan_.reset();
  buy_.reset();
}

const assess::PlanGiven& FitUpAnswers::plan_given() {
  fresh();
  if (!plan_given_) plan_given_ = assess::plan_given(given(), of_minute_);
  return *plan_given_;
}
const Expected<assess::Plan>& FitUpAnswers::plan() {
  fresh();
  if (!plan_) plan_ = assess::plan_of(plan_given());
  return *plan_;
}
const std::vector<assess::HoldPoint>& FitUpAnswers::checks() {
  fresh();
  if (!checks_) checks_ = assess::hold_points(given());
  return *checks_;
}
const assess::HoldPoint* FitUpAnswers::check(const std::string& id) {
  for (const assess::HoldPoint& p : checks())
    if (p.id == id) return &p;
  return nullptr;
}
const std::vector<assess::JudgedRoute>& FitUpAnswers::routes() {
  fresh();
  if (!routes_) routes_ = assess::judged_routes(given());
  return *routes_;
}
const assess::Templates& FitUpAnswers::templates() {
  fresh();
  if (!templates_) templates_ = assess::templates_of(given());
  return *templates_;
}
const assess::CutList& FitUpAnswers::cut() {
  fresh();
  if (!cut_) cut_ = assess::cut_list(given(), templates(), routes());
  return *cut_;
}
const assess::BuyList& FitUpAnswers::buy() {
  fresh();
  if (!buy_) {
    buy_ = assess::buy_list(given(), cut(), routes());
    assess::add_order_days(given(), *buy_, of_minute_);
  }
  return *buy_;
}
const std::vector<assess::JudgedPlace>& FitUpAnswers::places() {
  fresh();
  if (!places_) places_ = assess::judged_places(given());
  return *places_;
}

} // namespace mavrel::app
