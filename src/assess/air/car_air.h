// The whole car as an air network: tank, valves, lines, tees, bags with what is beside them, and the body on top.
#pragma once

#include "air/simulation.h"
#include "assess/air/air_given.h"

namespace mavrel::assess {

/// A network with the indices of what is worked in it.
struct CarAir {
  air::Network network;
  std::size_t tank = 0;
  std::array<std::size_t, 4> bags{}; // volumes, FL FR RL RR
  struct Circuit {
    std::vector<std::size_t> corners; // FL FR RL RR from 0
    std::size_t fill = 0, vent = 0;   // lines
  };
  std::vector<Circuit> circuits;
  std::array<std::pair<double, double>, 4> travel{}; // m, H of the stops at each corner
};

struct CarStands {
  std::array<double, 2> heights{}; // m, H, front and rear
  std::size_t load_case = 0;
  double tank_pressure = 0; // Pa gauge
  bool compressor = false;  // the engine runs, so that it may
  bool aired_out =
      false; // bags vented to the gauge's rest, both ends on what stops them: the heights then are where they lie
  bool onto_stops = false; // of heights past a stop: it stands on that stop; else they are refused
};

/// @returns the network with all valves shut; or what is missing, or why the car can't stand so, said as a builder
/// would
[[nodiscard]] Expected<CarAir> car_air(const AirGiven& given, const CarStands& stands);

/// Of an end with what is fitted: see assess/end/travel.h.
/// @param end  with a map and a bag
/// @returns none where nothing is left between
[[nodiscard]] std::optional<std::pair<double, double>> standing_travel(const FittedEnd& end);

/// How an end that stays on its own springs gives: a usual ride, its rate is not surveyed. Hz
constexpr double usual_own_springs = 1.4;

/// A preset is on a stop when this near to it, m.
constexpr double preset_on_stop = 5e-4;
/// Past a stop by more than this it is short of its preset, m: as near as anybody sets a height.
constexpr double preset_short_by = 2e-3;
/// That a height is none the end can be moved to.
[[nodiscard]] Message outside_travel(End end, double H, const std::pair<double, double>& travel);

/// What the tank would be full at. @returns none where nobody knows: no switch, and not by shop air alone
[[nodiscard]] std::optional<double> full_tank(const AirGiven& given);

/// Pa gauge that a compressor works against while the tank stands at a pressure: that, and what check valve, trap and
/// dryer hold back of what it gives.
[[nodiscard]] double pressure_at_pump(const AirGiven& given, const shelf::Part& pump, double tank);

/// Only the tank and what fills it: its compressors, or of a kit without any the shop's air.
/// @param pressure  Pa gauge of the tank to begin with
[[nodiscard]] Expected<air::Network> tank_alone(const AirGiven& given, double pressure, bool running);

} // namespace mavrel::assess
