// The combinations of two ends that nothing outdoes, found without looking at every one: both ends' options are sorted
// into trees of like ones, and a pair of branches whose best in everything is outdone is left out whole.
#pragma once

#include "assess/search/search_end.h"

namespace mavrel::assess {

/// A combination by its two options, and what it is worth.
struct Candidate {
  std::size_t front = 0, rear = 0; // in the lists of options
  SearchFigures figures;
};

/// @returns all that nothing dominates, of equals the first by (front, rear), in that order; less when stopped
/// @throws what a thread threw
[[nodiscard]] std::vector<Candidate> undominated(const ComfortWanted& wanted, const std::vector<EndOption>& front,
                                                 const std::vector<EndOption>& rear, const SearchControl& control);

/// The best combination of each pair of bags in lack of one among the choices: nearest to the comfort wanted first,
/// then low, by a fixed rate of exchange (1 Hz against 100 mm).
struct BestOfPair {
  std::size_t front_bag = 0, rear_bag = 0;
  Candidate candidate;
  double key = 0; // lower is better
};
/// @param leave_out  pairs of bags not wanted
/// @param most       the best of so many pairs
/// @returns best first
[[nodiscard]] std::vector<BestOfPair> best_of_pairs(const ComfortWanted& wanted, const std::vector<EndOption>& front,
                                                    const std::vector<EndOption>& rear,
                                                    const std::vector<std::pair<std::size_t, std::size_t>>& leave_out,
                                                    std::size_t most, const SearchControl& control);

} // namespace mavrel::assess
