#include "link/bench_fault.h"

#include "link/bench_line.h"
#include "quantity/quantity.h"

#include <algorithm>
#include <sstream>

namespace mavrel::link {

namespace {

enum class Played { pinched, leak, stuck_shut, stuck_open, sensor, flipped, weak };

struct Row {
  Played what;
  const char* key;
  bool at_corner;
  Kind unit;
  double least, most;
  bool has_amount;
};
constexpr Row rows[] = {
    {Played::pinched, "pinched", true, Kind::plain, 0, 1, true},
    {Played::leak, "leak", true, Kind::plain, 1e-13, 1e-7, true},
    {Played::stuck_shut, "stuck-shut", true, Kind::plain, 0, 0, false},
    {Played::stuck_open, "stuck-open", true, Kind::plain, 0, 0, false},
    {Played::sensor, "sensor", true, Kind::length, -0.2, 0.2, true},
    {Played::flipped, "flipped", true, Kind::plain, 0, 0, false},
    {Played::weak, "weak", false, Kind::plain, 0, 1, true},
};
constexpr double open_valve = 1.5e-8; // m³/(s·Pa), a fill valve that hangs open

control::Condition condition_of(Played what, std::size_t corner, double amount) {
  control::Condition out;
  control::CornerCondition& c = out.corners[corner];
  switch (what) {
  case Played::pinched:
    c.fill = c.vent = amount;
    break;
  case Played::leak:
    c.leak_line = amount;
    break;
  case Played::stuck_shut:
    c.fill = 0;
    break;
  case Played::stuck_open:
    c.leak_fill = open_valve;
    break;
  case Played::sensor:
    c.sensor_off = amount;
    break;
  case Played::flipped:
    c.sensor_flipped = true;
    break;
  case Played::weak:
    out.delivery = amount;
    break;
  }
  return out;
}

} // namespace

Expected<control::Condition> read_fault(const std::string& text) {
  std::istringstream in(text);
  std::string key, corner_text, amount_text;
  in >> key;
  const auto row = std::find_if(std::begin(rows), std::end(rows), [&](const Row& r) { return key == r.key; });
  if (row == std::end(rows))
    return refuse(words("“{0}” is no fault that can be played; pinched, leak, stuck-shut, stuck-open, sensor, flipped "
                        "and weak are."),
                  {text.substr(0, 60)});
  std::size_t corner = 0;
  double amount = 0;
  if (row->at_corner) {
    in >> corner_text;
    while (corner < 4 && corner_text != corner_key(corner))
      ++corner;
    if (corner == 4) return refuse(words("“{0}”: a corner, FL, FR, RL or RR, is right."), {text.substr(0, 60)});
  }
  if (row->has_amount) {
    std::getline(in >> std::ws, amount_text);
    const auto value = parse_quantity(amount_text, row->unit, {}, {});
    if (!value) return refuse(words("{0}: {1}"), {text.substr(0, 60), value.error()});
    if (!(*value >= row->least && *value <= row->most))
      return refuse(words("“{0}”: {1} to {2} can be played."),
                    {text.substr(0, 60), Amount{row->least, row->unit, -2}, Amount{row->most, row->unit, -2}});
    amount = *value;
  } else if (std::string more; in >> more) {
    return refuse(words("“{0}”: nothing is right behind the corner."), {text.substr(0, 60)});
  }
  return condition_of(row->what, corner, amount);
}

} // namespace mavrel::link
