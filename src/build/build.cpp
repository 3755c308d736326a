#include "build/build.h"

#include "quantity/message.h"

namespace mavrel::build {

Build empty_build() {
  Build out;
  out.ends[1].layout = Layout::trailing_arm;
  out.ends[1].spring_place = SpringPlace::apart;
  out.ends[1].spring_seat = SpringSeat::arm;
  out.load_cases.push_back({words("As surveyed"), {}, {}});
  out.variant().brief.presets = {{words("Parked"), PresetUse::parked, {}, {}},
                                 {words("Road"), PresetUse::road, {}, {}},
                                 {words("Ramp"), PresetUse::ramp, {}, {}}};
  return out;
}

} // namespace mavrel::build
