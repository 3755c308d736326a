// What the shop's book keeps of a car that takes an assessment: what was found, what comes round, what was proved.
#pragma once

#include "build/build.h"
#include "shelf/shelf.h"
#include "work/day.h"

#include <string>

namespace mavrel::assess {

struct BookNotes {
  std::string findings;       // sentences
  std::string due;            // day of what comes round next, as Care has it; empty: the car is not on the road
  int proved = 0, proofs = 0; // of Proving: those that stand, of those that are asked for
};
/// Takes a second or so: how much air goes through is worked out, as Care does.
[[nodiscard]] BookNotes book_notes(const build::Build& build, const shelf::Shelf& shelf, work::Day today);

} // namespace mavrel::assess
