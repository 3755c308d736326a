#include "assess/faults/link_readings.h"

#include "assess/faults/notes.h"

#include <cmath>

namespace mavrel::assess {

std::vector<build::FaultNote> link_readings(const PracticeShop& car, const LiveLook& look, std::size_t room) {
  std::vector<build::FaultNote> out;
  const auto add = [&](const char* sign, std::size_t corner, double value) {
    FaultFinding found;
    found.at = {fault_sign(sign), corner};
    found.value = value;
    if (out.size() < room && !trouble_of(car.table.car(), found)) out.push_back(note_of(found, "link"));
  };
  for (std::size_t c = 0; c < 4; ++c) {
    if (!look.height[c]) continue;
    const double off = *look.height[c] - car.car.target[c];
    if (std::abs(off) > live_near) continue;
    add("height_off", c, off);
    if (look.pressure[c] && std::abs(off) < live_pressure_at)
      add("pressure_off", c, *look.pressure[c] - car.car.pressure[c]);
  }
  return out;
}

} // namespace mavrel::assess
