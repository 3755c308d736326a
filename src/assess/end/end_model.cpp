#include "assess/end/end_model.h"

#include "assess/end/presets.h"
#include "assess/kit/kit_parts.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

double EndModel::spring_force(double sprung_mass, double H, const motion::MapPoint& at) const {
  double others = H < other_slack ? other_rate * (other_slack - H) : 0;
  if (damper_gas != 0 && map->has_damper()) others += damper_gas * map->damper(H).slope;
  return (sprung_mass * standard_gravity - others) / at.motion_ratio;
}

std::array<double, 2> EndModel::bag_masses(const EndLoad& load) const {
  const double half = joined ? 0 : 0.5 * (load.side_mass[0] - load.side_mass[1]) * side_lever;
  return {load.sprung_mass + half, load.sprung_mass - half};
}

EndGiven end_given(const build::Build& build, const shelf::Shelf& shelf, End end) {
  Answered<MotionQuestion> motion(
      motion_given(build, Answered<SurveyQuestion>(survey_given(build, end, kit_masses(build, shelf)))));
  return end_given(build, shelf, Answered<ClearanceQuestion>(clearance_given(build, std::move(motion))));
}

EndGiven end_given(const build::Build& build, const shelf::Shelf& shelf, Answered<ClearanceQuestion> clearance) {
  const std::size_t e = build::at(clearance.given().motion.given().survey.given().end);
  const build::Brief& all = build.variant().brief;
  EndGiven out{std::move(clearance),
               build.variant().fit[e],
               {},
               build.surroundings.altitude,
               build.surroundings.temperature,
               {},
               {},
               {},
               {},
               {}};
  out.fit.damper_curve.clear();
  out.fit.workshop = {};
  out.fit.checks.clear();
  out.fit.extra.clear();
  for (const build::Preset& preset : all.presets) {
    build::Preset& here = out.brief.presets.emplace_back();
    here.use = preset.use;
    here.parked = preset.parked;
    here.wish[e] = preset.wish[e];
    if (here.wish[e]) here.wish[e]->extra.clear();
  }
  out.brief.bump_travel = all.bump_travel;
  out.brief.rebound_reserve = all.rebound_reserve;
  out.brief.bag_margin = all.bag_margin;
  out.brief.bag_clearance = all.bag_clearance;
  out.brief.road_pressure_share = all.road_pressure_share;
  out.brief.exponent = all.exponent;
  if (!out.fit.bag.empty()) out.bag = shelf.take(out.fit.bag);
  out.tank_pressure = full_tank(build.variant().air, shelf);
  for (const build::LowPoint& p : build.body.underside) {
    const double middle = build.body.wheelbase.value_or(2.7) / 2;
    if ((p.x < middle) != (e == 0) || (out.belly && *out.belly <= p.z)) continue;
    out.belly = p.z;
    out.belly_name = p.name;
  }
  // Where a tee makes both sides of the other end alike, this one alone holds the car level.
  const std::size_t other = 1 - e;
  if (build.variant().fit[e].sides == build::Sides::joined || build.variant().fit[other].sides != build::Sides::joined)
    return out;
  const SurveyGiven& survey = out.survey().given();
  const End there = other == 0 ? End::front : End::rear;
  const auto tracks = std::pair(build.end(there).track, build.end(build::both_ends[e]).track);
  const double over = tracks.first && tracks.second ? *tracks.first / *tracks.second : 1;
  bool any = false;
  for (const auto& load : end_loads(build.end(there), there, survey.wheelbase, survey.masses)) {
    const double uneven = load ? (load->side_mass[0] - load->side_mass[1]) * over : 0;
    out.left_by_tee.push_back(uneven);
    any = any || uneven != 0;
  }
  if (!any) out.left_by_tee.clear();
  return out;
}

