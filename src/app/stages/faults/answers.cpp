#include "app/stages/faults/answers.h"

#include "assess/air/air_findings.h"

namespace mavrel::app {

namespace {
constexpr std::size_t most_tests = 12;
} // namespace

Diagnosed FaultAnswers::Weighing::answer(const Given& given, const RunControl&) {
  const assess::FaultWeighing weighing(given.shop->table, given.evidence);
  return {weighing.diagnosis(), weighing.next_tests(most_tests)};
}

FaultAnswers::FaultAnswers(Desk& desk, QObject* parent)
    : QObject(parent), desk_(desk), car_(desk.runner(), [this] { emit changed(); }),
      weighing_(desk.runner(), [this] { emit changed(); }) {
  connect(&desk_, &Desk::changed, this, &FaultAnswers::look);
}

assess::FaultCarGiven FaultAnswers::car_given() const {
  return {assess::leveling_given(desk_.build(), desk_.assessment().air.given().room.air, 0)};
}

void FaultAnswers::look() {
  noted_.reset();
  if (car_.was_asked()) car_.keep_only_for(car_given());
  if (weighing_.was_asked())
    if (const PracticeShopPtr now = shop()) weighing_.keep_only_for({now, noted().evidence});
}

PracticeShopPtr FaultAnswers::shop() {
  if (!car_.was_asked()) car_.ask(car_given());
  const auto& answer = car_.answer();
  return answer && *answer && **answer ? ***answer : nullptr;
}

std::optional<Message> FaultAnswers::trouble() {
  if (const auto of_car = car_.trouble()) return of_car;
  return weighing_.trouble();
}

const assess::FaultsNoted& FaultAnswers::noted() {
  if (!noted_) noted_ = assess::noted(desk_.build());
  return *noted_;
}

const Diagnosed* FaultAnswers::diagnosed() {
  const PracticeShopPtr now = shop();
  if (!now) return nullptr;
  if (!weighing_.was_asked()) weighing_.ask({now, noted().evidence});
  return weighing_.answer() ? &*weighing_.answer() : nullptr;
}

} // namespace mavrel::app
