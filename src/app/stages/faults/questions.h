// What fault finding's pages read: how this car answers to what can be wrong, how likely each fault is by what was
// found, and which test tells most.
#pragma once

#include "app/desk/desk.h"
#include "assess/faults/notes.h"
#include "assess/faults/practice.h"

namespace mavrel::app {

using PracticeShopPtr = std::shared_ptr<const assess::PracticeShop>;

struct FaultCarQuestion : Stoppable<assess::FaultCarGiven, Expected<PracticeShopPtr>, assess::practice_shop> {
  static Given given(const Desk& desk);
};

struct Diagnosed {
  assess::Diagnosis diagnosis;
  std::vector<assess::NextTest> next;
};
struct DiagnosisQuestion {
  struct Given {
    PracticeShopPtr shop; // never null; told apart by where it stands: one is made for each car
    assess::FaultEvidence evidence;
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = Diagnosed;
  static Answer answer(const Given& given, const RunControl& control);
  static std::optional<Given> given(const Desk& desk);
};

/// The car, once it is worked out; null before, or where it is not known enough.
[[nodiscard]] PracticeShopPtr fault_car_of(const Desk& desk);
/// The build's notes as findings.
[[nodiscard]] const assess::FaultsNoted& notes_of(const Desk& desk);
/// By the notes as they are; nullptr while it is weighed.
[[nodiscard]] const Diagnosed* diagnosis_of(const Desk& desk);
/// Why there is no car, or no diagnosis; none while it is worked out.
[[nodiscard]] std::optional<Message> trouble_of_diagnosis(const Desk& desk);

} // namespace mavrel::app
