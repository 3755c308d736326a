// A part of an air kit as its card tells it: compressors, tanks, valves, lines and all that stands between.
#pragma once

#include "air/flow.h"
#include "build/table.h"
#include "quantity/message.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace mavrel::shelf {

enum class PartKind {
  compressor,
  tank,
  valve_block,
  hand_valve,
  line,
  fitting,
  check_valve,
  trap,
  dryer,
  pressure_switch,
  relief_valve,
  drain,
  silencer,
  gauge,
  sensor,
  hand_switch,
};

/// One point of a compressor's curve.
struct CompressorPoint {
  double pressure = 0; // Pa gauge
  double air = 0;      // m³/s of the air around
  double current = 0;  // A
  build::Extra extra;
  friend bool operator==(const CompressorPoint&, const CompressorPoint&) = default;
};

/// Openings of one thread.
struct PartPort {
  std::string thread; // `G 1/4`
  double count = 1;
  build::Extra extra;
  friend bool operator==(const PartPort&, const PartPort&) = default;
};

/// All figures SI, pressures gauge. Which of them a kind needs stands in shelf/part_check.cpp.
struct Part {
  PartKind kind = PartKind::fitting;
  std::string name, maker, notes;
  std::optional<double> mass;                         // kg
  std::optional<double> length, width, height;        // m, as a box
  std::optional<double> price;                        // in the shop's money
  std::optional<double> conductance, ratio;           // C and b of one way through
  std::optional<double> vent_conductance, vent_ratio; // of a block's vents; the fill's when absent
  std::optional<double> bore, outer, least_bend;      // m, of a line
  std::optional<double> rated_pressure;               // Pa
  std::vector<PartPort> ports;
  std::optional<double> voltage;                        // V at which the curve was taken
  std::vector<CompressorPoint> curve;                   // rising in pressure
  std::optional<double> start_current;                  // A
  std::optional<double> outlet;                         // K
  std::optional<double> longest_run, cools_in;          // s from cold until it must rest, and its time constant
  std::optional<double> sound;                          // dB at 1 m
  std::optional<double> volume;                         // m³
  std::optional<double> wall;                           // W/K
  std::optional<double> ways;                           // circuits of a block or valve
  std::optional<double> exhausts;                       // openings that all vents of a block share; one when absent
  std::optional<double> cut_in, cut_out, rated_current; // Pa and A, of a switch
  std::optional<double> opens_at;                       // Pa, of a relief valve
  std::optional<double> water_share;                    // of the liquid that comes by, of a trap
  std::optional<double> holds;                          // kg of water until a dryer is spent
  std::optional<double> error;                          // Pa either way, of a gauge
  build::Extra extra;
  friend bool operator==(const Part&, const Part&) = default;

  /// How air gets through one way of it; none where it stands in no one's way.
  [[nodiscard]] std::optional<air::Restriction> through() const {
    if (!conductance) return std::nullopt;
    return air::Restriction{*conductance, ratio.value_or(0.3)};
  }
};

[[nodiscard]] const char* part_kind_name(PartKind kind);

/// What makes a part unusable, naming the figure; none: it can be used.
[[nodiscard]] std::optional<Message> mistake_in_part(const Part& part);
/// What was probably mistyped: the part works.
[[nodiscard]] std::vector<Message> doubts_of_part(const Part& part);

/// m³/s of a compressor at a pressure and a voltage: the card's, linear between points, in proportion to the voltage.
[[nodiscard]] double air_of(const Part& compressor, double pressure, double volts);
/// A at a pressure, the same way; a lower voltage turns it slower and not lighter, so the current stays.
[[nodiscard]] double current_of(const Part& compressor, double pressure);

} // namespace mavrel::shelf

namespace mavrel::build {
template <>
const Table& table_of<shelf::CompressorPoint>();
template <>
const Table& table_of<shelf::PartPort>();
template <>
const Table& table_of<shelf::Part>();
} // namespace mavrel::build
