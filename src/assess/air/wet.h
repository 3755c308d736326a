// Where the water goes: a week of it by climate and use, days between drains, how long a dryer lasts, frost.
#pragma once

#include "air/water.h"
#include "assess/air/air_given.h"

namespace mavrel::assess {

/// Weather that air is taken in from.
struct Climate {
  const char* name;
  double temperature = 0; // K
  double humidity = 0;
};
/// A few to compare with; the build's own comes first in what `wet_in` gives.
[[nodiscard]] std::span<const Climate> climates();

struct Wet {
  Message name; // of the climate
  double temperature = 0, humidity = 0;
  double taken_in = 0;              // kg of water a week
  double liquid = 0;                // kg a week that falls out at the tank's pressure
  double trapped = 0;               // of it, in the trap
  double dried = 0;                 // of it, in the dryer while that lasts
  double in_tank = 0;               // of it, in the tank once the dryer is spent
  std::optional<double> drain_days; // until so much stands in the tank that it wants draining; none: it stays dry
  std::optional<double> dryer_days; // until the dryer is spent; none: there is none, or it never is
  bool freezes = false;             // water stands in the tank where nights go below freezing
};
/// Where the water goes of one kg of air that the compressor takes in, kg.
struct WaterOfAir {
  double taken_in = 0, liquid = 0, trapped = 0; // trapped: of what is liquid, in the trap
  [[nodiscard]] double past_trap() const { return liquid - trapped; }
};
/// @param temperature, humidity  K and share, of the air outside
/// Source: docs/models.md, "Water".
[[nodiscard]] WaterOfAir water_of_air(const AirGiven& given, double temperature, double humidity);
/// kg of water that may stand in the tank before it is let out; 0 without a tank
[[nodiscard]] double water_to_drain(const AirGiven& given);

/// @param air_a_day  kg that go through
/// Source: docs/models.md, "Water".
[[nodiscard]] std::vector<Wet> wet_in(const AirGiven& given, double air_a_day);

/// How often a tank is drained, as it comes round and as the owner is told.
struct DrainRound {
  double days = 0;
  bool known = false; // by the air that goes through; else by the month
};

} // namespace mavrel::assess
