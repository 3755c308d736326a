#include "assess/care/care_given.h"

#include "assess/care/origin.h"

namespace mavrel::assess {

CareGiven care_given(const build::Build& build, const FitUpGiven& fit_up) {
  CareGiven out{fit_up, build.care, build.origin->car, build.origin->number, {}};
  for (auto& [place, name] : still_taken(build))
    out.taken.push_back({place, std::move(name)});
  return out;
}

} // namespace mavrel::assess
