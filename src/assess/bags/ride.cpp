#include "assess/bags/ride.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

using build::at;

std::optional<double> damper_coefficient(const std::vector<build::DamperPoint>& points) {
  if (points.empty()) return std::nullopt;
  std::vector<build::DamperPoint> curve = points;
  std::sort(curve.begin(), curve.end(), [](const auto& a, const auto& b) { return a.speed < b.speed; });
  curve.insert(curve.begin(), build::DamperPoint{0, 0, 0, {}}); // at rest it pushes nothing
  const auto force = [](const build::DamperPoint& p) { return 0.5 * (p.bump_force + p.rebound_force); };
  for (std::size_t i = 1; i < curve.size(); ++i) {
    const auto &low = curve[i - 1], &high = curve[i];
    if (damper_speed > high.speed || !(high.speed > low.speed)) continue;
    const double t = (damper_speed - low.speed) / (high.speed - low.speed);
    return std::lerp(force(low), force(high), t) / damper_speed;
  }
  return force(curve.back()) / curve.back().speed; // all measured slower: its last point's
}

namespace {

constexpr double pitch_index = 0.95; // radius of gyration squared over the arms' product, of usual cars
constexpr double after_bump = 1.6;   // s watched behind the bump

std::optional<RideEnd> ride_end(const FittedEnd& end, const std::vector<build::DamperPoint>& damper,
                                std::size_t load_case) {
  if (!end.road) return std::nullopt;
  const auto posed = posed_end(end, *end.road, load_case);
  if (!posed || !posed->state.frequency || !posed->state.ride_frequency) return std::nullopt;
  RideEnd out;
  out.frequency = *posed->state.frequency;
  out.ride_frequency = *posed->state.ride_frequency;
  out.wheel_rate = posed->state.wheel_rate;
  const double critical = 2 * std::sqrt(out.wheel_rate * posed->load.sprung_mass);
  const auto coefficient = damper_coefficient(damper);
  if (coefficient && end.model.map->has_damper()) {
    const double ratio = end.model.map->damper(*end.road).slope;
    out.damping = *coefficient * ratio * ratio / critical;
  }
  if (end.model.setting.added_volume > 0) {
    const auto K = end.on().softened(posed->place, posed->state.pressure, out.frequency).stiffness(out.frequency);
    const double MR = posed->place.map.motion_ratio;
    out.line_damping = K.imag() * MR * MR / (2 * out.wheel_rate);
  }
  return out;
}

/// The car on two axles with this ride at its ends: springs and dampers standing on their tyres.
motion::TwoAxleBody body_of(double wheelbase, const std::array<double, 2>& axle_mass,
                            const std::array<RideEnd, 2>& ends, const std::array<double, 2>& tyre_rate) {
  motion::TwoAxleBody out;
  out.mass = axle_mass[0] + axle_mass[1];
  out.front_arm = wheelbase * axle_mass[1] / out.mass;
  out.rear_arm = wheelbase - out.front_arm;
  out.pitch_inertia = pitch_index * out.mass * out.front_arm * out.rear_arm;
  for (std::size_t e = 0; e < 2; ++e) {
    const double bare = 2 * ends[e].wheel_rate, tyres = 2 * tyre_rate[e];
    const double through = tyres / (tyres + bare); // of a movement, what the suspension sees
    out.rate[e] = bare * through;
    out.damping[e] = 2 * ends[e].damping_taken() * std::sqrt(bare * axle_mass[e]) * through * through;
  }
  return out;
}

std::optional<Settling> settle(const RideGiven& given, const std::array<std::optional<RideEnd>, 2>& now) {
  if (!now[0] || !now[1] || !given.wheelbase) return std::nullopt;
  const double wheelbase = *given.wheelbase, speed = given.settle_speed;
  const motion::Bump bump;
  const double duration = (wheelbase + bump.length) / speed + after_bump;
  const EndModel &front_end = given.ends[0]->fitted.model, &rear_end = given.ends[1]->fitted.model;
  const std::array mass = {2 * front_end.loads[given.load_case]->sprung_mass,
                           2 * rear_end.loads[given.load_case]->sprung_mass};
  const std::array tyre = {front_end.tyre_rate, rear_end.tyre_rate};
  const auto run = [&](const RideEnd& rear) {
    return motion::run_over_bump(body_of(wheelbase, mass, {*now[0], rear}, tyre), bump, speed, duration);
  };
  Settling out;
  constexpr double noticeable = 0.95; // of the unrest: less is no reason for another bag
  out.damper_assumed = !now[0]->damping || !now[1]->damping;
  out.now = out.best = run(*now[1]);
  out.rear_now = out.rear_best = now[1]->ride_frequency;
  for (const BagVerdict& verdict : judge_shelf(given.rear_shelf)) {
    if (verdict.fit == Fit::does_not_fit || !verdict.frequency) continue;
    // The same damper on another rate: its coefficient stays, its share of critical does not.
    RideEnd rear = *now[1];
    const double softer = *verdict.frequency / rear.frequency;
    rear.wheel_rate *= softer * softer;
    if (rear.damping) *rear.damping /= softer;
    rear.frequency = *verdict.frequency;
    rear.ride_frequency = verdict.ride_frequency.value_or(*verdict.frequency);
    motion::PitchRun tried = run(rear);
    if (tried.unrest >= std::min(out.best.unrest, noticeable * out.now.unrest)) continue;
    out.best = std::move(tried);
    out.rear_best = rear.ride_frequency;
    out.best_bag = verdict.bag;
  }
  return out;
}

} // namespace

RideGiven ride_given(const build::Build& build, const shelf::Shelf& shelf, const AnsweredEnds& ends,
                     std::size_t load_case) {
  const build::Variant& variant = build.variant();
  RideGiven out{ends,
                {variant.fit[0].damper_curve, variant.fit[1].damper_curve},
                judge_given(build, shelf, ends[1].given(), load_case),
                variant.brief.settle_speed,
                build.body.wheelbase,
                load_case};
  for (auto& curve : out.damper_curves)
    for (build::DamperPoint& point : curve)
      point.extra.clear();
  return out;
}

Ride ride(const RideGiven& given) {
  Ride out;
  const auto& names = given.rear_shelf.cases;
  for (std::size_t c = 0; c < names.size(); ++c) {
    RideCase& one = out.cases.emplace_back();
    one.name = names[c];
    for (const End end : build::both_ends)
      one.ends[at(end)] = ride_end(given.ends[at(end)]->fitted, given.damper_curves[at(end)], c);
    if (one.ends[0] && one.ends[1]) one.rear_quicker = one.ends[1]->ride_frequency / one.ends[0]->ride_frequency - 1;
  }
  if (given.load_case < out.cases.size()) out.settling = settle(given, out.cases[given.load_case].ends);
  return out;
}

} // namespace mavrel::assess
