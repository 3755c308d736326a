// By what rules a height controller works, every number of it. A plain value; control/controller.h follows it.
#pragma once

#include <optional>

namespace mavrel::control {

/// What a controller goes by and how it corrects.
enum class LevelMethod {
  bursts,        // heights: open for as long as the error asks for, shut, wait, look again
  until_reached, // heights: open until the height is there
  pressure,      // pressures, by bursts
  by_hand,       // a person with hand valves, who looks at the gauges now and then
};
/// How many height sensors; one at an end sits on its middle and reads the mean of both sides.
enum class LevelSensors { two, three_one_front, three_one_rear, four };
/// What is corrected as one.
enum class LevelBy { corner, axle };
enum class LevelOrder { together, front_first };
enum class HoldStill { no, yes };
/// Of the two places where a sensor's lever and rod can meet, the one with the greater or the lesser z.
enum class Crossing { above, below };

struct Rules {
  LevelMethod method = LevelMethod::bursts;
  LevelSensors sensors = LevelSensors::four;
  LevelBy by = LevelBy::corner;
  LevelOrder order = LevelOrder::together;
  double average = 4;                  // s that readings are averaged over
  double band = 0.005;                 // m, either way
  double pressure_band = 1e4;          // Pa, either way
  double wait = 5;                     // s after a correction in which nothing is done
  std::optional<double> gain;          // s of open valve for a metre; what bursts buy on this car when absent
  std::optional<double> pressure_gain; // s/Pa; likewise
  double least_burst = 0.05;           // s
  double most_burst = 1.0;             // s
  double samples = 50;                 // a second
  double watch = 0.5;                  // s averaged over while a valve is open until the height is there
  double valve_delay = 0.02;           // s from the order to the valve's moving, either way
  double look_every = 900;             // s between a person's looks at the gauges
  HoldStill braking = HoldStill::yes, cornering = HoldStill::yes, doors = HoldStill::yes;
  double hold_from = 1.5; // m/s², braking, pulling away or cornering harder than this holds it still
  friend bool operator==(const Rules&, const Rules&) = default;
};

} // namespace mavrel::control
