// A leak on this car: where it is held, when the corner is too low, how long the compressor works to make it up.
#pragma once

#include "air/leak.h"
#include "assess/air/figures.h"

namespace mavrel::assess {

struct LeakAsked {
  std::size_t place = 0; // 0 to 3: a corner's bag FL FR RL RR with what is open to it; 4: the tank
  std::size_t load_case = 0;
  std::vector<air::LeakReading> readings;
};
struct Leaking {
  air::Leak leak;
  double volume = 0;                    // m³ reckoned with
  double fell = 0;                      // Pa that the gauge fell from first to last
  double fell_by_cold = 0;              // Pa of it that the temperature alone explains
  bool cold_night = false;              // it fell, and the air is still there
  std::optional<double> too_low_after;  // s from the first reading until the corner leaves its road window
  double too_low_at = 0;                // m, H
  std::optional<double> compressor_day; // s a day that the compressor runs to make it up
};
/// m³ of a corner's bag at road height with its added volume, or of the tanks.
[[nodiscard]] Expected<double> held_volume(const AirGiven& given, std::size_t place);
/// Source: docs/models.md, "Leak".
[[nodiscard]] Expected<Leaking> leaking(const AirGiven& given, const LeakAsked& asked);

} // namespace mavrel::assess
