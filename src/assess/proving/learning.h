// What measured figures teach of this very car: friction, motion ratio, the bag's area, how freely air gets to it. Each
// moves within its doubt only, and only where the figures say something of it.
#pragma once

#include "assess/fit_up/checks.h"
#include "curve/learning.h"

#include <stop_token>

namespace mavrel::assess {

enum class Learns { ratio, area, friction, flow };

/// One thing that may be learned. `was` and `is` as the document keeps them: shares of what is designed; N of friction.
struct LearnedFigure {
  Learns what = Learns::ratio;
  std::string key; // `rear.area`, `front_left.flow`
  Message name;
  Kind kind = Kind::share;
  End end = End::front;
  std::size_t corner = 0;           // FL FR RL RR from 0, of a flow
  double designed = 1;              // what survey, card and kit say
  double was = 1;                   // what the model reckons with now
  double is = 1;                    // what the figures make of it
  double was_sd = 0, is_sd = 0;     // its doubt, of the design and after
  bool told = false;                // the figures say something of it
  bool too_far = false;             // it would lie further from the design than its doubt allows
  std::vector<std::string> blurred; // keys that the figures do not tell it from
};

/// One figure that was measured, and what the model said of it.
struct LearnedFrom {
  Message name;
  Kind kind = Kind::pressure;
  double measured = 0, before = 0, after = 0; // by the design alone, and with what was learned
};

struct Learning {
  std::vector<LearnedFigure> figures;
  std::vector<LearnedFrom> from;
  double misfit = 0; // mean square of what is left, in doubts
  [[nodiscard]] bool any() const;
};

struct LearningGiven {
  build::Build build;
  shelf::Shelf shelf;
  friend bool operator==(const LearningGiven& a, const LearningGiven& b);
};
/// @returns what could be learned; or that nothing that teaches anything was measured. None where it was stopped
/// Source: docs/models.md, "Learning".
[[nodiscard]] std::optional<Expected<Learning>> learn_from(const LearningGiven& given, const std::stop_token& stop);

/// The build with what was learned taken over, and noted by whom: what the figures tell nothing of, or that lies too
/// far, stays.
/// @param keys  which of the figures
[[nodiscard]] build::Build with_learned(const build::Build& build, const Learning& learning,
                                        const std::vector<std::string>& keys, const std::string& by,
                                        const std::string& day);
/// The build as it was designed, with nothing learned; what was noted of it stays.
[[nodiscard]] build::Build without_learned(const build::Build& build);
/// Has anything been learned of it?
[[nodiscard]] bool has_learned(const build::Variant& variant);

// Doubts, one standard deviation, where no reading tells one.
constexpr double ratio_doubt = 0.02, one_reading_doubt = 0.05; // of a curve, and of one ratio alone
constexpr double area_doubt = 0.04, friction_doubt_ln = 0.45, flow_doubt_ln = 0.25;
constexpr double most_doubts = 2.5;  // from the design
constexpr double tells_below = 0.85; // of its doubt that must be left at most
constexpr double blurred_above = 0.7;

} // namespace mavrel::assess
