// One end of the search: every setting of every bag, tried alone. Used by the search and its tests.
#pragma once

#include "assess/search/search.h"

#include <bitset>

namespace mavrel::assess {

/// One setting at one end.
struct EndOption {
  std::size_t bag = 0; // on the shelf
  SearchedEnd fitted;
  bool passes = false; // every hard limit, in every load case
  Message miss;        // why not: the gravest
  double miss_by = 0;  // how badly: the least of a bag's settings is the one named
  double reserve = 0, lift = 0, air = 0;
  std::bitset<holding_draws> holds; // cases of how sure the readings are that it holds in, where that is asked for
};

/// @returns every option in a fixed order: bag, sum of stacks, added volume; fewer when stopped
[[nodiscard]] Expected<std::vector<EndOption>> end_options(const SearchGiven& given, End end,
                                                           const SearchControl& control = {});

/// How far two ends' ride frequencies are off what the brief wants of them, Hz (and 1 for the whole of a ratio).
[[nodiscard]] double discomfort_of(const ComfortWanted& wanted, double front, double rear);

/// What two ends are worth together.
[[nodiscard]] SearchFigures figures_of(const ComfortWanted& wanted, const EndOption& front, const EndOption& rear);

} // namespace mavrel::assess
