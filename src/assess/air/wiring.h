// The kit's wiring, worked out: what is drawn, the cable it takes, fuse and relay, and what a drop costs in filling.
#pragma once

#include "air/cable.h"
#include "assess/air/air_given.h"

namespace mavrel::assess {

/// One feed from the battery.
struct Feed {
  std::vector<std::string> compressors; // that hang on it
  double running = 0;                   // A at cut-out
  double starting = 0;                  // A while one starts and the others run
  double length = 0;                    // m, one way
  Expected<air::Cable> cable;
  double drop_starting = 0; // V lost while it starts
  double relay = 0;         // A that the relay must bear: the next of those there are above 1.25 times what runs
  /// Does the starting peak blow a fuse that fits the running current? More than `fuse_bears_peak` times its rating.
  bool blows = false;
};
constexpr double fuse_bears_peak = 3; // of its rating, for the half second that a motor takes to spin up
constexpr double relay_coil = 0.18;   // A
/// A line of the list of what to wire.
struct WireRow {
  std::string from, to; // `battery +`, `fuse`
  Message what;
  double length = 0;                   // m
  std::optional<double> section, fuse; // mm² and A
};
struct Wiring {
  std::vector<Feed> feeds;
  double running = 0;  // A, all together at cut-out
  double starting = 0; // A at worst, with the second starting later
  std::vector<WireRow> rows;
  double coils = 0;     // A that the pressure switch's contacts carry: a relay's coil for each compressor
  bool at_once = false; // two compressors on one feed start together
  double volts = 0;     // V at the compressor's terminals at cut-out
  double slower = 0;    // share that filling takes longer than without any drop
};
/// @returns the wiring; or what is missing
/// Source: docs/models.md, "Cable".
[[nodiscard]] Expected<Wiring> wiring_of(const AirGiven& given);

} // namespace mavrel::assess
