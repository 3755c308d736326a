// What the kit does to the battery with the engine off: how many lifts it makes up for before the engine starts no
// more.
#pragma once

#include "assess/air/air_given.h"

namespace mavrel::assess {

/// The battery at one temperature, full to begin with.
struct OnBattery {
  double temperature = 0;       // K
  double current = 0;           // A that the compressors draw on the mean while they make a lift up
  double run = 0;               // s that they run for one
  double charge = 0;            // A·s that one takes out
  double volts = 0;             // V at the battery while they run, full
  double starts_from = 0;       // share of its charge that a start needs; 1 or more: it does not start when full either
  std::optional<int> lifts;     // until it starts no more; none: more than anybody makes
  std::optional<int> until_cut; // until the kit is switched off for its low voltage; none: it never is, or nothing does
};
/// In the surroundings as they are, and on a frosty morning where that is colder.
/// @param from  Pa gauge that a lift leaves in the tank
/// @param to    Pa gauge that it is made up to  @param run  s that it takes, resting left out
/// Source: docs/models.md, "Battery".
[[nodiscard]] std::vector<OnBattery> on_battery(const AirGiven& given, double from, double to, double run);

constexpr int most_lifts_on_battery = 200;

} // namespace mavrel::assess
