// Ways of keeping the height side by side: each of the design's set-ups on the same road, from the same seed.
#pragma once

#include "assess/air/lift.h"
#include "assess/leveling/leveling_given.h"

#include <stop_token>

namespace mavrel::assess {

/// One set-up and what came of it.
struct Driven {
  std::string name;
  control::Rules rules;
  control::DriveResult result;
};

struct Drives {
  LearnedCar car;
  std::vector<Driven> driven; // as the design lists its set-ups
};

/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped; else the drives, or why the car can't be driven
[[nodiscard]] std::optional<Expected<Drives>> answer_drives(const LevelingGiven& given, const std::stop_token& stop);

/// One more part tried in a role's place, and what the chosen set-up makes of it.
struct OtherPart {
  KitRole role = KitRole::valves;
  std::string name; // of the part; empty: the kit as it is
  bool finer = false;
  double buys = 0; // m that a tenth of a second of open valve buys at most, any circuit
  control::DriveResult result;
};
struct OtherPartsGiven {
  LevelingGiven leveling;
  std::vector<NextSize> wider, finer; // what the shelf has
  friend bool operator==(const OtherPartsGiven&, const OtherPartsGiven&) = default;
};
/// @returns the chosen set-up with the kit as it is, then with each other part in turn
[[nodiscard]] std::optional<Expected<std::vector<OtherPart>>> answer_other_parts(const OtherPartsGiven& given,
                                                                                 const std::stop_token& stop);
[[nodiscard]] OtherPartsGiven other_parts_given(LevelingGiven given, const shelf::Shelf& shelf);

} // namespace mavrel::assess
