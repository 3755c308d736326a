// What a kit still lacks beside compressor, tank, valves and lines, chosen from the shelf by rule: sizing goes by it,
// so that a kit begun empty is not refused for what nobody would ask a search for.
#pragma once

#include "assess/air/air_given.h"

namespace mavrel::assess {

/// A part that was put in by rule, and why this one. It is a proposal: it is changed like any other.
struct AddedPart {
  KitRole role = KitRole::relief;
  std::string name;
  Message why;
  friend bool operator==(const AddedPart&, const AddedPart&) = default;
};

struct CompletedKit {
  AirGiven air;
  std::vector<AddedPart> added;
  std::vector<Message> lacks; // what is wanted and the shelf has none of, each a sentence
};

/// What somebody names stays as it is, whether the shelf has it or not.
/// @param sensors  the height is gone by, so that sensors are wanted
/// Rules: switch, the one that stops the lowest of those that start `head_over_bags` or more above what the bags want;
/// relief valve, the lowest that opens `relief_over_switch` or more above the switch; check valve, trap or dryer,
/// silencer, what is rated for it and passes most; a dryer where mornings freeze, else a trap; the first drain and
/// sensor; a gauge where hand valves are worked.
[[nodiscard]] CompletedKit complete_kit(AirGiven air, const shelf::Shelf& shelf, bool sensors);

constexpr double head_over_bags = 2e5;       // Pa, so that a lift from the cut-in still moves
constexpr double relief_over_switch = 0.3e5; // Pa

} // namespace mavrel::assess
