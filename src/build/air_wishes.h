// What is wanted of the air.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_day_moves = 12;

/// A move between two presets, so many times a day.
struct DayMove {
  std::string from, to; // names of presets
  double times = 1;     // a day
  Extra extra;
  friend bool operator==(const DayMove&, const DayMove&) = default;
};

/// What is wanted of the air.
struct AirWishes {
  double rise = 6;             // s from parked to road height at most
  double lifts = 3;            // from a full tank, compressor off
  double ready = 300;          // s at most until the tank is full again after one
  double current = 45;         // A at most, while it runs
  std::optional<double> sound; // dB at most at 1 m
  std::optional<double> room;  // m³ at most that all parts take as boxes
  double drive = 3600;         // s a day that the engine runs
  std::vector<DayMove> day;    // empty: two lifts and two drops between parked and road
  Extra extra;
  friend bool operator==(const AirWishes&, const AirWishes&) = default;
};

template <>
const Table& table_of<DayMove>();
template <>
const Table& table_of<AirWishes>();

} // namespace mavrel::build