namespace {

/// The damper's three lengths: of those known none is changed, and the rest lies from them as usual.
/// @param open, shut  the fitted damper's, or the surveyed one's
void fill_damper(double ratio, const StandIns& usual, std::optional<double>& length, EndModel& out) {
  const Usual open{usual.droop.value * ratio, usual.droop.doubt * ratio};
  const Usual shut{usual.bump.value * ratio, usual.bump.doubt * ratio};
  const auto take = [&](std::optional<double>& to, const char* field, const Usual& figure) {
    if (to) return;
    to = figure.value;
    out.estimated.push_back({field, Kind::length, figure});
  };
  const double doubt = std::max(open.doubt, shut.doubt);
  if (out.damper_open && out.damper_shut) // where between its ends it stands
    take(length, "damper_length_m",
         {std::lerp(*out.damper_shut, *out.damper_open, shut.value / (shut.value + open.value)), doubt});
  else if (out.damper_open)
    take(length, "damper_length_m", {*out.damper_open - open.value, doubt});
  else if (out.damper_shut)
    take(length, "damper_length_m", {*out.damper_shut + shut.value, doubt});
  const bool nothing = !length; // no length at all was taken: only the ways from as it stands mean anything
  if (nothing) length = usual_damper_length;
  const auto away = [&](std::optional<double>& to, const char* field, const Usual& way, double sign) {
    if (to) return;
    to = *length + sign * way.value;
    out.estimated.push_back({field, Kind::length, nothing ? way : Usual{*to, way.doubt}, nothing});
  };
  away(out.damper_open, "damper_open_m", open, 1);
  away(out.damper_shut, "damper_shut_m", shut, -1);
}

/// From a cycle sheet or the joints' places as far as they go; else a straight line from one height.
/// @param learned  this car's motion ratio over what survey or joints say; its spring is as long as they say where it
/// was surveyed
motion::TravelMap map_of(const SurveyedEnd& read, const EndMotion& motion, const std::optional<double>& damper,
                         double learned) {
  const double H = motion.surveyed_height;
  if (!motion.spring && !motion.damper)
    return motion::TravelMap::linear(H, *read.spring_length, *read.motion_ratio * learned, damper, *read.damper_ratio);
  curve::Polynomial spring =
      motion.spring ? *motion.spring : curve::Polynomial{H, {*read.spring_length, *read.motion_ratio}};
  const double surveyed = spring.read(H).value;
  for (double& c : spring.c)
    c *= learned;
  if (!spring.c.empty()) spring.c[0] += (1 - learned) * surveyed;
  std::optional<curve::Polynomial> damper_curve;
  if (damper) damper_curve = motion.damper ? *motion.damper : curve::Polynomial{H, {*damper, *read.damper_ratio}};
  return motion::TravelMap::from_curves(std::move(spring), std::move(damper_curve), H, motion.lowest, motion.highest);
}

/// m that a design's mounting moves both ends of the damper's stroke by: a body set longer, or another mount.
double damper_shift(const build::Mounting& m) {
  return m.damper_longer + m.mount_thicker;
}

/// m that it brings the surveyed seats nearer to each other: around the damper a body takes its seat along, and a mount
/// has the other seat under it.
double seat_shift(const build::Mounting& m, const build::EndSurvey& survey) {
  return m.seat_raised + (survey.spring_place == build::SpringPlace::around_damper ? damper_shift(m) : 0);
}

/// The height at which the builder's school wants the bag straight; none while the brief has none such.
std::optional<double> height_of_school(const EndGiven& given, const EndModel& model) {
  const bool parked = given.fit.mounting.straight_at == build::StraightAt::parked;
  return height_of_use(given.brief, preset_heights(given.brief, model),
                       parked ? build::PresetUse::parked : build::PresetUse::road);
}

/// Where the bump stop meets. @param damper  m, eye to eye as surveyed
void place_stop(const SurveyedEnd& read, const EndMotion& motion, const build::EndSurvey& survey,
                const build::EndFit& fit, const std::optional<double>& damper, EndModel& out) {
  if (!read.stop_gap || !out.stop_ratio) return;
  // A seat or body set elsewhere leaves the stop's gap on the rod as it was; another body length moves it along.
  const double gap =
      *read.stop_gap - (survey.bump_stop_place == build::StopPlace::damper ? damper_shift(fit.mounting) : 0);
  if (survey.bump_stop_place == build::StopPlace::damper && motion.damper)
    out.stop_height = out.map->height_for_damper(*damper - gap);
  else
    out.stop_height = motion.surveyed_height - gap / *out.stop_ratio;
}

/// Each side by itself, where their maps differ.
void both_sides(const SurveyedEnd& read, const EndMotion& motion, const std::optional<double>& damper, double learned,
                EndModel& out) {
  if (!motion.springs && !motion.dampers) return;
  for (const Side side : build::both_sides) {
    const std::size_t s = build::at(side);
    EndMotion own;
    own.surveyed_height = motion.surveyed_height;
    own.spring = motion.springs ? (*motion.springs)[s] : motion.spring;
    own.damper = motion.dampers ? (*motion.dampers)[s] : motion.damper;
    own.lowest = motion.lowest, own.highest = motion.highest;
    auto model = std::make_shared<EndModel>(out);
    model->map = map_of(read, own, damper, learned);
    for (auto& load : model->loads) {
      if (!load) continue;
      const double carries = out.bag_masses(*load)[s];
      load->sprung_mass = carries;
      load->side_mass = {carries, carries};
    }
    model->side_lever = 1;
    out.sides[s] = std::move(model);
  }
}

} // namespace

