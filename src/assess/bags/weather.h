// A parked car with its valves shut: the bags keep their air while it cools, warms or is carried up a mountain.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

/// What then holds the end.
enum class RestsOn { air, low_stop, high_stop };

struct SealedEnd {
  double from = 0, to = 0;                   // m, H, mean of both sides
  double pressure_from = 0, pressure_to = 0; // Pa gauge against the air around, at the mean load
  RestsOn rests_on = RestsOn::air;
  air::Beyond beyond = air::Beyond::nothing; // of the pressure it comes to
  std::array<double, 2> side_to{};           // m, left and right
  double lean = 0;                           // rad, left lower is positive, from what the sides differ
};

struct WeatherAnswer {
  enum class What { cold_night, mountain_pass, worked_hour };
  What what = What::cold_night;
  double begins = 0;                            // K, of the air in the bags as the valves were shut
  double temperature = 0;                       // K, of the air in the bags
  double altitude = 0;                          // m
  std::array<std::optional<SealedEnd>, 2> ends; // front, rear; none where something is missing
  std::optional<double> rake;                   // rad, nose down is positive, from what the ends differ
};
[[nodiscard]] const char* weather_name(WeatherAnswer::What what);

struct WeatherGiven {
  AnsweredEnds ends;
  std::array<std::optional<double>, 2> H; // m, where they stand; none: that end is left out
  std::size_t load_case = 0;
  build::Surroundings surroundings;
  std::optional<double> wheelbase; // m
  [[nodiscard]] auto parts() const { return std::tie(ends, H, load_case, surroundings, wheelbase); }
  friend bool operator==(const WeatherGiven&, const WeatherGiven&) = default;
};

/// The three things that happen to a parked or working car, from the pose given.
/// Source: docs/models.md, "Temperature and altitude".
[[nodiscard]] std::vector<WeatherAnswer> weather(const WeatherGiven& given);

struct WeatherQuestion {
  using Given = WeatherGiven;
  using Answer = std::vector<WeatherAnswer>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return weather(given); }
};

/// One corner: the height at which the air sealed at `H` carries the same mass in other surroundings. It stops only at
/// the end of the travel or of the card.
/// @param reach     H must lie in it: elsewhere the car does not stand
/// @param shut_off  K, of the air in the bag when the valves shut
/// @returns H and what holds it; or why there is no answer
struct SealedCorner {
  double H = 0;
  double pressure = 0; // Pa gauge in the new surroundings
  RestsOn rests_on = RestsOn::air;
};
[[nodiscard]] Expected<SealedCorner> sealed_corner(const FittedEnd& end, const Window& reach, double H,
                                                   double sprung_mass, double shut_off, const air::Ambient& to);

} // namespace mavrel::assess
