// All that care for a car is worked out from, but for the day it is asked on.
#pragma once

#include "assess/air/air_given.h"
#include "assess/fit_up/fit_up_given.h"
#include "build/care.h"

namespace mavrel::assess {

/// A figure of another car that still stands as it was taken over.
struct StillTaken {
  std::size_t place = 0; // among the origin's
  Message name;
  friend bool operator==(const StillTaken&, const StillTaken&) = default;
};

struct CareGiven {
  FitUpGiven fit_up; // the car as it is, and its checks
  Shared<build::Care> care;
  std::string from_car, from_number; // the car that the build was begun from; empty: none
  std::vector<StillTaken> taken;     // what of it stands unmeasured
  [[nodiscard]] auto parts() const { return std::tie(fit_up, care, from_car, from_number, taken); }
  friend bool operator==(const CareGiven&, const CareGiven&) = default;
};
[[nodiscard]] CareGiven care_given(const build::Build& build, const FitUpGiven& fit_up);

} // namespace mavrel::assess
