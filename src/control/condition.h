// What is the matter with a car, as what it does to its air, its valves, its sensors and what stands on it. Several
// faults add up in one condition.
#pragma once

#include "control/drive.h"

#include <array>
#include <cstddef>

namespace mavrel::control {

/// Of one corner, FL FR RL RR. As it stands here: nothing is the matter.
struct CornerCondition {
  double fill = 1, vent = 1;   // share that its way in, and out, still lets through
  double leak_line = 0;        // m³/(s·Pa) from line, fitting or seat to the air around, the line with the bag
  double leak_bag = 0;         // m³/(s·Pa) from the bag itself
  double leak_fill = 0;        // m³/(s·Pa) from the tank into the bag, past a fill valve that does not seat
  double sensor_off = 0;       // m that its sensor reads too high
  bool sensor_flipped = false; // it runs the wrong way about the height wanted
  std::size_t sensor_of = 4;   // the corner that its plug's sensor sits at; 4: its own
  std::size_t line_to = 4;     // the corner that its line feeds; 4: its own
  double load = 0;             // N more than was weighed
  bool crossed = false;        // what is to fill it lets it down, and the other way
  friend bool operator==(const CornerCondition&, const CornerCondition&) = default;
};

enum class CompressorRuns { by_switch, never, always };

struct Condition {
  std::array<CornerCondition, 4> corners;
  double feed = 1;        // share that the way from the tank to the valves still lets through
  double relief_at = 0;   // Pa gauge that a relief valve opens at too early; 0: none does
  double air_around = 0;  // K of the air around when it shows; 0: whatever it is
  double leak_tank = 0;   // m³/(s·Pa) from the tank to the air around
  double delivery = 1;    // share that the compressors still deliver
  double endurance = 1;   // share of the time that they may run before they must rest
  double cut_shift = 0;   // Pa that the switch's pressures lie higher
  double gauge_shift = 0; // Pa that the tank's gauge reads too high
  double volts_lost = 0;  // V less at the compressors' terminals; what that costs is in `delivery`
  CompressorRuns runs = CompressorRuns::by_switch;

  /// What else is the matter comes on top: shares multiply, leaks and shifts add up, and of two that swap or stick the
  /// later stands.
  void add(const Condition& more);
  friend bool operator==(const Condition&, const Condition&) = default;
};

/// Where a tee feeds both sides of an axle, what narrows both ways is that side's own line ...
[[nodiscard]] double line_share(const CornerCondition& corner);
/// ... and what narrows only one of them is the valve that both share: the narrowest that is said of it.
/// @param way  `fill` or `vent`
[[nodiscard]] double valve_share(const Condition& condition, const std::vector<std::size_t>& corners,
                                 double CornerCondition::*way);

/// A share below this is a way that is shut.
constexpr double shut_share = 1e-6;

/// Puts it into a car's network and its loads. The car stood even before; it stands as it will after a while.
/// @param car  with `circuits` among its lines
void put_in(RollingCarParts& car, const std::vector<ValvePair>& circuits, const Condition& condition);

/// What the sensor at a corner's plug makes of the heights. @param heights, targets  m, H as they are and as wanted
[[nodiscard]] double sensed(const std::array<double, 4>& heights, const std::array<double, 4>& targets,
                            std::size_t corner, const Condition& condition);

} // namespace mavrel::control