EndModel end_model(const EndGiven& given) {
  const SurveyedEnd& read = *given.survey();
  const EndMotion& motion = *given.motion();
  const build::EndSurvey& survey = given.survey().given().survey;
  const build::EndFit& fit = given.fit;
  EndModel out;
  out.clearance = given.clearance;
  if (const double stack = fit.upper_stack + fit.lower_stack; stack > 0) out.upper_share = fit.upper_stack / stack;
  out.end = given.survey().given().end;
  out.layout = survey.layout;
  out.track = survey.track;
  out.base = spring_base(survey);
  out.brief = given.brief;
  out.brief.presets.clear();
  out.setting.n = out.brief.exponent;
  out.setting.ambient = {given.altitude, given.temperature};
  if (fit.line == build::LineState::open) out.setting.added_volume = fit.added_volume;
  out.line = air::tube(fit.line_bore, fit.line_length);
  out.line_length = fit.line_length;
  out.unsprung_mass = read.unsprung_mass;
  out.tyre_rate = survey.tyre_rate.value_or(usual_tyre_rate);
  out.friction = fit.learned_friction.value_or(survey.friction);
  out.stop_give = survey.bump_stop_give;
  out.damper_gas = fit.damper_gas;
  out.joined = fit.sides == build::Sides::joined;
  out.tank_pressure = given.tank_pressure;
  out.room = survey.bag_room;
  if (is_solid_axle(survey.layout)) {
    // A base measured without a track is taken on a track that would make it usual.
    const bool measured = survey.spring_base && survey.track;
    out.side_lever = measured ? *survey.track / *survey.spring_base : 1 / usual_spring_base;
    out.spring_base_estimated = !survey.spring_base;
  }
  out.surveyed_height = read.height;
  out.tyre_radius = read.tyre_radius;
  if (const auto& wheel = given.clearance->wheel) out.tyre_radius = wheel->radius;
  if (survey.other_spring_rate && survey.other_spring_slack) {
    out.other_rate = *survey.other_spring_rate;
    out.other_slack = *survey.other_spring_slack - fit.mounting.drop_spindle;
  }
  out.loads = read.loads;
  for (std::size_t c = 0; c < std::min(out.loads.size(), given.left_by_tee.size()); ++c)
    if (auto& load = out.loads[c])
      load->side_mass[0] += given.left_by_tee[c] / 2, load->side_mass[1] -= given.left_by_tee[c] / 2;
  out.damper_open = fit.damper_open ? fit.damper_open : read.damper_open;
  out.damper_shut = fit.damper_shut ? fit.damper_shut : read.damper_shut;
  out.stop_ratio = read.stop_ratio;
  out.seat_shift = seat_shift(fit.mounting, survey);
  out.off_room = fit.mounting.pocket_offset;
  if (!read.height) return out;
  out.legal_height = survey.legal_height;
  if (given.belly) { // larger tyres lift it
    const double lift = out.tyre_radius && read.tyre_radius ? *out.tyre_radius - *read.tyre_radius : 0;
    out.belly_height = *read.height - *given.belly - lift;
    out.belly_name = given.belly_name;
  }
  const double H = motion.surveyed_height; // where arms and springs stand as surveyed
  std::optional<double> damper = read.damper_length;
  double damper_ratio = *read.damper_ratio;
  for (const Estimate& estimate : read.estimated) {
    const std::string_view field = estimate.field;
    const bool solved = field.starts_with("damper") ? motion.damper.has_value() : motion.spring.has_value();
    if (!solved) out.estimated.push_back(estimate);
  }
  if (motion.damper) {
    const auto at = motion.damper->read(H);
    damper = at.value, damper_ratio = at.slope;
    if (survey.bump_stop_place == build::StopPlace::damper) out.stop_ratio = damper_ratio;
  }
  fill_damper(damper_ratio, stand_ins(survey.layout), damper, out);
  for (auto* end : {&out.damper_open, &out.damper_shut}) // measured or usual alike
    if (*end) **end += damper_shift(fit.mounting);
  out.map = map_of(read, motion, damper, fit.learned_ratio.value_or(1));
  out.motion_ratio = out.map->at(H).motion_ratio;
  out.spring_from = motion.spring_from;
  out.travel_ends = motion.travel_ends;
  // A bag around its damper turns with it.
  if (survey.spring_place == build::SpringPlace::apart)
    out.alignment = alignment_of(motion, fit.mounting, height_of_school(given, out).value_or(H));
  place_stop(read, motion, survey, fit, damper, out);
  both_sides(read, motion, damper, fit.learned_ratio.value_or(1), out);
  return out;
}

EndModel side_of(const EndModel& model, Side side) {
  EndModel out = *model.sides[build::at(side)];
  out.setting = model.setting;
  out.line = model.line;
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
