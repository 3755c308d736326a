#include "app/stages/faults/questions.h"

#include "assess/air/air_findings.h"
#include "build/build.h"
#include "build/faults.h"
#include "build/fit_up.h"

namespace mavrel::app {

namespace {

constexpr std::size_t most_tests = 12;

struct NotesQuestion {
  struct Given {
    mavrel::Shared<build::Faults> faults;
    mavrel::Shared<build::Shop> shop;
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = assess::FaultsNoted;
  static Answer answer(const Given& given) {
    build::Build build; // of which nothing else is read
    build.faults = given.faults;
    build.shop = given.shop;
    return assess::noted(build);
  }
};

} // namespace

assess::FaultCarGiven FaultCarQuestion::given(const Desk& desk) {
  return {assess::leveling_given(desk.build(), desk.assessment().air.given().room.air, 0)};
}

Diagnosed DiagnosisQuestion::answer(const Given& given, const RunControl&) {
  const assess::FaultWeighing weighing(given.shop->table, given.evidence);
  return {weighing.diagnosis(), weighing.next_tests(most_tests)};
}

std::optional<DiagnosisQuestion::Given> DiagnosisQuestion::given(const Desk& desk) {
  const PracticeShopPtr car = fault_car_of(desk);
  return car ? std::optional(Given{car, notes_of(desk).evidence}) : std::nullopt;
}

PracticeShopPtr fault_car_of(const Desk& desk) {
  auto& asked = desk.answers().of_the_car<FaultCarQuestion>();
  asked.want();
  return asked.value() ? *asked.value() : nullptr;
}

const assess::FaultsNoted& notes_of(const Desk& desk) {
  return desk.answers().at_once<NotesQuestion>({desk.build().faults, desk.build().shop});
}

const Diagnosed* diagnosis_of(const Desk& desk) {
  auto& asked = desk.answers().of_the_car<DiagnosisQuestion>();
  asked.want();
  return asked.value();
}

std::optional<Message> trouble_of_diagnosis(const Desk& desk) {
  if (const auto of_car = desk.answers().of_the_car<FaultCarQuestion>().trouble()) return of_car;
  return desk.answers().of_the_car<DiagnosisQuestion>().trouble();
}

} // namespace mavrel::app
