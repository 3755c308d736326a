// How the kinds of air parts are called, in files and on screen.
#pragma once

#include "build/choice_name.h"
#include "shelf/part.h"

namespace mavrel::shelf {

using build::ChoiceName;

constexpr auto names_of(PartKind) {
  return std::to_array<ChoiceName<PartKind>>({
      {PartKind::compressor, "compressor", words("compressor")},
      {PartKind::tank, "tank", words("tank")},
      {PartKind::valve_block, "valve block", words("valve block")},
      {PartKind::hand_valve, "hand valve", words("hand valve")},
      {PartKind::line, "line", words("line")},
      {PartKind::fitting, "fitting", words("fitting")},
      {PartKind::check_valve, "check valve", words("check valve")},
      {PartKind::trap, "trap", words("water trap")},
      {PartKind::dryer, "dryer", words("dryer")},
      {PartKind::pressure_switch, "pressure switch", words("pressure switch")},
      {PartKind::relief_valve, "relief valve", words("relief valve")},
      {PartKind::drain, "drain", words("drain")},
      {PartKind::silencer, "silencer", words("silencer")},
      {PartKind::gauge, "gauge", words("gauge")},
      {PartKind::sensor, "sensor", words("height sensor")},
      {PartKind::hand_switch, "hand switch", words("hand switches")},
  });
}

} // namespace mavrel::shelf
