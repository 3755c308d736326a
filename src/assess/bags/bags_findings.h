// What a closer look at the chosen bags would point out: weather, gauges, lines to added volumes, lean.
#pragma once

#include "assess/bags/gauge.h"
#include "assess/bags/roll.h"
#include "assess/finding/finding.h"

namespace mavrel::assess {

struct BagsFindingsGiven {
  AnsweredEnds ends;
  std::size_t variant = 0;        // which is active: fields are gone to by its number
  std::vector<std::string> cases; // names of the load cases
  build::Surroundings surroundings;
  CarInBend car;
  GaugeDoubt doubt;
  double frequency_high = 0; // Hz wanted at most
  [[nodiscard]] auto parts() const { return std::tie(ends, variant, cases, surroundings, car, doubt, frequency_high); }
  friend bool operator==(const BagsFindingsGiven&, const BagsFindingsGiven&) = default;
};
[[nodiscard]] BagsFindingsGiven bags_findings_given(const build::Build& build, const AnsweredEnds& ends);

struct BagsAnswer {
  Findings findings;
  /// rad a load case, left lower is positive: how joined sides leave it leaning at road height; none without them.
  std::vector<std::optional<double>> standing_lean;
};
extern const std::span<const FindingRow> bags_finding_rows;
[[nodiscard]] BagsAnswer find_in_bags(const BagsFindingsGiven& given);

struct BagsFindingsQuestion {
  using Given = BagsFindingsGiven;
  using Answer = BagsAnswer;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return find_in_bags(given); }
};

} // namespace mavrel::assess
