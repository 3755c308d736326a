#include "assess/sampling/inputs.h"

#include "assess/kit/kit_parts.h"
#include "assess/sampling/read_fields.h"
#include "build/care.h"
#include "build/names.h"
#include "build/names_care.h"
#include "curve/linear.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <string_view>

namespace mavrel::assess {

namespace {

struct ToolRow {
  Tool tool;
  double minutes; // that one reading more takes
  double build::Doubts::*doubt;
  bool of_the_value; // a share of what is read
};
constexpr ToolRow tool_rows[] = {
    {Tool::tape, 2, &build::Doubts::tape, false},         {Tool::calliper, 2, &build::Doubts::calliper, false},
    {Tool::point, 6, &build::Doubts::point, false},       {Tool::scale, 8, &build::Doubts::scale, false},
    {Tool::level, 4, &build::Doubts::level, false},       {Tool::angle, 3, &build::Doubts::angle, false},
    {Tool::ratio, 10, &build::Doubts::ratio, true},       {Tool::gauge, 5, &build::Doubts::gauge, false},
    {Tool::card, 90, &build::Doubts::card, true},         {Tool::part, 20, &build::Doubts::part, true},
    {Tool::estimate, 20, &build::Doubts::estimate, true},
};
const ToolRow& row_of_tool(Tool tool) {
  return tool_rows[static_cast<std::size_t>(tool)];
}

/// Of what a way to a bag lets through, once its corners were timed: a stopwatch's.
constexpr double timed_way = 0.02;

double mean_of(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

double one_reading(const build::Doubts& d, Tool tool, double value) {
  const ToolRow& row = row_of_tool(tool);
  return row.of_the_value ? d.*row.doubt * std::abs(value) : d.*row.doubt;
}

/// Tool that a reading was taken with: as somebody said where it can be, else the usual.
Tool tool_of(const build::Doubts& d, const std::string& path, Tool usual, Kind kind) {
  if (d.taken_with.empty()) return usual;
  const std::string place = taken_place(path);
  for (const build::TakenWith& t : d.taken_with) {
    if (t.what != place) continue;
    const auto can = tools_for(usual, kind);
    if (std::find(can.begin(), can.end(), t.tool) != can.end()) return t.tool;
  }
  return usual;
}

/// What one reading more would leave. An estimate made again is no reading: what tells more is reading it, where that
/// can be done.
void take_again(const build::Doubts& d, DoubtInput& in) {
  const double n = static_cast<double>(in.count);
  in.again = in.own * std::sqrt(n / (n + 1));
  in.minutes = row_of_tool(in.tool).minutes;
  if (in.tool != Tool::estimate) return;
  in.again = in.own;
  for (const Tool tool : tools_for(in.usual, in.kind)) {
    const double read = one_reading(d, tool, in.value); // of this car, whoever's was estimated
    if (tool == Tool::estimate || read >= in.again) continue;
    in.again = read;
    // What is usually estimated is read with more trouble than what is usually read.
    in.minutes = in.usual == Tool::estimate ? std::max(row_of_tool(tool).minutes, row_of_tool(in.tool).minutes)
                                            : row_of_tool(tool).minutes;
  }
}

/// One reading of this value with the input's tool. An estimate of next to nothing is no surer than the usual tool.
double one_reading_of(const build::Doubts& d, const DoubtInput& in) {
  const double out = one_reading(d, in.tool, in.value);
  return in.tool == Tool::estimate && in.usual != Tool::estimate ? std::max(out, one_reading(d, in.usual, in.value))
                                                                 : out;
}

} // namespace

const char* tool_key(Tool tool) {
  for (const auto& row : build::names_of(tool))
    if (row.value == tool) return row.key;
  return "";
}
const char* tool_name(Tool tool) {
  return build::name_of(tool);
}

std::string taken_place(std::string_view path) {
  std::string out;
  for (std::size_t from = 0; from <= path.size();) {
    const std::size_t to = std::min(path.find('.', from), path.size());
    const std::string_view part = path.substr(from, to - from);
    if (part.find_first_not_of("0123456789") != std::string_view::npos)
      out += (out.empty() ? "" : ".") + std::string(part);
    from = to + 1;
  }
  return out;
}

std::vector<Tool> tools_for(Tool usual, Kind kind) {
  std::vector<Tool> out = {usual};
  const auto also = [&](std::initializer_list<Tool> tools) {
    for (const Tool tool : tools)
      if (tool != usual) out.push_back(tool);
  };
  switch (kind) {
  case Kind::length:
    also({Tool::tape, Tool::calliper, Tool::level});
    break;
  case Kind::mass:
    also({Tool::scale});
    break;
  case Kind::angle:
    also({Tool::angle});
    break;
  case Kind::plain:
    also({Tool::ratio});
    break;
  case Kind::pressure:
    also({Tool::gauge});
    break;
  default:
    break;
  }
  also({Tool::estimate});
  return out;
}

double DoubtInput::sd() const {
  return std::hypot(own, shared);
}

double doubt_of_mean(const std::vector<double>& readings, double tool) {
  const auto n = static_cast<double>(readings.size());
  if (readings.size() < 2) return tool;
  const double middle = mean_of(readings);
  double sum = 0;
  for (const double r : readings)
    sum += (r - middle) * (r - middle);
  const double s = std::sqrt(sum / (n - 1));
  // A few readings that happen to agree say less than many: Student's factor, as wide as one sigma of the normal.
  constexpr double one_sigma = 0.8413447460685429;
  const double t = curve::student_quantile(n - 1, 1 - one_sigma);
  // Nobody reads finer than a fifth of what the tool is usually good for, however alike the readings.
  return std::max(t * s, tool / 5) / std::sqrt(n);
}

namespace {

/// What goes by cards rather than by readings: the bags', and those of the air kit's parts.
void add_cards(const build::Build& build, const shelf::Shelf& shelf, std::vector<DoubtInput>& out) {
  const build::Doubts& d = build.doubts;
  const auto begin = [&](const std::string& path, Doubted what, Tool usual, Kind kind, double value) {
    DoubtInput in;
    in.path = path, in.what = what, in.kind = kind, in.value = value, in.usual = usual;
    in.tool = tool_of(d, path, usual, kind);
    return in;
  };
  const auto& fit = build.variant().fit;
  for (const build::End end : build::both_ends) {
    const std::string& bag = fit[build::at(end)].bag;
    if (bag.empty()) continue;
    DoubtInput in = begin(std::string(build::key_of(end)) + ".bag_card", Doubted::bag_card, Tool::card, Kind::share, 1);
    in.end = end;
    in.name = {words("{0} bag's card: {1}"), {build::name_of(end), bag}};
    // The same card at both ends is off alike.
    if (fit[0].bag == fit[1].bag)
      in.shared = one_reading_of(d, in), in.shared_with = "card";
    else
      in.own = one_reading_of(d, in);
    out.push_back(std::move(in));
  }
  const build::AirKit& kit = build.variant().air;
  const KitParts parts = kit_parts(kit, shelf);
  const auto part = [&](const char* path, Doubted what, KitRole role, const char* says) {
    if (!parts[role]) return;
    DoubtInput in = begin(path, what, Tool::part, Kind::share, 1);
    in.name = {words("{0}: {1}"), {parts[role]->name, says}};
    in.own = one_reading_of(d, in);
    out.push_back(std::move(in));
  };
  part("air.compressor_card", Doubted::compressor, KitRole::compressor, words("what it delivers"));
  part("air.tank_card", Doubted::tank, KitRole::tank, words("what it holds"));
  if (const shelf::Part* at = parts[KitRole::pressure_switch]; at && at->cut_out) {
    DoubtInput in = begin("air.pressure_switch", Doubted::pressure_switch, Tool::gauge, Kind::pressure, *at->cut_out);
    in.name = {words("{0}: where it stops the compressor"), {at->name}};
    in.own = one_reading_of(d, in);
    out.push_back(std::move(in));
  }
  if (!parts[KitRole::valves]) return;
  for (const build::End end : build::both_ends) {
    DoubtInput in = begin(std::string(build::key_of(end)) + ".air_way", Doubted::way, Tool::part, Kind::share, 1);
    in.end = end;
    in.name = {words("{0}: what valves, fittings and lines let through"), {build::name_of(end)}};
    in.own = one_reading_of(d, in);
    // A way that was timed is known by that.
    const std::size_t left = 2 * build::at(end);
    if (kit.learned_flow[left] && kit.learned_flow[left + 1]) in.own = std::min(in.own, timed_way);
    out.push_back(std::move(in));
  }
}

} // namespace

std::vector<DoubtInput> doubt_inputs(const build::Build& build, const shelf::Shelf& shelf) {
  std::vector<DoubtInput> out;
  build::Build copy = build;
  const build::Doubts& d = build.doubts;
  walk_readings(
      copy, true, [&](const Read& read, const build::NumberSpec& spec, const std::string& path, const Message& label) {
        DoubtInput in;
        in.path = path, in.name = label, in.kind = spec.kind, in.usual = read.field->tool;
        in.tool = tool_of(d, path, in.usual, in.kind);
        const std::vector<double> readings = read.readings ? *read.readings : std::vector<double>{*read.number};
        in.count = readings.size();
        in.value = mean_of(readings);
        in.own = doubt_of_mean(readings, one_reading_of(d, in));
        for (const build::Taken& taken : build.origin->taken)
          if (path.starts_with(taken.path)) in.another_car = true;
        if (in.another_car) in.own *= d.other_car;
        if (in.tool == Tool::scale) in.shared = d.scale_shared * in.value, in.shared_with = "scale";
        if (in.tool == Tool::level) {
          // A level that is off tips the floor: one side up, the other down.
          in.shared = (read.field->in == "left" ? 1 : -1) * d.level_shared, in.shared_with = "level";
        }
        out.push_back(std::move(in));
      });
  add_cards(build, shelf, out);
  for (DoubtInput& in : out)
    take_again(d, in);
  return out;
}

std::vector<Message> wrong_tools(const build::Doubts& doubts, const std::vector<DoubtInput>& inputs) {
  std::vector<Message> out;
  for (const build::TakenWith& t : doubts.taken_with) {
    const auto of = std::find_if(inputs.begin(), inputs.end(),
                                 [&](const DoubtInput& in) { return taken_place(in.path) == t.what; });
    if (of == inputs.end()) continue; // not read yet, or not any more
    const auto can = tools_for(of->usual, of->kind);
    if (std::find(can.begin(), can.end(), t.tool) == can.end())
      out.push_back({words("{0} is not read with: {1}. The usual tool's doubt stands for it."),
                     {t.what, build::name_of(t.tool)}});
  }
  return out;
}

} // namespace mavrel::assess
