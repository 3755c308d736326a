// Cars to ask the assessment about, and the answers picked out of it.
#pragma once

#include "assess/assess.h"
#include "assess/end/fitted_end.h"
#include "assess/survey/loads.h"
#include "random_car.h"

#include <functional>

namespace mavrel::assess {

using build::Build;

inline Build pickup() {
  return build::load(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel").value();
}

inline Build with(Build build, const std::function<void(Build&)>& change) {
  change(build);
  return build;
}

inline std::array<FittedEnd, 2> ends_of(const Build& build, const shelf::Shelf& shelf = test::demo_shelf()) {
  const auto loads = case_loads(build);
  return {fitted_end(build, shelf, End::front, loads), fitted_end(build, shelf, End::rear, loads)};
}

inline const Finding* finding(const Assessment& a, const std::string& code) {
  for (const Finding& f : a.findings)
    if (f.code == code) return &f;
  return nullptr;
}

} // namespace mavrel::assess
