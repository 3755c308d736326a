// The whole stroke from road height, as a question that is kept.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

struct StrokeGiven {
  AnsweredEnd end;
  std::size_t load_case = 0;
  [[nodiscard]] auto parts() const { return std::tie(end, load_case); }
  friend bool operator==(const StrokeGiven&, const StrokeGiven&) = default;
};

struct StrokeQuestion {
  using Given = StrokeGiven;
  using Answer = Expected<Stroke>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) {
    const FittedEnd& end = given.end->fitted;
    if (!given.end->assessment.windows.reach) return refuse(words("No height is left to stand at; see what stops it."));
    if (!end.road) return refuse(words("Wish for a road height first: the stroke starts there."));
    return stroke_through(end, *end.road, given.load_case);
  }
};

} // namespace mavrel::assess
