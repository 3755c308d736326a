#include "assess/bags/roll.h"

#include "build/names.h"
#include "curve/root.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;
using build::Layout;

double estimated_roll_centre(Layout layout) {
  if (is_solid_axle(layout)) return 0.30;
  switch (layout) {
  case Layout::twin_beam:
  case Layout::torsion_beam:
    return 0.15;
  case Layout::semi_trailing_arm:
    return 0.10;
  case Layout::trailing_arm:
  case Layout::twin_trailing_arms:
    return 0.02;
  default:
    return 0.06;
  }
}

double roll_centre_follows(Layout layout) {
  return layout == Layout::strut ? 2 : 0;
}

namespace {

constexpr double usual_gravity_share = 0.38;  // of the overall height
constexpr double usual_gravity_height = 0.55; // m

Expected<AxleRoll> axle_roll(const FittedEnd& end, const PosedEnd& at, const std::optional<double>& bar_rate) {
  const auto& base = end.model.base;
  if (!base || !end.model.track) return refuse(words("{0}: the track is needed."), {build::name_of(end.model.end)});
  const BagOnEnd bag = end.on();
  const double p = at.state.pressure;
  const double at_constant_pressure = -air::bag_force(at.place.section, p).per_height;
  const double whole = air::sealed_rate(at.place.section, p, bend_exponent, end.model.setting);
  // Two springs half the base from the middle: K = 2·k·(base/2)².
  const double arm = *base * *base / 2;
  AxleRoll out;
  out.geometry = bag.wheel_rate(at.place, at_constant_pressure, at.force) * arm;
  out.air = bag.wheel_rate(at.place, whole, at.force) * arm - out.geometry;
  out.bar = bar_rate.value_or(0);
  out.tyres = end.model.tyre_rate * *end.model.track * *end.model.track / 2;
  return out;
}

/// Height of gravity of body and load above the road, as surveyed.
double gravity_height(const CarInBend& car, std::size_t load_case, double sprung_mass) {
  const double bare = car.gravity_height.value_or(car.overall_height ? usual_gravity_share * *car.overall_height
                                                                     : usual_gravity_height);
  if (load_case >= car.high.size()) return bare;
  double off = 0;
  for (const auto& [mass, z] : car.high[load_case])
    off += mass * (z - bare);
  return bare + off / sprung_mass;
}

Lean lean_of(std::array<AxleRoll, 2> axles, const std::array<bool, 2>& joined, const Roll& car, double wanted) {
  for (std::size_t e = 0; e < 2; ++e)
    if (joined[e]) axles[e].air = 0;
  Lean out;
  out.axles = axles;
  const double held = axles[0].sum() + axles[1].sum() - car.gravity;
  if (held > 0) {
    const double angle = car.tipping / held;
    if (angle < 0.5) out.angle = angle; // beyond, small angles no longer describe it and the stops hold the car
  }
  // Bars that together hold it, shared out as those that are there, else evenly; they pull at tyres that give.
  const double bars = axles[0].bar + axles[1].bar, needed = car.tipping / wanted + car.gravity;
  const auto holds = [&](double both) {
    double sum = 0;
    for (AxleRoll axle : axles) {
      axle.bar = both * (bars > 0 ? axle.bar / bars : 0.5);
      sum += axle.sum();
    }
    return sum - needed;
  };
  constexpr double stiffest = 1e7; // N·m/rad: beyond, the tyres alone decide
  if (holds(0) < 0) out.bar_wanted = holds(stiffest) < 0 ? INFINITY : *curve::crossing(holds, 0.0, stiffest);
  return out;
}

} // namespace

CarInBend car_in_bend(const build::Build& build) {
  CarInBend out;
  out.gravity_height = build.body.gravity_height;
  out.overall_height = build.body.overall_height;
  for (const End end : build::both_ends) {
    out.bar_rate[at(end)] = build.end(end).bar_rate;
    out.roll_centre[at(end)] = build.end(end).roll_centre;
  }
  for (const build::LoadCase& load : build.load_cases) {
    auto& high = out.high.emplace_back();
    for (const build::LoadMass& mass : load.masses)
      if (mass.z) high.emplace_back(mass.mass, *mass.z);
  }
  out.lean_wanted = build.variant().brief.lean_wanted;
  out.braking = build.variant().brief.braking;
  out.wheelbase = build.body.wheelbase;
  return out;
}

