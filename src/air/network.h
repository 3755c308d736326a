// An air network: volumes, what lets air pass between them, compressors, and the bodies that stand on its bags. Plain
// data; air/simulation.h lets time pass in it.
#pragma once

#include "air/carriage.h"
#include "air/flow.h"
#include "air/gas.h"
#include "quantity/expected.h"

#include <algorithm>
#include <limits>
#include <string>
#include <utility>
#include <vector>

namespace mavrel::air {

/// Stands for the air around where a volume's index is wanted.
constexpr std::size_t outside = std::numeric_limits<std::size_t>::max();

/// Air that has one pressure and one temperature: a vessel, or a bag with what is one with it.
struct Volume {
  std::string name;
  double size = 0;             // m³ of a vessel; a bag's follows its height
  double gauge_pressure = 0;   // Pa, to begin with
  double temperature = 293.15; // K, to begin with
  double wall = 0;             // W/K to the air around
};

/// A way for air, of parts in series already added up.
struct Line {
  std::string name;
  std::size_t from = outside, to = outside; // indices of volumes
  Restriction through;
  bool one_way = false; // a check valve: from `from` to `to` only
  bool open = true;     // to begin with
  double opens_at = 0;  // Pa over what it lets out into, from which a relief valve lifts; 0: it is none
};

/// Share of its opening pressure over which a relief valve goes from shut to wide open.
constexpr double relief_lifts_over = 0.05;

struct Compressor {
  std::string name;
  std::size_t to = 0;                           // index of the volume it fills
  std::vector<std::pair<double, double>> curve; // Pa gauge, rising, and m³/s of the air around; its ends go on
  double outlet = 350;                          // K
  double cut_in = 0, cut_out = 0;               // Pa gauge, cut_in < cut_out
  bool running = false;                         // to begin with
  /// How long it may run from cold until it must rest, and how quickly it warms and cools; none: it never rests.
  struct Duty {
    double longest_run = 600;   // s
    double time_constant = 900; // s, of the first-order warming
    double rests_until = 0.35;  // of the warmth that stops it
  };
  std::optional<Duty> duty;
};

struct Network {
  double ambient_pressure = sea_level; // Pa
  double ambient_temperature = 293.15; // K
  std::vector<Volume> volumes;
  std::vector<Line> lines;
  std::vector<Compressor> compressors;
  std::vector<Body> bodies; // each bag under one leg of one of them
};

/// What makes a network impossible, said with the names of what is wrong; none: time may pass in it.
[[nodiscard]] std::optional<Message> mistake_in(const Network& network);

/// m³/s of the air around that a compressor delivers against a gauge pressure: linear between points, its ends go on.
[[nodiscard]] double delivery(const Compressor& compressor, double gauge_pressure);
/// kg/s of it.
[[nodiscard]] double mass_delivered(const Network& network, const Compressor& compressor, double gauge_pressure);

/// The air at one end of a line.
struct AirAt {
  double pressure = 0, temperature = 0; // Pa absolute, K
};
/// kg/s along an open line; below 0 it comes back, which a check valve does not let it do.
[[nodiscard]] inline double flow_along(const Line& line, const AirAt& from, const AirAt& to) {
  if (line.opens_at > 0) {
    const double over = from.pressure - to.pressure - line.opens_at;
    if (over <= 0) return 0;
    return std::min(1.0, over / (relief_lifts_over * line.opens_at)) *
           mass_flow(line.through, from.pressure, to.pressure, from.temperature);
  }
  if (from.pressure >= to.pressure) return mass_flow(line.through, from.pressure, to.pressure, from.temperature);
  return line.one_way ? 0 : -mass_flow(line.through, to.pressure, from.pressure, to.temperature);
}

} // namespace mavrel::air
