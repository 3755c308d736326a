// What a number measures, and the units people read it in. Inside, every number is SI.
#pragma once

#include <string>

namespace mavrel {

/// What a number measures. The SI unit it is stored in stands behind it.
enum class Kind {
  length,           // m
  mass,             // kg
  force,            // N
  pressure,         // Pa, gauge unless its name says absolute
  volume,           // m³
  temperature,      // K
  temperature_step, // K, a difference
  frequency,        // Hz
  angle,            // rad
  stiffness,        // N/m
  time,             // s
  altitude,         // m above the sea, shown in m where lengths are in mm
  speed,            // m/s, of a damper
  road_speed,       // m/s, of the car
  turning,          // N·m/rad, stiffness against turning or lean
  minutes,          // s, of things that take minutes
  hours,            // s, of a day's work
  days,             // s, of what comes round after days
  distance,         // m driven, shown in km
  current,          // A
  voltage,          // V
  charge,           // A·s, shown in A·h
  section,          // m², of a cable, shown in mm²
  air_flow,         // m³/s of the air around
  conductance,      // m³/(s·Pa), sonic conductance
  heat_flow,        // W/K
  sound,            // dB
  acceleration,     // m/s²
  burst_gain,       // s/m, of open valve for an error of height, shown in ms/mm
  pressure_gain,    // s/Pa, of open valve for an error of pressure
  share,            // 1, shown in %
  plain,            // 1
};

enum class LengthUnit { mm, inch };
enum class PressureUnit { bar, psi, kpa };
enum class MassUnit { kg, lb };
enum class TemperatureUnit { celsius, fahrenheit };

/// How one person likes numbers shown. A bare typed number is read in the same units.
struct UnitPrefs {
  LengthUnit length = LengthUnit::mm;
  PressureUnit pressure = PressureUnit::bar;
  MassUnit mass = MassUnit::kg;
  TemperatureUnit temperature = TemperatureUnit::celsius;
  double finger = 0.017; // width of one finger, m

  friend bool operator==(const UnitPrefs&, const UnitPrefs&) = default;
};

constexpr double standard_gravity = 9.80665; // m/s²

} // namespace mavrel
