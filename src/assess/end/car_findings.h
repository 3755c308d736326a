// What both ends together have to say, and the usual cautions.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct CarFindingsGiven {
  std::array<Answered<EndQuestion>, 2> ends;          // front, rear
  std::size_t variant = 0;                            // which is active: fields are gone to by its number
  std::vector<std::string> cases;                     // names of the load cases
  std::vector<std::string> presets;                   // names of the presets
  double rear_quicker_low = 0, rear_quicker_high = 0; // wanted, rear over front ride frequency less 1
  [[nodiscard]] auto parts() const {
    return std::tie(ends, variant, cases, presets, rear_quicker_low, rear_quicker_high);
  }
  friend bool operator==(const CarFindingsGiven&, const CarFindingsGiven&) = default;
};
[[nodiscard]] CarFindingsGiven car_findings_given(const build::Build& build,
                                                  const std::array<Answered<EndQuestion>, 2>& ends);

extern const std::span<const FindingRow> car_finding_rows;
[[nodiscard]] Findings find_on_car(const CarFindingsGiven& given);

struct CarFindingsQuestion {
  using Given = CarFindingsGiven;
  using Answer = Findings;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_on_car(given); }
};

} // namespace mavrel::assess
