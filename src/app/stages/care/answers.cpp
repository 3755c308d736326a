#include "app/stages/care/answers.h"

#include "app/desk/clock.h"
#include "assess/care/care_findings.h"

#include <QTimer>

namespace mavrel::app {

CareAnswers::CareAnswers(Desk& desk, QObject* parent)
    : QObject(parent), desk_(desk), air_use_(desk.runner(), [this] {
        plan_.reset();
        emit changed();
      }) {
  connect(&desk_, &Desk::changed, this,
          [this] { air_use_.keep_only_for(desk_.assessment().care.given().fit_up.air()); });
  auto* clock = new QTimer(this);
  clock->setInterval(60'000);
  connect(clock, &QTimer::timeout, this, [this] {
    if (!plan_ || today() == of_day_) return;
    plan_.reset();
    emit changed();
  });
  clock->start();
}

work::Day CareAnswers::today() const {
  return clock_now().day;
}

const std::optional<assess::CarePlan>& CareAnswers::plan() {
  const auto& now = desk_.assessment().care;
  if (!of_ || !of_->same(now)) {
    of_ = now;
    plan_.reset();
  }
  const assess::AirGiven& air = now.given().fit_up.air();
  if (!air_use_.was_asked() && !air.kit.valves.empty()) air_use_.ask(air);
  if (!plan_) {
    of_day_ = today();
    std::optional<double> used;
    if (air_use_.answer() && *air_use_.answer() && **air_use_.answer()) used = ***air_use_.answer();
    plan_ = assess::care_plan(now.given(), used, of_day_);
  }
  return *plan_;
}

} // namespace mavrel::app
