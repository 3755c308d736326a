// The demo estate made ready to be practised on, once for all tests.
#pragma once

#include "assess/faults/notes.h"
#include "assess/faults/practice.h"
#include "assess/fit_up/cars.h"

namespace mavrel::assess {

inline const std::shared_ptr<const PracticeShop>& practised() {
  static const auto shop = [] {
    const auto& build = test::demo_whole();
    auto made = practice_shop({leveling_given(build, fit_up_of(build).air(), 0)}, {});
    if (!made || !*made) throw std::runtime_error("the demo car can't be practised on");
    return **made;
  }();
  return shop;
}
inline FaultFinding found(const char* key, const char* answer) {
  return *typed_finding(*sign_of(key), answer, {});
}
inline Diagnosis diagnosed(const FaultEvidence& evidence) {
  return FaultWeighing(practised()->table, evidence).diagnosis();
}
inline double odds_of(const Diagnosis& d, const std::string& key) {
  for (const FaultSet& set : d.sets)
    if (fault_key(set.faults) == key) return set.odds;
  return 0;
}

} // namespace mavrel::assess
