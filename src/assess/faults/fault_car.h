// How this very car answers to what can be wrong with it: times over how freely its ways let air through, what a leak
// comes to in an hour and in millimetres, how long its tank takes by how much the compressor delivers.
#pragma once

#include "assess/faults/causes.h"
#include "assess/leveling/leveling_given.h"

#include <stop_token>

namespace mavrel::assess {

/// Seconds over the share of a way that is left, or of what a compressor delivers; both rising shares.
struct TimesOver {
  std::vector<double> shares, seconds;
  /// Read between its points, both in logarithms; beyond them it goes on as it came.
  [[nodiscard]] double at(double share) const;
};

/// A value: it refers to nothing.
struct FaultCar {
  FaultParts parts;
  std::vector<std::vector<std::size_t>> circuits; // corners, FL FR RL RR from 0
  std::array<TimesOver, 4> fill,
      vent; // s that a corner, or its axle, takes up and down by `time_step` from road height
  /// Of corners that a tee joins: the same over what their common valve lets through, all lines wide; else empty.
  std::array<TimesOver, 4> fill_valve, vent_valve;
  std::array<TimesOver, 4> feed;    // s up by `time_step` over what the way from the tank to the valves lets through
  TimesOver tank;                   // s from cut-in to cut-out
  double tank_air = 0;              // m³ of the tanks
  std::array<double, 4> air{};      // m³ of a corner's bag with what is beside it at road height
  std::array<double, 4> pressure{}; // Pa gauge at road height
  std::array<double, 4> a_newton{}; // Pa that a newton more at the wheel adds at road height
  /// Height (m) that a corner loses with so much of its air gone, at even shares from 0 to 1.
  std::array<std::vector<double>, 4> sinks;
  double cut_in = 0, cut_out = 0;  // Pa gauge
  double volts = 13;               // V at the compressors' terminals when well
  double ambient = air::sea_level; // Pa

  /// The corners that a tee joins with one, itself among them.
  [[nodiscard]] const std::vector<std::size_t>& joined(std::size_t corner) const;
  /// Share of its air that a hole of a conductance (m³/(s·Pa)) costs a corner in a first hour.
  [[nodiscard]] double hourly(std::size_t corner, double conductance) const;
  [[nodiscard]] double conductance(std::size_t corner, double hourly_share) const;
  [[nodiscard]] double tank_hourly(double conductance) const;
  [[nodiscard]] double tank_conductance(double hourly_share) const;
  /// m that a corner sinks when so much of its air is gone, 0 to 1.
  [[nodiscard]] double sunk(std::size_t corner, double share_lost) const;
};

struct FaultCarGiven {
  LevelingGiven leveling;
  friend bool operator==(const FaultCarGiven&, const FaultCarGiven&) = default;
};
/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped; else the car, or what of it is not known yet, said as a builder would
/// Source: docs/models.md, "Faults".
[[nodiscard]] std::optional<Expected<FaultCar>> fault_car(const FaultCarGiven& given, const std::stop_token& stop);

/// The kit with compressors that deliver a share of what their cards say.
[[nodiscard]] AirGiven with_delivery(AirGiven air, double share);

/// One corner of a car with something the matter, timed with its valve by hand: up by `time_step` from where it stands,
/// and down again.
/// @param car  at road height and well; `condition` is put in
/// @returns s up and down; none of what does not get there within `longest`
struct TimedCorner {
  std::optional<double> fill, vent;
};
[[nodiscard]] TimedCorner time_corner(const LearnedCar& car, const control::Condition& condition, std::size_t circuit,
                                      double longest);

} // namespace mavrel::assess
