#include "control/condition.h"

#include <algorithm>
#include <cmath>

namespace mavrel::control {

namespace {

constexpr double leak_ratio = 0.3; // critical pressure ratio of a hole
constexpr double never_cuts_out = 4e6;

double open_share(double share) {
  return std::max(share, shut_share);
}

void narrow(RollingCarParts& car, const ValvePair& pair, const Condition& condition) {
  auto& lines = car.network.lines;
  if (pair.corners.size() == 1) {
    const CornerCondition& c = condition.corners[pair.corners.front()];
    lines[pair.fill].through.conductance *= open_share(c.fill);
    lines[pair.vent].through.conductance *= open_share(c.vent);
    return;
  }
  for (const std::size_t corner : pair.corners) {
    const std::size_t bag = car.network.bodies.front().legs[corner].volume;
    for (air::Line& line : lines)
      if (line.from == lines[pair.fill].to && line.to == bag)
        line.through.conductance *= open_share(line_share(condition.corners[corner]));
  }
  lines[pair.fill].through.conductance *= open_share(valve_share(condition, pair.corners, &CornerCondition::fill));
  lines[pair.vent].through.conductance *= open_share(valve_share(condition, pair.corners, &CornerCondition::vent));
}

} // namespace

double line_share(const CornerCondition& corner) {
  return std::max(corner.fill, corner.vent);
}

double valve_share(const Condition& condition, const std::vector<std::size_t>& corners, double CornerCondition::*way) {
  double out = 1;
  for (const std::size_t i : corners)
    out = std::min(out, condition.corners[i].*way / open_share(line_share(condition.corners[i])));
  return out;
}

void Condition::add(const Condition& more) {
  for (std::size_t i = 0; i < corners.size(); ++i) {
    CornerCondition& a = corners[i];
    const CornerCondition& b = more.corners[i];
    a.fill *= b.fill, a.vent *= b.vent;
    a.leak_line += b.leak_line, a.leak_bag += b.leak_bag, a.leak_fill += b.leak_fill;
    a.sensor_off += b.sensor_off;
    a.sensor_flipped = a.sensor_flipped != b.sensor_flipped;
    if (b.sensor_of < 4) a.sensor_of = b.sensor_of;
    if (b.line_to < 4) a.line_to = b.line_to;
    a.load += b.load;
    a.crossed = a.crossed != b.crossed;
  }
  feed *= more.feed;
  if (more.relief_at > 0) relief_at = relief_at > 0 ? std::min(relief_at, more.relief_at) : more.relief_at;
  if (more.air_around > 0) air_around = more.air_around;
  leak_tank += more.leak_tank;
  delivery *= more.delivery;
  endurance *= more.endurance;
  cut_shift += more.cut_shift;
  gauge_shift += more.gauge_shift;
  volts_lost += more.volts_lost;
  if (more.runs != CompressorRuns::by_switch) runs = more.runs;
}

void put_in(RollingCarParts& car, const std::vector<ValvePair>& circuits, const Condition& condition) {
  air::Network& net = car.network;
  auto& legs = net.bodies.front().legs;
  if (condition.feed < 1)
    for (air::Line& line : net.lines)
      if (line.from == car.tank && line.to == net.lines[circuits.front().fill].from)
        line.through.conductance *= open_share(condition.feed);
  for (const ValvePair& pair : circuits) {
    narrow(car, pair, condition);
    for (const std::size_t corner : pair.corners) {
      const CornerCondition& c = condition.corners[corner];
      if (c.line_to < 4 && pair.corners.size() == 1) {
        net.lines[pair.fill].to = legs[c.line_to].volume;
        net.lines[pair.vent].from = legs[c.line_to].volume;
      }
      if (c.leak_fill > 0)
        net.lines.push_back(
            {"seat", net.lines[pair.fill].from, legs[corner].volume, {c.leak_fill, leak_ratio}, true, true});
    }
  }
  for (std::size_t corner = 0; corner < 4; ++corner) {
    const CornerCondition& c = condition.corners[corner];
    if (const double leak = c.leak_line + c.leak_bag; leak > 0)
      net.lines.push_back({"leak", legs[corner].volume, air::outside, {leak, leak_ratio}, false, true});
    net.bodies.front().loads[corner] += c.load;
  }
  for (const ValvePair& pair : circuits)
    if (std::any_of(pair.corners.begin(), pair.corners.end(),
                    [&](std::size_t corner) { return condition.corners[corner].crossed; })) {
      // What is ordered to fill opens the way out: the two lines change places.
      std::swap(net.lines[pair.fill], net.lines[pair.vent]);
    }
  if (condition.relief_at > 0) {
    air::Line early{"relief", car.tank, air::outside, {2e-8, leak_ratio}, true, true};
    early.opens_at = condition.relief_at;
    net.lines.push_back(std::move(early));
    net.volumes[car.tank].gauge_pressure = std::min(net.volumes[car.tank].gauge_pressure, condition.relief_at);
  }
  if (condition.leak_tank > 0)
    net.lines.push_back({"tank leak", car.tank, air::outside, {condition.leak_tank, leak_ratio}, false, true});
  for (air::Compressor& c : net.compressors) {
    for (auto& [pressure, flow] : c.curve)
      flow *= condition.runs == CompressorRuns::never ? 0 : condition.delivery;
    c.cut_in = std::max(c.cut_in + condition.cut_shift, 1e4);
    c.cut_out = condition.runs == CompressorRuns::always ? never_cuts_out
                                                         : std::max(c.cut_out + condition.cut_shift, c.cut_in + 1e4);
    if (condition.runs == CompressorRuns::never) c.running = false, c.cut_in = 1; // it stands still, whatever the tank
    if (condition.runs == CompressorRuns::always) c.running = true;
    if (condition.endurance < 1) {
      if (!c.duty) c.duty = air::Compressor::Duty{};
      c.duty->longest_run *= condition.endurance;
    }
  }
  // The tank stands where its switch lets it.
  if (condition.cut_shift != 0)
    net.volumes[car.tank].gauge_pressure = std::max(net.volumes[car.tank].gauge_pressure + condition.cut_shift, 0.0);
}

double sensed(const std::array<double, 4>& heights, const std::array<double, 4>& targets, std::size_t corner,
              const Condition& condition) {
  const CornerCondition& c = condition.corners[corner];
  const std::size_t at = c.sensor_of < 4 ? c.sensor_of : corner;
  double H = heights[at] + c.sensor_off;
  if (c.sensor_flipped) H = 2 * targets[corner] - H;
  return H;
}

} // namespace mavrel::control
