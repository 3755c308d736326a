#include "assess/fit_up/features.h"

#include "assess/leveling/leveling_findings.h"
#include "motion/workshop.h"

namespace mavrel::assess {

using build::Feature;

FitUpGiven fit_up_given(const build::Build& build, const RoomGiven& room, Answered<SensorQuestion> sensors) {
  const build::Variant& variant = build.variant();
  return {room,
          std::move(sensors),
          variant.leveling,
          variant.fit,
          variant.fit_up,
          build.shop,
          variant.proving,
          variant.brief.gauge_error,
          variant.brief.load_doubt,
          build.job.car,
          build.job.number,
          variant.name,
          build.active_variant};
}

FitUpGiven fit_up_given(const build::Build& build, const shelf::Shelf& shelf) {
  const AnsweredEnds ends = ask_ends(build, shelf);
  return fit_up_given(build, room_given(build, air_given(build, shelf, ends)),
                      Answered<SensorQuestion>(sensor_given(build, ends)));
}

bool welded_on(const FitUpGiven& given, End end, build::Fixing plate) {
  if (plate != build::Fixing::usual) return plate == build::Fixing::welded;
  const build::EndSurvey& survey = given.survey(end);
  return survey.spring_place == build::SpringPlace::apart &&
         (survey.spring_seat == build::SpringSeat::axle || survey.layout == build::Layout::axle_was_leaves);
}

std::optional<double> notch_depth(const FitUpGiven& given, End end) {
  const build::Workshop& w = given.fit(end).workshop;
  const FittedEnd& fitted = given.end(end)->fitted;
  const double surveyed = given.end(end).given().motion()->surveyed_height;
  if (!w.rail_gap || !fitted.parked || surveyed == 0) return std::nullopt;
  const auto notch = motion::notch_for(*w.rail_gap, w.rail_reserve.value_or(0.010), surveyed, *fitted.parked);
  return notch.deep > 0 ? std::optional(notch.deep) : std::nullopt;
}

namespace {

bool solid_axle(build::Layout layout) {
  return layout == build::Layout::axle_parallel_links || layout == build::Layout::axle_triangulated_links ||
         layout == build::Layout::axle_was_leaves;
}

FeatureSet of_end(const FitUpGiven& given, End end) {
  FeatureSet out = 0;
  const auto add = [&](Feature feature, bool there) {
    if (there) out |= bit(feature);
  };
  const build::EndSurvey& survey = given.survey(end);
  const build::EndFit& fit = given.fit(end);
  const build::PlateFit& plates = given.plates(end);
  const bool upper = welded_on(given, end, plates.upper), lower = welded_on(given, end, plates.lower);
  const bool around = survey.spring_place == build::SpringPlace::around_damper;
  const bool bag = !fit.bag.empty();
  add(Feature::bag, bag);
  add(Feature::strut, bag && around && !upper && !lower);
  add(Feature::apart, bag && !around);
  add(Feature::beside_damper, bag && around && (upper || lower));
  add(Feature::welded, bag && (upper || lower));
  add(Feature::bolted, bag && !upper && !lower);
  add(Feature::links, plates.links > 0);
  add(Feature::notch, notch_depth(given, end).has_value());
  add(Feature::thin_plate, fit.mounting.mount_thicker < -5e-4);
  add(Feature::thick_mount, fit.mounting.mount_thicker > 5e-4);
  add(Feature::axle_swap, bag && survey.layout == build::Layout::axle_was_leaves);
  add(Feature::solid_axle, solid_axle(survey.layout));
  add(Feature::drop_spindle, fit.mounting.drop_spindle > 0);
  add(Feature::seat_moved, fit.mounting.seat_raised != 0 || fit.mounting.damper_longer != 0);
  add(Feature::other_damper, fit.damper_open || fit.damper_shut);
  add(Feature::added_volume, fit.added_volume > 0);
  add(Feature::arch_rolled, fit.lip_rolled > 0);
  add(Feature::other_wheel, !fit.wheel.empty());
  add(Feature::sensors, !given.air().kit.sensor.empty() && goes_by_height(given.leveling.set_up().rules.method));
  add(Feature::steers, end == End::front);
  add(Feature::near_things, survey.obstacles.size() > 0);
  add(Feature::unmeasured, !given.end(end)->assessment.surveyed_height);
  return out;
}

FeatureSet of_car(const FitUpGiven& given) {
  FeatureSet out = bit(Feature::always);
  const auto add = [&](Feature feature, bool there) {
    if (there) out |= bit(feature);
  };
  const build::AirKit& kit = given.air().kit;
  const bool by_hand = kit.school == build::ValveSchool::hand_valves;
  const bool there = !kit.valves.empty() || !kit.tank.empty() || !kit.compressor.empty();
  add(Feature::kit, there);
  add(Feature::hand_valves, there && by_hand);
  add(Feature::controller, there && !by_hand);
  add(Feature::by_height, there && !by_hand && goes_by_height(given.leveling.set_up().rules.method));
  add(Feature::two_compressors, there && !kit.second_compressor.empty());
  add(Feature::shown_kit, there && given.fit_up->shown == build::KitShown::shown);
  add(Feature::kit_first, given.fit_up->order == build::OrderSchool::kit_first);
  add(Feature::hot, given.room.hot.size() > 0);
  return out;
}

} // namespace

std::array<FeatureSet, 2> features_of(const FitUpGiven& given) {
  const FeatureSet car = of_car(given);
  return {of_end(given, End::front) | car, of_end(given, End::rear) | car};
}

} // namespace mavrel::assess