Expected<Roll> roll(const RollGiven& given) {
  std::array<AxleRoll, 2> axles;
  std::array<double, 2> mass{}, centre{};
  double lowered = 0, uneven = 0; // m; N·m that joined sides leave unbalanced
  Roll out;
  std::array<bool, 2> joined{};
  for (std::size_t e = 0; e < 2; ++e) {
    const FittedEnd& end = given.ends[e]->fitted;
    const double H = given.H[e];
    const auto posed = posed_end(end, H, given.load_case);
    if (!posed) return refuse(posed.error());
    const auto axle = axle_roll(end, *posed, given.car.bar_rate[e]);
    if (!axle) return refuse(axle.error());
    axles[e] = *axle;
    mass[e] = 2 * posed->load.sprung_mass;
    joined[e] = end.model.joined;
    const Layout layout = end.model.layout;
    const double moved = H - *end.model.surveyed_height;
    const auto& measured = given.car.roll_centre[e];
    centre[e] = measured.value_or(estimated_roll_centre(layout)) + roll_centre_follows(layout) * moved;
    out.estimated = out.estimated || !measured;
    out.base_estimated = out.base_estimated || end.model.spring_base_estimated;
    lowered += 0.5 * moved;
    if (joined[e])
      uneven += (posed->load.side_mass[0] - posed->load.side_mass[1]) * standard_gravity * *end.model.track / 2;
  }
  const double m = mass[0] + mass[1];
  out.estimated = out.estimated || !given.car.gravity_height;
  out.gravity_height = gravity_height(given.car, given.load_case, m) + lowered;
  out.roll_height = (centre[0] * mass[0] + centre[1] * mass[1]) / m; // the axis below the centre of gravity
  const double arm = out.gravity_height - out.roll_height;           // below the axis it leans into the bend
  out.tipping = m * bend * standard_gravity * arm;
  out.gravity = m * standard_gravity * arm;
  const double wanted = given.car.lean_wanted;
  out.separate = lean_of(axles, {false, false}, out, wanted);
  out.joined = lean_of(axles, {true, true}, out, wanted);
  out.fitted = lean_of(axles, joined, out, wanted);
  const double held = out.fitted.axles[0].sum() + out.fitted.axles[1].sum() - out.gravity;
  // With a tee at one end only, the other one's sides hold it level.
  if (joined[0] && joined[1] && held > 0) out.standing = uneven / held;
  if (given.car.wheelbase) {
    // What braking takes from the rear wheels it puts on the front ones; each end gives by its rate in heave.
    const double shifted = m * given.car.braking * standard_gravity * out.gravity_height / *given.car.wheelbase / 2;
    std::array<double, 2> gives{};
    Dive dive;
    bool holds = true;
    for (std::size_t e = 0; e < 2; ++e) {
      const double base = *given.ends[e]->fitted.model.base;
      const double rate = 2 * (axles[e].air + axles[e].geometry) / (base * base);
      holds = holds && rate > 0;
      // Brakes pull as their wheels are loaded. A contact that moves forward as its wheel goes up is pushed down by
      // what pulls it back.
      const double way = e == 0 ? 1 : -1;
      const double pulls = given.car.braking * (mass[e] * standard_gravity / 2 + way * shifted);
      if (const auto forward = given.ends[e].given().motion()->contact_forward(given.H[e]))
        dive.by_joints[e] = way * pulls * *forward / shifted;
      if (holds) gives[e] = shifted * (1 - dive.by_joints[e].value_or(0)) / rate;
    }
    dive.sinks = gives[0], dive.rises = gives[1];
    if (holds && shifted > 0) out.dive = dive;
  }
  return out;
}

} // namespace mavrel::assess
