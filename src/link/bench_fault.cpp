#include "link/bench_fault.h"

#include "link/bench_line.h"
#include "quantity/quantity.h"

#include <algorithm>
#include <sstream>

namespace mavrel::link {

namespace {

struct Row {
  Fault::Kind kind;
  const char* key;
  bool at_corner;
  Kind unit;
  double least, most;
  bool has_amount;
};
constexpr Row rows[] = {
    {Fault::Kind::pinched, "pinched", true, Kind::plain, 0, 1, true},
    {Fault::Kind::leak, "leak", true, Kind::plain, 1e-13, 1e-7, true},
    {Fault::Kind::stuck_shut, "stuck-shut", true, Kind::plain, 0, 0, false},
    {Fault::Kind::stuck_open, "stuck-open", true, Kind::plain, 0, 0, false},
    {Fault::Kind::sensor, "sensor", true, Kind::length, -0.2, 0.2, true},
    {Fault::Kind::flipped, "flipped", true, Kind::plain, 0, 0, false},
    {Fault::Kind::weak, "weak", false, Kind::plain, 0, 1, true},
};

} // namespace

Expected<Fault> read_fault(const std::string& text) {
  std::istringstream in(text);
  std::string key, corner, amount;
  in >> key;
  const auto row = std::find_if(std::begin(rows), std::end(rows), [&](const Row& r) { return key == r.key; });
  if (row == std::end(rows))
    return refuse(words("“{0}” is no fault that can be played; pinched, leak, stuck-shut, stuck-open, sensor, flipped "
                        "and weak are."),
                  {text.substr(0, 60)});
  Fault out{row->kind, 0, 0};
  if (row->at_corner) {
    in >> corner;
    while (out.corner < 4 && corner != corner_key(out.corner))
      ++out.corner;
    if (out.corner == 4) return refuse(words("“{0}”: a corner, FL, FR, RL or RR, is right."), {text.substr(0, 60)});
  }
  if (row->has_amount) {
    std::getline(in >> std::ws, amount);
    const auto value = parse_quantity(amount, row->unit, {}, {});
    if (!value) return refuse(words("{0}: {1}"), {text.substr(0, 60), value.error()});
    if (!(*value >= row->least && *value <= row->most))
      return refuse(words("“{0}”: {1} to {2} can be played."),
                    {text.substr(0, 60), Amount{row->least, row->unit, -2}, Amount{row->most, row->unit, -2}});
    out.amount = *value;
  } else if (std::string more; in >> more) {
    return refuse(words("“{0}”: nothing is right behind the corner."), {text.substr(0, 60)});
  }
  return out;
}

void put_in(control::RollingCarParts& car, const std::vector<control::ValvePair>& circuits, const Fault& fault) {
  auto& lines = car.network.lines;
  const auto of_corner = [&](const control::ValvePair& pair) {
    return std::find(pair.corners.begin(), pair.corners.end(), fault.corner) != pair.corners.end();
  };
  const std::size_t bag = car.network.bodies.front().legs[fault.corner].volume;
  switch (fault.kind) {
  case Fault::Kind::pinched:
    // Where a tee feeds both sides, it is this side's own line.
    for (const control::ValvePair& pair : circuits)
      if (of_corner(pair)) {
        const bool tee = pair.corners.size() > 1;
        for (air::Line& line : lines) {
          const bool own = tee ? line.from == lines[pair.fill].to && line.to == bag
                               : &line == &lines[pair.fill] || &line == &lines[pair.vent];
          if (own) line.through.conductance *= std::max(fault.amount, 1e-6);
        }
      }
    break;
  case Fault::Kind::leak:
    lines.push_back({"leak", bag, air::outside, {fault.amount, 0.3}, false, true});
    break;
  case Fault::Kind::stuck_shut:
    for (const control::ValvePair& pair : circuits)
      if (of_corner(pair)) lines[pair.fill].through.conductance *= 1e-6;
    break;
  case Fault::Kind::stuck_open:
    for (const control::ValvePair& pair : circuits)
      if (of_corner(pair)) {
        air::Line through = lines[pair.fill];
        through.open = true, through.name = "stuck";
        lines.push_back(through);
      }
    break;
  case Fault::Kind::weak:
    for (air::Compressor& c : car.network.compressors)
      for (auto& [pressure, flow] : c.curve)
        flow *= fault.amount;
    break;
  case Fault::Kind::sensor:
  case Fault::Kind::flipped:
    break; // the air is as it was
  }
}

double sensed(double H, double target, std::size_t corner, const std::vector<Fault>& faults) {
  for (const Fault& f : faults) {
    if (f.corner != corner) continue;
    if (f.kind == Fault::Kind::sensor) H += f.amount;
    if (f.kind == Fault::Kind::flipped) H = 2 * target - H;
  }
  return H;
}

} // namespace mavrel::link
