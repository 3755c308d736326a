// A leak on this car: where it is held, when the corner is too low, how long the compressor works to make it up.
#pragma once

#include "air/leak.h"
#include "assess/air/figures.h"

namespace mavrel::assess {

struct LeakAsked {
  std::size_t place = 0; // 0 to 3: a corner FL FR RL RR, line and bag; 4: the tank; 5 to 8: a corner's bag alone
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
constexpr std::size_t tank_place = 4, bag_places = 5, leak_places = 9;
/// The corner of a place; none of the tank.
[[nodiscard]] constexpr std::optional<std::size_t> corner_of(std::size_t place) {
  if (place == tank_place) return std::nullopt;
  return place < tank_place ? place : place - bag_places;
}

/// m³ of a corner's bag at road height with its added volume, or of the tanks.
[[nodiscard]] Expected<double> held_volume(const AirGiven& given, std::size_t place);
/// Source: docs/models.md, "Leak".
[[nodiscard]] Expected<Leaking> leaking(const AirGiven& given, const LeakAsked& asked);

/// What readings of several places say together: which leaks most, and of a corner read with and without its line
/// which of the two it is.
struct LeakPlaces {
  std::vector<std::optional<Expected<Leaking>>> places = std::vector<std::optional<Expected<Leaking>>>(leak_places);
  std::optional<std::size_t> worst;                     // of those that leak
  std::array<std::optional<double>, 4> by_line, by_bag; // kg/s, of corners where both were read
};
[[nodiscard]] LeakPlaces leaks_together(const AirGiven& given,
                                        const std::vector<std::vector<air::LeakReading>>& readings,
                                        std::size_t load_case);

} // namespace mavrel::assess
