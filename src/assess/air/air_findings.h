// What is missing from an air kit, unsafe about it, or not as wanted: as far as it is known without letting time pass.
#pragma once

#include "assess/air/room.h"
#include "assess/air/wiring.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct AirFindingsGiven {
  RoomGiven room; // and with it the kit
  std::array<build::Sides, 2> sides{};
  std::size_t variant = 0; // which is active: fields are gone to by its number
  [[nodiscard]] auto parts() const { return std::tie(room, sides, variant); }
  friend bool operator==(const AirFindingsGiven&, const AirFindingsGiven&) = default;
};
[[nodiscard]] AirFindingsGiven air_findings_given(const build::Build& build, RoomGiven room);

extern const std::span<const FindingRow> air_finding_rows;
[[nodiscard]] Findings find_in_air(const AirFindingsGiven& given);

struct AirFindingsQuestion {
  using Given = AirFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_air(given); }
};

/// Is there anything of a kit at all?
[[nodiscard]] bool kit_begun(const build::AirKit& kit);
/// Are all the parts chosen and on the shelf that air must pass or be kept in?
[[nodiscard]] bool kit_complete(const AirGiven& given);

/// Why a kit may not be built as it is, each in a few words: the findings and the search refuse by these alone.
struct KitFault {
  const char* code; // of the finding
  Severity severity = Severity::stop;
  KitRole role = KitRole::tank;
  Message title, reason, way_out;
};
[[nodiscard]] std::vector<KitFault> kit_faults(const AirGiven& given);

/// Pa gauge that the bags want at most, in any preset and load case; none while that is not known.
[[nodiscard]] std::optional<double> most_bag_pressure(const AirGiven& given);

} // namespace mavrel::assess
