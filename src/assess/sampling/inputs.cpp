#include "assess/sampling/inputs.h"

#include "assess/end/fitted_end.h"
#include "assess/kit/kit_parts.h"
#include "assess/sampling/read_fields.h"
#include "build/care.h"
#include "build/names.h"
#include "build/names_care.h"
#include "curve/linear.h"
#include "curve/readings.h"

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
  if (in.what == Doubted::curvature || in.what == Doubted::damper_curvature) { // a cycle sheet tells it
    constexpr double sheet_minutes = 60, left = 0.3;
    in.again = left * in.own, in.minutes = sheet_minutes;
    return;
  }
  const double n = static_cast<double>(in.count);
  in.again = in.own * std::sqrt(n / (n + 1));
  in.minutes = row_of_tool(in.tool).minutes;
  if (in.tool != Tool::estimate) return;
  in.again = in.own;
  if (in.what == Doubted::tyre_size) return; // no field takes it: fitted and turned it is seen
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
  // A few readings that happen to agree say less than many: Student's factor, so wide that its band of nine in ten is
  // the normal's.
  constexpr double normal_95 = 1.6448536269514722;
  const double t = curve::student_quantile(n - 1, 0.05) / normal_95;
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
    const auto put = [&](const char* group, double doubt) {
      const bool alike = fit[0].bag == fit[1].bag;
      in.shared = alike ? doubt : 0, in.own = alike ? 0 : doubt;
      in.shared_with = alike ? group : "";
      out.push_back(in);
    };
    put("card", one_reading_of(d, in));
    in.path = std::string(build::key_of(end)) + ".bag_volumes", in.what = Doubted::bag_volume;
    in.name = {words("{0} bag's card: volumes of {1}"), {build::name_of(end), bag}};
    put("card volumes", one_reading_of(d, in));
    in.path = std::string(build::key_of(end)) + ".bag_heights", in.what = Doubted::bag_height;
    in.name = {words("{0} bag's card: heights of {1}"), {build::name_of(end), bag}};
    in.kind = Kind::length;
    put("card heights", d.tape);
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

namespace {

struct StandInRow {
  const char *field, *label;
  build::Readings build::EndSurvey::*readings;
  std::optional<double> build::EndSurvey::*number;
};
constexpr StandInRow stand_in_rows[] = {
    {"motion_ratio", words("motion ratio"), &build::EndSurvey::motion_ratio, nullptr},
    {"damper_ratio", words("damper ratio"), &build::EndSurvey::damper_ratio, nullptr},
    {"spring_length_m", words("spring seat distance"), &build::EndSurvey::spring_length, nullptr},
    {"damper_length_m", words("damper length"), &build::EndSurvey::damper_length, nullptr},
    {"damper_open_m", words("damper open"), &build::EndSurvey::damper_open, nullptr},
    {"damper_shut_m", words("damper shut"), &build::EndSurvey::damper_shut, nullptr},
    {"unsprung_kg", words("unsprung mass"), nullptr, &build::EndSurvey::unsprung_mass},
    {"tyre_rate_n_per_m", words("tyre’s rate"), nullptr, &build::EndSurvey::tyre_rate},
};
const char* label_of_stand_in(std::string_view field) {
  for (const StandInRow& row : stand_in_rows)
    if (field == row.field) return row.label;
  return "";
}

/// How much a motion ratio usually changes for a metre of height, 1/m, by the layout.
double usual_curvature(build::Layout layout) {
  return is_solid_axle(layout) ? 0.25 : layout == build::Layout::strut ? 0.6 : 1.2;
}

/// What nobody read: a usual figure that stands in for it lies off further than any reading would.
void add_stand_ins(const build::Build& build, const shelf::Shelf& shelf, std::vector<DoubtInput>& out) {
  constexpr double unsprung_share = 0.2, tyre_share = 0.2; // of the usual figure
  constexpr double tyre_size = 0.003;       // m of a tyre's radius against its code: maker, wear, pressure
  if (!(build.doubts.estimate > 0)) return; // whoever says so has no doubt of what is usual either
  if (!build.end(build::End::front).wheel.empty() || !build.end(build::End::rear).wheel.empty()) {
    DoubtInput in;
    in.path = "variants." + std::to_string(build.active_variant) + ".brief.rooms.tyre_growth_m";
    in.name = {words("Tyres: their size against their code"), {}};
    in.what = Doubted::tyre_size, in.usual = in.tool = Tool::estimate, in.own = tyre_size;
    out.push_back(std::move(in));
  }
  for (const build::End end : build::both_ends) {
    const build::EndSurvey& survey = build.end(end);
    const FittedEnd fitted = fitted_end(build, shelf, end);
    const EndModel& model = fitted.model;
    if (!model.surveyed_height) continue;
    const auto add = [&](const char* field, Kind kind, Tool usual, double value, double doubt) {
      DoubtInput in;
      in.path = std::string(build::key_of(end)) + "." + field;
      in.name = {words("{0}: {1}, a usual figure"), {build::name_of(end), label_of_stand_in(field)}};
      in.what = Doubted::stand_in, in.kind = kind, in.end = end, in.usual = usual, in.tool = Tool::estimate;
      in.value = value, in.own = doubt;
      out.push_back(std::move(in));
    };
    for (const Estimate& e : model.estimated) {
      const std::string_view field = e.field;
      const double now = curve::mean(survey.damper_length.values).value_or(usual_damper_length);
      const double value = !e.from_now                ? e.usual.value
                           : field == "damper_open_m" ? now + e.usual.value
                                                      : now - e.usual.value;
      add(e.field, e.kind, e.kind == Kind::plain ? Tool::ratio : Tool::tape, value, e.usual.doubt);
    }
    if (!survey.unsprung_mass)
      add("unsprung_kg", Kind::mass, Tool::estimate, estimated_unsprung(survey.layout),
          unsprung_share * estimated_unsprung(survey.layout));
    if (!survey.tyre_rate)
      add("tyre_rate_n_per_m", Kind::stiffness, Tool::estimate, usual_tyre_rate, tyre_share * usual_tyre_rate);
    if (model.spring_from != MapSource::single_reading || !model.map) continue;
    DoubtInput in;
    in.path = std::string(build::key_of(end)) + ".cycle";
    in.name = {words("{0}: how its ratio changes over the travel, which nobody read"), {build::name_of(end)}};
    in.what = Doubted::curvature, in.kind = Kind::plain, in.end = end, in.usual = in.tool = Tool::estimate;
    in.own = usual_curvature(survey.layout);
    out.push_back(in);
    if (survey.spring_place == build::SpringPlace::around_damper) continue;
    in.name = {words("{0}: how its damper’s ratio changes over the travel, which nobody read"), {build::name_of(end)}};
    in.what = Doubted::damper_curvature;
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
        // A usual figure is no surer than an estimate; another car's as much less sure as the shop says.
        if (in.another_car && build.origin->car.empty() && build.origin->number.empty())
          in.own = std::max(in.own, one_reading(d, Tool::estimate, in.value));
        else if (in.another_car)
          in.own *= d.other_car;
        if (in.tool == Tool::scale) in.shared = d.scale_shared * in.value, in.shared_with = "scale";
        if (in.tool == Tool::level) {
          // A level that is off tips the floor: one side up, the other down.
          in.shared = (read.field->in == "left" ? 1 : -1) * d.level_shared, in.shared_with = "level";
        }
        out.push_back(std::move(in));
      });
  add_cards(build, shelf, out);
  add_stand_ins(build, shelf, out);
  for (DoubtInput& in : out)
    take_again(d, in);
  return out;
}

