// One question at both ends, worked out at the same time where both are new.
#pragma once

#include "assess/kept/kept.h"
#include "parallel/in_parallel.h"

#include <array>

namespace mavrel::assess {

/// @param given  of the front and of the rear
template <class Question>
std::array<Answered<Question>, 2> ask_both(std::array<Kept<Question>, 2>& kept,
                                           std::array<typename Question::Given, 2> given) {
  if (!kept[0].holds(given[0]) && !kept[1].holds(given[1]))
    in_parallel(2, {2, {}, {}}, [&](std::size_t i) { kept[i].ask(given[i]); });
  return {kept[0].ask(std::move(given[0])), kept[1].ask(std::move(given[1]))};
}

} // namespace mavrel::assess
