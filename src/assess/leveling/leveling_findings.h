// What is missing from keeping the height, at odds with the kit, or not as a careful builder would have it: as far as
// it is known without driving.
#pragma once

#include "assess/bags/gauge.h"
#include "assess/finding/finding.h"
#include "assess/leveling/sensor_at_end.h"

namespace mavrel::assess {

struct LevelingFindingsGiven {
  Answered<SensorQuestion> sensors; // and with them both ends
  build::Leveling leveling;
  build::ValveSchool school = build::ValveSchool::block;
  bool joined = false;        // left and right share a circuit
  bool kit_begun = false;     // is there anything of a kit? Without one nothing is said
  bool sensor_chosen = false; // the kit names a height sensor
  GaugeDoubt doubt;
  double bump_travel = 0;  // m that the brief keeps below road height
  std::size_t variant = 0; // which is active: fields are gone to by its number
  [[nodiscard]] auto parts() const {
    return std::tie(sensors, leveling, school, joined, kit_begun, sensor_chosen, doubt, bump_travel, variant);
  }
  friend bool operator==(const LevelingFindingsGiven&, const LevelingFindingsGiven&) = default;
};
[[nodiscard]] LevelingFindingsGiven leveling_findings_given(const build::Build& build,
                                                            Answered<SensorQuestion> sensors);
[[nodiscard]] SensorGiven sensor_given(const build::Build& build, const AnsweredEnds& ends);

extern const std::span<const FindingRow> leveling_finding_rows;
[[nodiscard]] Findings find_in_leveling(const LevelingFindingsGiven& given);

struct LevelingFindingsQuestion {
  using Given = LevelingFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_leveling(given); }
};

/// m between road height and the first stop below it at the worse end, less the bump travel that the brief keeps; not
/// below 0. What the height may be low by.
[[nodiscard]] double spare_travel(const AnsweredEnds& ends, double bump_travel);

/// Does the chosen way go by heights?
[[nodiscard]] bool goes_by_height(control::LevelMethod method);

} // namespace mavrel::assess
