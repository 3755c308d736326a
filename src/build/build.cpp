#include "build/build.h"

#include "build/care.h"
#include "build/faults.h"
#include "build/fit_up.h"
#include "build/proving.h"
#include "quantity/message.h"

namespace mavrel {
template class Shared<build::Shop>;
template class Shared<build::Care>;
template class Shared<build::Origin>;
template class Shared<build::Faults>;
template class Shared<build::FitUp>;
template class Shared<build::Proving>;
} // namespace mavrel

namespace mavrel::build {

Build empty_build() {
  Build out;
  out.ends[1].layout = Layout::trailing_arm;
  out.ends[1].spring_place = SpringPlace::apart;
  out.ends[1].spring_seat = SpringSeat::arm;
  out.load_cases.push_back({words("As surveyed"), {}, {}});
  out.variant().brief.presets = {{words("Parked"), PresetUse::parked, {}, {}, {}},
                                 {words("Road"), PresetUse::road, {}, {}, {}},
                                 {words("Ramp"), PresetUse::ramp, {}, {}, {}}};
  return out;
}

} // namespace mavrel::build