void put_stand_in(build::Build& build, const DoubtInput& in, double off) {
  build::EndSurvey& survey = build.end(in.end);
  const std::string_view path = in.path;
  const std::string_view field = path.substr(path.find('.') + 1);
  const double value = in.value + off;
  // A ratio or a length of nothing is none: it lies as far inside as it would have outside.
  const double least = 0.1 * in.value;
  for (const StandInRow& row : stand_in_rows) {
    if (field != row.field) continue;
    const double put = value < least ? 2 * least - value : value;
    if (row.readings) (survey.*row.readings).values = {put};
    if (row.number) survey.*row.number = put;
  }
  if (field.starts_with("damper_") && field != "damper_ratio" && survey.damper_length.values.empty())
    survey.damper_length.values = {usual_damper_length};
}

namespace {

/// Nowhere does it stop lengthening as the wheel drops.
double bent(double curvature, double slope, double reaches) {
  return std::clamp(curvature, -0.8 * slope / reaches, 0.8 * slope / reaches);
}

} // namespace

void put_curvature(build::Build& build, const DoubtInput& in, double curvature) {
  build::EndSurvey& survey = build.end(in.end);
  const auto heights = [&](std::size_t side) { return curve::mean(survey.corners[side].height.values); };
  const auto left = heights(0), right = heights(1);
  const auto ratio = curve::mean(survey.motion_ratio.values), length = curve::mean(survey.spring_length.values);
  if (!(left || right) || !ratio || !length) return;
  const double H = left && right ? (*left + *right) / 2 : left.value_or(right.value_or(0));
  const bool around = survey.spring_place == build::SpringPlace::around_damper;
  const auto damper_ratio = around ? ratio : curve::mean(survey.damper_ratio.values);
  const double damper_slope = damper_ratio.value_or(*ratio);
  // As a sheet would have it: so far that the whole travel lies on it.
  constexpr double reaches = 0.12;
  if (in.what == Doubted::damper_curvature) {
    for (build::CycleRow& row : survey.cycle)
      if (row.damper) *row.damper += bent(curvature, damper_slope, reaches) * (row.height - H) * (row.height - H) / 2;
    return;
  }
  constexpr int rows = 9;
  const auto damper = curve::mean(survey.damper_length.values);
  survey.cycle = {};
  for (int i = 0; i < rows; ++i) {
    const double d = reaches * (2.0 * i / (rows - 1) - 1);
    const double c = bent(curvature, *ratio, reaches);
    build::CycleRow row;
    row.height = H + d;
    row.spring = *length + *ratio * d + c * d * d / 2;
    if (damper && damper_ratio) row.damper = *damper + *damper_ratio * d + (around ? c * d * d / 2 : 0);
    survey.cycle.push_back(row);
  }
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
