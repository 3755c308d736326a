#include "assess/end_model.h"

#include "assess/load.h"
#include "curve/readings.h"
#include "motion/wheel.h"

namespace mavrel::assess {

using build::SpringPlace;

double EndModel::spring_force(double sprung_mass, double H, const motion::MapPoint& at) const {
  double others = H < other_slack ? other_rate * (other_slack - H) : 0;
  if (damper_gas != 0 && map->has_damper()) others += damper_gas * map->damper(H).slope;
  return (sprung_mass * standard_gravity - others) / at.motion_ratio;
}

std::array<double, 2> EndModel::bag_masses(const EndLoad& load) const {
  const double half = joined ? 0 : 0.5 * (load.side_mass[0] - load.side_mass[1]) * side_lever;
  return {load.sprung_mass + half, load.sprung_mass - half};
}

bool is_solid_axle(build::Layout layout) {
  using build::Layout;
  return layout == Layout::axle_parallel_links || layout == Layout::axle_triangulated_links ||
         layout == Layout::axle_was_leaves;
}

std::optional<double> spring_base(const build::EndSurvey& survey) {
  if (!is_solid_axle(survey.layout)) return survey.track;
  if (survey.spring_base) return survey.spring_base;
  return survey.track ? std::optional(usual_spring_base * *survey.track) : std::nullopt;
}

std::array<std::array<double, 2>, 2> floor_corrections(const build::Build& build) {
  std::array<std::array<double, 2>, 2> z{};
  for (const End end : build::both_ends)
    for (const Side side : build::both_sides) {
      const auto floor = build.end(end).corners[build::at(side)].floor;
      if (!floor) return {};
      z[build::at(end)][build::at(side)] = *floor;
    }
  // A plane follows any tilt; what four points leave of it is pure twist, equal at all corners but for its sign.
  const double twist = (z[0][0] - z[0][1] - z[1][0] + z[1][1]) / 4;
  return {{{twist, -twist}, {-twist, twist}}};
}

namespace {

std::optional<double> surveyed_height(const build::EndSurvey& survey, const std::array<double, 2>& correction) {
  std::vector<double> sides;
  for (const Side side : build::both_sides)
    if (const auto height = curve::mean(survey.corners[build::at(side)].height.values))
      sides.push_back(*height + correction[build::at(side)]);
  return curve::mean(sides);
}

std::optional<double> damper_ratio(const build::EndSurvey& survey, std::optional<double> motion_ratio) {
  if (const auto own = curve::mean(survey.damper_ratio.values)) return own;
  if (survey.spring_place == SpringPlace::around_damper) return motion_ratio;
  return std::nullopt;
}

} // namespace

EndModel end_model(const build::Build& build, End end, const std::vector<CaseLoad>& loads) {
  const build::EndSurvey& survey = build.end(end);
  const build::EndFit& fit = build.variant().fit[build::at(end)];
  EndModel out;
  out.end = end;
  out.brief = build.variant().brief;
  out.brief.presets.clear();
  out.setting.n = out.brief.exponent;
  out.setting.ambient = {build.surroundings.altitude, build.surroundings.temperature};
  if (fit.line == build::LineState::open) out.setting.added_volume = fit.added_volume;
  out.line = air::tube(fit.line_bore, fit.line_length);
  out.line_length = fit.line_length;
  out.unsprung_mass = unsprung_mass(survey);
  out.tyre_rate = survey.tyre_rate.value_or(usual_tyre_rate);
  out.friction = survey.friction;
  out.stop_give = survey.bump_stop_give;
  out.damper_gas = fit.damper_gas;
  out.joined = fit.sides == build::Sides::joined;
  out.room = survey.bag_room;
  if (is_solid_axle(survey.layout)) {
    // A base measured without a track is taken on a track that would make it usual.
    const bool measured = survey.spring_base && survey.track;
    out.side_lever = measured ? *survey.track / *survey.spring_base : 1 / usual_spring_base;
    out.spring_base_estimated = !survey.spring_base;
  }
  out.surveyed_height = surveyed_height(survey, floor_corrections(build)[build::at(end)]);
  if (const auto wheel = motion::parse_wheel(survey.wheel)) out.tyre_radius = motion::wheel_space(*wheel).diameter / 2;
  out.damper_open = fit.damper_open ? fit.damper_open : curve::mean(survey.damper_open.values);
  out.damper_shut = fit.damper_shut ? fit.damper_shut : curve::mean(survey.damper_shut.values);
  if (survey.other_spring_rate && survey.other_spring_slack) {
    out.other_rate = *survey.other_spring_rate;
    out.other_slack = *survey.other_spring_slack;
  }
  for (const CaseLoad& load : loads)
    out.loads.push_back(load.ends[build::at(end)]);

  const auto ratio = curve::mean(survey.motion_ratio.values);
  const auto spring = curve::mean(survey.spring_length.values);
  const auto at_damper = damper_ratio(survey, ratio);
  const auto damper = at_damper ? curve::mean(survey.damper_length.values) : std::nullopt;
  if (out.surveyed_height && ratio && spring)
    out.map = motion::TravelMap::linear(*out.surveyed_height, *spring, *ratio, damper, at_damper.value_or(1));
  const auto gap = curve::mean(survey.bump_stop_gap.values);
  out.stop_ratio = survey.bump_stop_place == build::StopPlace::wheel ? std::optional(1.0) : at_damper;
  if (gap && out.surveyed_height && out.stop_ratio) out.stop_height = *out.surveyed_height - *gap / *out.stop_ratio;
  return out;
}

std::optional<double> wished_height(const build::HeightWish& wish, const EndModel& model) {
  switch (wish.as) {
  case build::HeightWish::As::height:
    return wish.value;
  case build::HeightWish::As::gap:
    if (!model.tyre_radius) return std::nullopt;
    return *model.tyre_radius + wish.value;
  case build::HeightWish::As::drop:
    if (!model.surveyed_height) return std::nullopt;
    return *model.surveyed_height - wish.value;
  }
  return std::nullopt;
}

build::HeightWish wish_for_height(double H, const build::HeightWish& like, std::optional<double> surveyed_height,
                                  std::optional<double> tyre_radius) {
  build::HeightWish out = like;
  if (like.as == build::HeightWish::As::gap && tyre_radius)
    out.value = H - *tyre_radius;
  else if (like.as == build::HeightWish::As::drop && surveyed_height)
    out.value = *surveyed_height - H;
  else {
    out.as = build::HeightWish::As::height;
    out.value = H;
  }
  return out;
}

} // namespace mavrel::assess
