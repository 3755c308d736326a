// Every bag of the shelf judged on one end of the car, as if it were fitted there.
#pragma once

#include "assess/end/end_answer.h"
#include "shelf/shelf.h"

namespace mavrel::assess {

enum class Fit { fits, with_care, does_not_fit };

struct BagVerdict {
  std::string bag;
  air::BagKind kind = air::BagKind::double_bellows;
  Fit fit = Fit::does_not_fit;
  std::vector<Message> reasons;                         // the gravest first; empty for a bag that simply fits
  std::optional<std::pair<double, double>> reach, road; // m, H
  std::optional<double> road_height;                    // m, H wanted
  std::optional<double> frequency;                      // Hz at road height, on the suspension alone; with none
                                                        // wished for as it was surveyed, and so are those below
  std::optional<double> ride_frequency;                 // Hz at road height, tyre and all: judged by this
  std::optional<double> pressure;                       // Pa at road height, heavier side
  air::Beyond beyond = air::Beyond::nothing;            // of that pressure
  double diameter = 0;                                  // m, greatest
};

enum class BagOrder { best, name, frequency, pressure, diameter, lowest };

struct JudgeGiven {
  EndGiven end;                            // without the bag that is fitted there
  List<shelf::ShelfBag> bags;              // by name
  std::size_t load_case = 0;               // judged in this case; a bag that fits here but not in another is named so
  std::vector<std::string> cases, presets; // their names
  double frequency_low = 0, frequency_high = 0; // Hz wanted
  [[nodiscard]] auto parts() const {
    return std::tie(end, bags, load_case, cases, presets, frequency_low, frequency_high);
  }
  friend bool operator==(const JudgeGiven&, const JudgeGiven&) = default;
};
[[nodiscard]] JudgeGiven judge_given(const build::Build& build, const shelf::Shelf& shelf, const EndGiven& end,
                                     std::size_t load_case);

/// @returns one verdict a bag, in shelf order; empty while the end's map is missing
[[nodiscard]] std::vector<BagVerdict> judge_shelf(const JudgeGiven& given);
/// The same from the document, for who asks once.
[[nodiscard]] std::vector<BagVerdict> judge_shelf(const build::Build& build, const shelf::Shelf& shelf, End end,
                                                  std::size_t load_case);

struct JudgeQuestion {
  using Given = JudgeGiven;
  using Answer = std::vector<BagVerdict>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return judge_shelf(given); }
};

/// Stable; bags without the asked figure come last.
void sort_verdicts(std::vector<BagVerdict>& verdicts, BagOrder order);

} // namespace mavrel::assess
