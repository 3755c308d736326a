// What each kind of part must tell, and what about its figures can't be.
#include "air/gas.h"
#include "shelf/part_names.h"

#include <algorithm>
#include <cmath>

namespace mavrel::shelf {

namespace {

using Need = std::optional<double> Part::*;
struct NeedRow {
  PartKind kind;
  Need figure;
  const char* label;
};

constexpr NeedRow needs[] = {
    {PartKind::compressor, &Part::voltage, words("voltage of its curve")},
    {PartKind::compressor, &Part::mass, words("mass")},
    {PartKind::tank, &Part::volume, words("volume")},
    {PartKind::tank, &Part::rated_pressure, words("rated pressure")},
    {PartKind::valve_block, &Part::conductance, words("sonic conductance")},
    {PartKind::valve_block, &Part::ways, words("ways")},
    {PartKind::hand_valve, &Part::conductance, words("sonic conductance")},
    {PartKind::line, &Part::bore, words("bore")},
    {PartKind::line, &Part::outer, words("outer diameter")},
    {PartKind::line, &Part::rated_pressure, words("rated pressure")},
    {PartKind::line, &Part::least_bend, words("least bend radius")},
    {PartKind::fitting, &Part::conductance, words("sonic conductance")},
    {PartKind::check_valve, &Part::conductance, words("sonic conductance")},
    {PartKind::trap, &Part::conductance, words("sonic conductance")},
    {PartKind::dryer, &Part::conductance, words("sonic conductance")},
    {PartKind::dryer, &Part::holds, words("holds")},
    {PartKind::pressure_switch, &Part::cut_in, words("cut-in")},
    {PartKind::pressure_switch, &Part::cut_out, words("cut-out")},
    {PartKind::relief_valve, &Part::opens_at, words("opens at")},
    {PartKind::silencer, &Part::conductance, words("sonic conductance")},
};

Message at_point(std::size_t i, const char* what) {
  return {words("Point {0} of its curve: {1}"), {std::to_string(i + 1), what}};
}

std::optional<Message> mistake_in_curve(const Part& part) {
  if (part.curve.size() < 2) return Message{words("A compressor needs at least two points of its curve."), {}};
  for (std::size_t i = 1; i < part.curve.size(); ++i)
    if (!(part.curve[i].pressure > part.curve[i - 1].pressure))
      return at_point(i, words("its pressure must be above the last one's."));
  if (!(part.curve.front().air > 0)) return at_point(0, words("it delivers nothing."));
  return std::nullopt;
}

} // namespace

const char* part_kind_name(PartKind kind) {
  for (const auto& row : names_of(kind))
    if (row.value == kind) return row.name;
  return "";
}

std::optional<Message> mistake_in_part(const Part& part) {
  if (part.name.empty()) return Message{words("A part needs a name."), {}};
  for (const NeedRow& need : needs)
    if (need.kind == part.kind && !(part.*need.figure))
      return Message{words("A {0} needs its {1}."), {part_kind_name(part.kind), need.label}};
  if (part.kind == PartKind::compressor)
    if (auto wrong = mistake_in_curve(part)) return wrong;
  if (part.longest_run.has_value() != part.cools_in.has_value())
    return Message{words("How long it runs and in what time it cools belong together."), {}};
  if (part.kind == PartKind::pressure_switch && !(*part.cut_in < *part.cut_out))
    return Message{words("It cuts in at {0} and out at {1}; in below out is right."),
                   {pascals(*part.cut_in), pascals(*part.cut_out)}};
  if (part.kind == PartKind::line && !(*part.bore < *part.outer))
    return Message{words("Its bore of {0} is not inside its outer diameter of {1}."),
                   {metres(*part.bore, 1), metres(*part.outer, 1)}};
  if (part.kind == PartKind::tank && part.ports.empty())
    return Message{words("A tank needs at least one port, with its thread."), {}};
  for (const PartPort& port : part.ports)
    if (port.thread.empty()) return Message{words("Each port needs its thread."), {}};
  return std::nullopt;
}

std::vector<Message> doubts_of_part(const Part& part) {
  std::vector<Message> out;
  for (std::size_t i = 0; i < part.curve.size(); ++i) {
    const CompressorPoint& p = part.curve[i];
    if (i > 0 && p.air > part.curve[i - 1].air)
      out.push_back(at_point(i, words("it delivers more against more pressure.")));
    // Even without any loss the work of squeezing the air must come out of the battery.
    const double ratio = (p.pressure + air::sea_level) / air::sea_level;
    const double least = air::isentropic / (air::isentropic - 1) * air::sea_level * p.air *
                         (std::pow(ratio, 1 - 1 / air::isentropic) - 1);
    if (part.voltage && p.current > 0 && least > 0.85 * *part.voltage * p.current)
      out.push_back(at_point(i, words("so much air needs more current than that.")));
  }
  if (part.kind == PartKind::compressor && !part.curve.empty() && part.curve.back().pressure < 6e5)
    out.push_back(
        {words("Its curve ends at {0}; beyond, its last point is taken on."), {pascals(part.curve.back().pressure)}});
  if (part.start_current && !part.curve.empty()) {
    double most = 0;
    for (const CompressorPoint& p : part.curve)
      most = std::max(most, p.current);
    if (*part.start_current < most)
      out.push_back({words("It draws less starting than running: that is hardly so."), {}});
  }
  if (part.kind == PartKind::tank && part.length && part.width && part.height && part.volume &&
      *part.volume > *part.length * *part.width * *part.height)
    out.push_back({words("It holds more than its own outside."), {}});
  if (part.kind == PartKind::line) {
    if (*part.least_bend < 2 * *part.outer)
      out.push_back({words("A bend so narrow as {0} would kink a line of {1}."),
                     {metres(*part.least_bend), metres(*part.outer)}});
    if (*part.rated_pressure < 10e5)
      out.push_back({words("It is rated for {0} only: air-brake tubing holds more."), {pascals(*part.rated_pressure)}});
  }
  if (part.kind == PartKind::relief_valve && part.rated_pressure && *part.opens_at > *part.rated_pressure)
    out.push_back({words("It opens above what it is rated for."), {}});
  return out;
}

namespace {

double along(const std::vector<CompressorPoint>& curve, double p, double CompressorPoint::*what) {
  if (p <= curve.front().pressure) return curve.front().*what;
  if (p >= curve.back().pressure) return curve.back().*what;
  std::size_t i = 1;
  while (p >= curve[i].pressure)
    ++i;
  const CompressorPoint &a = curve[i - 1], &b = curve[i];
  return a.*what + (b.*what - a.*what) * (p - a.pressure) / (b.pressure - a.pressure);
}

} // namespace

double air_of(const Part& compressor, double pressure, double volts) {
  return along(compressor.curve, pressure, &CompressorPoint::air) * volts / *compressor.voltage;
}
double current_of(const Part& compressor, double pressure) {
  return along(compressor.curve, pressure, &CompressorPoint::current);
}

} // namespace mavrel::shelf
