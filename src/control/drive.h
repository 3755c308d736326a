// A car that keeps its height while it drives: road, trip and events in, heights, bursts and what they cost out.
#pragma once

#include "control/controller.h"
#include "control/rolling_car.h"

#include <memory>
#include <stop_token>

namespace mavrel::control {

/// A circuit of the car with the lines its valves work.
struct ValvePair {
  std::vector<std::size_t> corners; // FL FR RL RR from 0
  std::size_t fill = 0, vent = 0;   // lines of the network
};

/// What a corner's sensor makes of a height.
struct SensorReading {
  double counts_per_metre = 0; // 0: it reads exactly
  double noise = 0;            // counts
  friend bool operator==(const SensorReading&, const SensorReading&) = default;
};

struct DriveGiven {
  RollingCarParts car;
  std::vector<ValvePair> circuits;
  std::array<double, 4> target{};   // m, H wanted
  std::array<double, 4> pressure{}; // Pa gauge, learned at it
  std::vector<Gain> gains;          // one a circuit, see `learn_bursts`
  Rules rules;
  std::array<SensorReading, 4> sensors;
  double gauge_error = 0;           // Pa, of a person's reading
  std::shared_ptr<const Road> road; // never null; shared, never changed
  SpeedProfile profile = SpeedProfile::steady;
  double speed = 0, duration = 0; // m/s of a steady drive, s
  std::uint64_t seed = 1;
  std::vector<TripEvent> events;
  double altitude = 0; // m above the sea, where the drive begins
};

struct Burst {
  std::size_t circuit = 0;
  ValveOrder valve = ValveOrder::fill;
  double from = 0, until = 0; // s that the valve was open
};

/// The figures of one end, or of both together. Counts, seconds and kg are totals.
struct DriveFigures {
  double mean_error = 0; // m: of the height averaged over 10 s, less the wanted, without sign
  double usual_off = 0;  // m that it is off by no more than for all but a twentieth of the time
  double usual_low = 0;  // m, likewise below the wanted
  double worst_low = 0;  // m, the most that average lay below the wanted
  double in_band = 0;    // share of the time that average lay in the band
  int bursts = 0;
  double valve_s = 0;
  double air = 0;                // kg out of the tank
  double overshoot = 0;          // m past the wanted height after a correction
  std::optional<double> recover; // s from the first load event until back in the band for good; none: never
  double lean = 0;               // m, left less right averaged over the last minute
};

/// Twice a second: what lay between two looks.
struct DriveLook {
  float time = 0;                                     // s
  std::array<float, 4> height{}, lowest{}, highest{}; // m, H: mean, least and most
  float tank = 0;                                     // Pa gauge
  float speed = 0;                                    // m/s
};

struct DriveResult {
  std::array<DriveFigures, 2> ends; // front, rear
  DriveFigures together;
  double compressor_s = 0;
  double simulated = 0, wall = 0;                 // s
  int bottomed = 0, topped = 0;                   // metal on metal
  std::array<double, 4> lowest{}, highest{};      // m, H ever reached
  double tank_after = 0;                          // Pa gauge
  std::array<double, 4> pressure_after{};         // Pa gauge, averaged over the last 10 s
  std::vector<std::vector<std::size_t>> circuits; // the corners of each
  std::vector<DriveLook> looks;
  std::vector<Burst> bursts;
};

/// @param stop   looked at now and then; may be null
/// @param looks  wanted? They cost room, not time
/// @returns none where it was stopped
/// Source: docs/models.md, "Height control".
[[nodiscard]] std::optional<DriveResult> drive(const DriveGiven& given, const std::stop_token& stop = {},
                                               bool looks = true);

/// What one burst buys.
struct BurstBuys {
  double seconds = 0;              // of open valve
  double height = 0;               // m that the circuit's corners move by
  double pressure = 0;             // Pa
  std::array<double, 4> corners{}; // m, what each corner does
};
/// What bursts buy at a circuit, learned standing still as a careful controller does it.
struct LearnedBurst {
  BurstBuys up, down;
};
/// A burst up and one down at each circuit, the car standing level at its heights with its tank as given; each longer
/// until it moves something.
[[nodiscard]] std::vector<LearnedBurst> learn_bursts(const RollingCarParts& car,
                                                     const std::vector<ValvePair>& circuits);
/// Open valve for an error that leaves a quarter of it: nobody overshoots who stops short.
[[nodiscard]] std::vector<Gain> gains_of(const std::vector<LearnedBurst>& learned);

} // namespace mavrel::control
