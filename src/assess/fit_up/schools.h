// Where builders disagree: for each choice that this design decides, both ways worked out on this very car.
#pragma once

#include "assess/fit_up/buying.h"
#include "assess/fit_up/plan.h"

#include <stop_token>

namespace mavrel::assess {

/// What a way costs, in one figure.
enum class CostOf {
  hours,     // of people
  days,      // from the first morning to the end
  stands,    // h of the clock that the car stands with its springs out
  money,     // parts with a price, and hours where they have one
  rise,      // s of the lift that the brief speaks of
  ready,     // s until the tank is full again
  sound,     // dB at a metre
  current,   // A
  lowest,    // m, H, the lower end's window, front and rear together
  highest,   // m, H, the upper end's, likewise
  load_drop, // m that the height is off after the heaviest load case gets in
  tilt_road, // rad between the bag's plates at road height, both ends' mean
  tilt_parked,
  lean,   // rad at 0.3 g
  line,   // m of line and cable
  burst,  // m that a tenth of a second of open valve buys at most
  boot,   // m³ left
  camber, // rad that the mount's offset gives
};
struct CostRow {
  CostOf what;
  const char* key;
  const char* name;
  Kind kind;
  bool less_is_better;
};
[[nodiscard]] const CostRow& row_of(CostOf what);

struct SchoolCost {
  CostOf what = CostOf::hours;
  std::array<std::optional<double>, 2> figure; // one a way; none: it can't be said
};

/// One choice that builders disagree on.
struct SchoolRow {
  const char* key; // `sensing`
  const char* name;
  std::array<const char*, 2> ways;
  std::array<const char*, 2> risks;
};

struct SchoolCard {
  const SchoolRow* row = nullptr;
  std::size_t taken = 0;                        // which way the design goes
  std::array<std::optional<Message>, 2> no_way; // why the other can't be worked out
  std::vector<SchoolCost> costs;                // those in which the ways differ
};
struct Schools {
  std::vector<SchoolCard> cards;
};

struct SchoolsGiven {
  build::Build build;
  shelf::Shelf shelf;
  std::optional<work::Moment> now;
  friend bool operator==(const SchoolsGiven& a, const SchoolsGiven& b);
};
/// The build with a choice made the other way, or the same way as it is.
/// @returns it; or why this car can't go that way
[[nodiscard]] Expected<build::Build> with_school(const build::Build& build, const shelf::Shelf& shelf,
                                                 std::string_view key, std::size_t way);

/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped
/// Source: docs/models.md, "Schools".
[[nodiscard]] std::optional<Schools> answer_schools(const SchoolsGiven& given, const std::stop_token& stop);

} // namespace mavrel::assess
