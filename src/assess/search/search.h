// Find what fits: every bag on the shelf, with every added volume and seat height, at both ends together, against the
// brief in every load case. Hard limits first, then what cannot be bettered in one thing without losing in another.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/sampling/draws.h"

#include <functional>
#include <stop_token>

namespace mavrel::assess {

/// What is tried at each end.
struct SearchSpace {
  std::vector<double> added_volumes = {0, 1e-3, 2e-3, 3.5e-3, 5e-3};  // m³ beside each bag
  std::vector<double> upper_stacks = {0, 0.010, 0.020, 0.030, 0.040}; // m
  std::vector<double> lower_stacks = {0, 0.010, 0.020, 0.030, 0.040}; // m
  [[nodiscard]] auto parts() const { return std::tie(added_volumes, upper_stacks, lower_stacks); }
  friend bool operator==(const SearchSpace&, const SearchSpace&) = default;
};

/// What of the brief says how it is to ride.
struct ComfortWanted {
  double frequency_low = 0, frequency_high = 0;       // Hz
  double rear_quicker_low = 0, rear_quicker_high = 0; // rear over front ride frequency, less 1
  ComfortWanted() = default;
  ComfortWanted(const build::Brief& brief) // NOLINT: a brief says all of it
      : frequency_low(brief.frequency_low), frequency_high(brief.frequency_high),
        rear_quicker_low(brief.rear_quicker_low), rear_quicker_high(brief.rear_quicker_high) {}
  [[nodiscard]] auto parts() const {
    return std::tie(frequency_low, frequency_high, rear_quicker_low, rear_quicker_high);
  }
  friend bool operator==(const ComfortWanted&, const ComfortWanted&) = default;
};

/// One end of a choice.
struct SearchedEnd {
  std::string bag;
  double added_volume = 0; // m³
  double line_bore = 0;    // m, put between bounce and hop for this volume; the design's own without one
  double upper_stack = 0, lower_stack = 0;   // m; of the splits with one sum, the one nearest to today's
  double lowest = 0;                         // m, H it can park at
  std::vector<double> frequency;             // Hz at road height on the suspension alone, one a load case
  std::vector<double> ride_frequency;        // Hz, tyre and all: weighed by this
  double road_pressure = 0;                  // Pa, the highest of any case
  air::Beyond beyond = air::Beyond::nothing; // of that pressure
};

/// What a choice is weighed by. Lower is better for the first three, higher for the others.
struct SearchFigures {
  double lowest = 0;     // m, mean of both ends' lowest parked heights
  double discomfort = 0; // Hz off the comfort wanted in the worst case, and the rear off settling flat (of 1 Hz)
  double air = 0;        // kg a lift from parked to the highest preset, in the heaviest case
  double reserve = 0;    // share of the bags' maximum pressure left on the road
  double lift = 0;       // m it can rise above road height, the lesser end
};
/// Is `a` at least as good as `b` everywhere and better somewhere?
[[nodiscard]] bool dominates(const SearchFigures& a, const SearchFigures& b);

struct SearchChoice {
  std::array<SearchedEnd, 2> ends; // front, rear
  SearchFigures figures;
  double score = 0; // 0 the best of what was found to 5 the worst: figures as shares of their spread, added up
  std::optional<double> holds; // share of the cases of how sure the readings are; none: not asked for
};

/// A pair of bags and what became of it.
struct SearchedPair {
  std::array<std::string, 2> bags;
  std::optional<SearchChoice> best; // its best setting that passes the hard limits
  Message reason;                   // why it lost; empty for a pair among the choices
};

struct SearchResult {
  std::size_t tried = 0, passed = 0; // combinations of both ends
  std::vector<SearchChoice> choices; // not dominated, best score first
  std::vector<SearchedPair> ranking; // pairs of bags: choices first, then those outdone, then those that fail,
                                     // nearest to passing first
  std::size_t pairs = 0;             // of bags there are; the ranking holds up to `SearchControl::most_pairs`
  bool stopped = false;              // by the user: nothing above is to be relied on
};

struct SearchControl {
  unsigned threads = 0; // 0: as many as the machine has
  std::stop_token stop;
  std::function<void(double share_done)> progress; // called from any of the threads, one at a time, never falling
  std::size_t most_pairs = 1000;                   // of bags ranked: the best of them
};

/// What choices are to hold against: the car as its readings may be off.
struct SearchDoubt {
  build::Build build;           // of one design, without what no height depends on
  List<shelf::ShelfPart> parts; // of its air kit, for what they weigh
  friend bool operator==(const SearchDoubt&, const SearchDoubt&) = default;
};

struct SearchGiven {
  std::array<EndGiven, 2> ends; // without the bags that are fitted there
  List<shelf::ShelfBag> bags;   // by name
  SearchSpace space;
  ComfortWanted comfort;
  std::vector<std::string> cases, presets; // their names
  std::optional<SearchDoubt> doubt;        // none: choices are taken as the readings are
  [[nodiscard]] auto parts() const { return std::tie(ends, bags, space, comfort, cases, presets, doubt); }
  friend bool operator==(const SearchGiven&, const SearchGiven&) = default;
};
/// @param sure  nine in ten: each end must hold in 19 of 20 cases, so that both together do in nine of ten at least
[[nodiscard]] SearchGiven search_given(const build::Build& build, const shelf::Shelf& shelf, const SearchSpace& space,
                                       Sure sure = Sure::as_read);

/// Exact: every combination is weighed or shown to be outdone, though few are looked at one by one. The same answer
/// whatever the number of threads.
/// @returns the choices; or what of the car or brief is missing, or that the machine's memory did not suffice
/// Source: docs/models.md, "Search".
[[nodiscard]] Expected<SearchResult> search(const SearchGiven& given, const SearchControl& control = {});
[[nodiscard]] inline Expected<SearchResult> search(const build::Build& build, const shelf::Shelf& shelf,
                                                   const SearchSpace& space, const SearchControl& control = {}) {
  return search(search_given(build, shelf, space), control);
}

/// The active design with a choice fitted in its place.
[[nodiscard]] build::Variant with_choice(const build::Variant& variant, const SearchChoice& choice);

} // namespace mavrel::assess
