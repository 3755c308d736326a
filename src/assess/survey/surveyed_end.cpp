#include "assess/survey/surveyed_end.h"

#include "curve/readings.h"
#include "motion/wheel.h"

#include <algorithm>

namespace mavrel::assess {

using build::SpringPlace;
using build::StopPlace;

SurveyGiven survey_given(const build::Build& build, End end, const std::vector<build::LoadMass>& fitted) {
  SurveyGiven out{end, build.end(end), floors_of(build), build.body.wheelbase, masses_of(build, fitted)};
  out.survey.rating.reset();
  out.survey.bar_rate.reset();
  out.survey.roll_centre.reset();
  out.survey.extra.clear();
  for (build::Corner& corner : out.survey.corners) {
    corner.floor.reset(); // among the floors
    corner.extra.clear();
  }
  return out;
}

namespace {

/// What is usual for the layout, where it was not taken; written down as such.
void fill_in(const build::EndSurvey& survey, SurveyedEnd& out) {
  const StandIns usual = stand_ins(survey.layout);
  const auto take = [&](std::optional<double>& to, const char* field, Kind kind, const Usual& figure) {
    if (to) return;
    to = figure.value;
    out.estimated.push_back({field, kind, figure});
  };
  take(out.motion_ratio, "motion_ratio", Kind::plain, usual.motion_ratio);
  take(out.spring_length, "spring_length_m", Kind::length, usual.spring_length);
  if (survey.spring_place == SpringPlace::around_damper && !out.damper_ratio)
    out.damper_ratio = out.motion_ratio; // one and the same: if it is usual, that was said above
  take(out.damper_ratio, "damper_ratio", Kind::plain, usual.damper_ratio);
}

/// A length of the sheet as a curve over height; none where it has too little of it.
std::optional<motion::CycleFit> fit_of(const List<build::CycleRow>& rows, std::optional<double> build::CycleRow::*what,
                                       std::vector<std::size_t>& used, std::optional<Message>& trouble) {
  std::vector<motion::CycleReading> readings;
  for (std::size_t i = 0; i < rows.size(); ++i)
    if (const auto& length = rows[i].*what) {
      readings.push_back({rows[i].height, *length});
      used.push_back(i);
    }
  if (readings.empty()) return std::nullopt;
  auto fit = motion::fit_cycle(readings);
  if (fit) return std::move(*fit);
  if (!trouble) trouble = fit.error();
  return std::nullopt;
}

/// What else was read on the way: of use where a curve goes through it, else left alone.
void read_cycle_extras(const build::EndSurvey& survey, SurveyedEnd& out) {
  const auto angles = [&](std::optional<double> build::CycleRow::*what) -> std::optional<motion::CycleFit> {
    std::vector<motion::CycleReading> readings;
    for (const build::CycleRow& row : survey.cycle)
      if (row.*what) readings.push_back({row.height, *(row.*what)});
    auto fit = motion::fit_cycle(readings, motion::least_misread_angle);
    return fit ? std::optional(std::move(*fit)) : std::nullopt;
  };
  out.camber_fit = angles(&build::CycleRow::camber);
  out.toe_fit = angles(&build::CycleRow::toe);
  std::vector<std::string> names;
  for (const build::CycleRow& row : survey.cycle)
    for (const build::CycleGap& gap : row.gaps)
      if (std::find(names.begin(), names.end(), gap.name) == names.end()) names.push_back(gap.name);
  for (const std::string& name : names) {
    std::vector<motion::CycleReading> readings;
    for (const build::CycleRow& row : survey.cycle)
      for (const build::CycleGap& gap : row.gaps)
        if (gap.name == name) readings.push_back({row.height, gap.value});
    if (auto fit = motion::fit_cycle(readings)) out.gap_fits.push_back({name, std::move(*fit)});
  }
  // A right side of too few rows says nothing; the left one's stands for it.
  std::optional<Message> nothing;
  out.right_spring_fit = fit_of(survey.cycle_right, &build::CycleRow::spring, out.right_rows, nothing);
  out.right_damper_fit = fit_of(survey.cycle_right, &build::CycleRow::damper, out.right_damper_rows, nothing);
  for (auto* fit : {&out.right_spring_fit, &out.right_damper_fit}) {
    if (!*fit || !out.height) continue;
    const bool holds = *out.height >= (*fit)->lowest - trusted_past_reading &&
                       *out.height <= (*fit)->highest + trusted_past_reading &&
                       (*fit)->length.read(*out.height).slope > 0;
    if (!holds) fit->reset();
  }
}

/// Reads the cycle sheet where the car stood on its wheels within what it covers.
void read_cycle(const build::EndSurvey& survey, SurveyedEnd& out) {
  if (survey.cycle.empty() || !out.height) return;
  const double H = *out.height;
  auto spring = fit_of(survey.cycle, &build::CycleRow::spring, out.spring_rows, out.cycle_trouble);
  auto damper = fit_of(survey.cycle, &build::CycleRow::damper, out.damper_rows, out.cycle_trouble);
  const auto covers = [&](const motion::CycleFit& fit) {
    if (H >= fit.lowest - trusted_past_reading && H <= fit.highest + trusted_past_reading) return true;
    if (!out.cycle_trouble)
      out.cycle_trouble = Message{words("The car stood at {0} on its wheels; the sheet goes from {1} to {2}."),
                                  {metres(H), metres(fit.lowest), metres(fit.highest)}};
    return false;
  };
  const auto rises = [&](const motion::CycleFit& fit) {
    if (fit.length.read(H).slope > 0) return true;
    if (!out.cycle_trouble)
      out.cycle_trouble =
          Message{words("Its lengths fall as the height grows: spring and height columns may be swapped."), {}};
    return false;
  };
  if (spring && covers(*spring) && rises(*spring)) {
    const auto at = spring->length.read(H);
    out.motion_ratio = at.slope;
    out.spring_length = at.value;
    out.spring_fit = std::move(spring);
  }
  if (damper && covers(*damper) && rises(*damper)) {
    const auto at = damper->length.read(H);
    out.damper_ratio = at.slope;
    out.damper_length = at.value;
    out.damper_fit = std::move(damper);
  }
}

} // namespace

SurveyedEnd surveyed_end(const SurveyGiven& given) {
  const build::EndSurvey& survey = given.survey;
  SurveyedEnd out;
  out.floor_correction = floor_corrections(given.floors)[build::at(given.end)];
  std::vector<double> sides;
  for (const Side side : build::both_sides)
    if (const auto height = curve::mean(survey.corners[build::at(side)].height.values)) {
      out.side_height[build::at(side)] = *height + out.floor_correction[build::at(side)];
      sides.push_back(*out.side_height[build::at(side)]);
    }
  out.height = curve::mean(sides);
  if (const auto wheel = motion::parse_wheel(survey.wheel)) out.tyre_radius = motion::wheel_space(*wheel).diameter / 2;
  out.unsprung_mass = unsprung_mass(survey);
  out.loads = end_loads(survey, given.end, given.wheelbase, given.masses);
  out.motion_ratio = curve::mean(survey.motion_ratio.values);
  out.spring_length = curve::mean(survey.spring_length.values);
  out.damper_ratio = curve::mean(survey.damper_ratio.values);
  if (!out.damper_ratio && survey.spring_place == SpringPlace::around_damper) out.damper_ratio = out.motion_ratio;
  out.damper_length = curve::mean(survey.damper_length.values);
  out.damper_open = curve::mean(survey.damper_open.values);
  out.damper_shut = curve::mean(survey.damper_shut.values);
  out.stop_gap = curve::mean(survey.bump_stop_gap.values);
  read_cycle(survey, out);
  read_cycle_extras(survey, out);
  if (out.height) fill_in(survey, out);
  out.stop_ratio = survey.bump_stop_place == StopPlace::wheel ? std::optional(1.0) : out.damper_ratio;
  return out;
}

} // namespace mavrel::assess
