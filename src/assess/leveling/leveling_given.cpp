#include "assess/leveling/leveling_given.h"

#include "assess/air/lift.h"
#include "assess/bags/ride.h"
#include "assess/end/travel.h"
#include "build/names.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double bump_share = 0.7, rebound_share = 1.3; // of the mean, where no damper is described
constexpr double usual_track = 1.5;                     // m

/// The damper's points at the wheel; a usual one's where none is described.
std::vector<control::DamperForce> damper_at_wheel(const FittedEnd& end, const std::vector<build::DamperPoint>& curve,
                                                  const PosedEnd& posed, double H, bool& assumed) {
  std::vector<control::DamperForce> out;
  if (!curve.empty() && end.model.map->has_damper()) {
    const double ratio = end.model.map->damper(H).slope;
    for (const build::DamperPoint& p : curve)
      out.push_back({p.speed / ratio, p.bump_force * ratio, p.rebound_force * ratio});
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.speed < b.speed; });
    out.erase(std::unique(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.speed == b.speed; }),
              out.end());
    return out;
  }
  assumed = true;
  const double rate = std::fmax(posed.state.wheel_rate, 1000);
  const double c = 2 * RideEnd::usual_damping * std::sqrt(rate * posed.load.sprung_mass);
  return {{0.5, 0.5 * c * bump_share, 0.5 * c * rebound_share}};
}

/// Whole numbers are their own seed; another number is one too, and not the whole one beside it.
std::uint64_t seed_of(const build::Drive& drive) {
  return drive.seed == std::floor(drive.seed) ? static_cast<std::uint64_t>(drive.seed)
                                              : std::bit_cast<std::uint64_t>(drive.seed);
}

/// What happens on the way, as the drive is told of it.
std::vector<control::TripEvent> events_of(const build::Drive& drive) {
  std::vector<control::TripEvent> out;
  for (const build::DriveEvent& e : drive.events) {
    control::TripEvent event;
    event.at = e.at, event.over = e.over, event.until = e.until;
    switch (e.kind) {
    case build::DriveEventKind::load:
      event.kind = control::TripEvent::Kind::load;
      event.mass = e.mass, event.x = e.x, event.y = e.y;
      break;
    case build::DriveEventKind::air_temperature:
      event.kind = control::TripEvent::Kind::air_temperature;
      event.by = e.warmer;
      break;
    case build::DriveEventKind::altitude:
      event.kind = control::TripEvent::Kind::altitude;
      event.by = e.altitude;
      break;
    }
    out.push_back(event);
  }
  return out;
}

constexpr double least_share = 0.1;                       // of what stands on an axle, that must stay on it
constexpr double coldest = 213.15, warmest = 348.15;      // K, that anybody drives in
constexpr double lowest_road = -500, highest_road = 6500; // m above the sea

/// Why no car drives through what happens on the way; none: one does.
std::optional<Message> mistake_in_events(const LevelingGiven& given, const control::RollingCarParts& car) {
  const auto events = events_of(given.drive);
  const auto& loads = car.network.bodies.front().loads;
  const double L = car.corners[0].forward - car.corners[2].forward;
  std::vector<double> times; // between these everything changes evenly: the worst is at one of them
  for (const control::TripEvent& e : events) {
    times.insert(times.end(), {e.at, e.at + e.over});
    if (e.until) times.insert(times.end(), {*e.until, *e.until + e.over});
  }
  for (const double t : times) {
    std::array<double, 2> on = {(loads[0] + loads[1]) / standard_gravity, (loads[2] + loads[3]) / standard_gravity};
    const std::array<double, 2> stood = on;
    double warmer = 0, higher = 0;
    for (const control::TripEvent& e : events) {
      const double share = e.share(t);
      if (e.kind == control::TripEvent::Kind::load) {
        on[0] += share * e.mass * (1 - e.x / L), on[1] += share * e.mass * e.x / L;
      } else {
        (e.kind == control::TripEvent::Kind::altitude ? higher : warmer) += share * e.by;
      }
    }
    for (const End end : build::both_ends)
      if (on[build::at(end)] < least_share * stood[build::at(end)])
        return Message{words("{0}: with what gets in and out on the drive, {1} would stand on its axle."),
                       {build::name_of(end), kilograms(on[build::at(end)])}};
    const build::Surroundings& around = given.air.surroundings;
    const double T = around.temperature + warmer, h = around.altitude + higher;
    if (T < coldest || T > warmest)
      return Message{words("On the drive the air comes to {0}; {1} to {2} are driven in."),
                     {Amount{T, Kind::temperature, 0, {}}, Amount{coldest, Kind::temperature, 0, {}},
                      Amount{warmest, Kind::temperature, 0, {}}}};
    if (h < lowest_road || h > highest_road)
      return Message{words("The drive comes to {0} above the sea; roads lie from {1} to {2}."),
                     {Amount{h, Kind::altitude, 0, {}}, Amount{lowest_road, Kind::altitude, 0, {}},
                      Amount{highest_road, Kind::altitude, 0, {}}}};
  }
  return std::nullopt;
}

} // namespace

LevelingGiven leveling_given(const build::Build& build, const AirGiven& air, std::size_t load_case) {
  const build::Variant& variant = build.variant();
  return {air,
          variant.leveling,
          build.drive,
          {variant.fit[0].damper_curve, variant.fit[1].damper_curve},
          car_in_bend(build),
          variant.brief.gauge_error,
          variant.brief.bump_travel,
          load_case};
}

Expected<LearnedCar> learned_car(const LevelingGiven& given, const std::array<double, 2>& heights, bool running,
                                 bool aired_out) {
  const auto full = full_tank(given.air);
  if (!full) return refuse(words("The kit has no pressure switch: how full the tank is, nobody knows."));
  const bool pumps = running && given.air.parts[KitRole::compressor];
  auto air = car_air(given.air, {heights, given.load_case, *full, pumps, aired_out});
  if (!air) return refuse(air.error());
  const auto lean = roll({given.air.ends, given.bend, heights, given.load_case});
  LearnedCar out;
  for (const CarAir::Circuit& c : air->circuits)
    out.circuits.push_back({c.corners, c.fill, c.vent});
  for (std::size_t c = 0; c < 4; ++c)
    out.pressure[c] = air->network.volumes[air->bags[c]].gauge_pressure;
  control::RollingCarParts& parts = out.parts;
  parts.network = std::move(air->network);
  parts.tank = air->tank;
  if (lean) {
    parts.gravity_height = lean->gravity_height;
    parts.above_roll_axis = lean->gravity_height - lean->roll_height;
  }
  for (const End end : build::both_ends) {
    const std::size_t e = build::at(end);
    const FittedEnd& fitted = given.air.ends[e]->fitted;
    const auto posed = posed_end(fitted, heights[e], given.load_case);
    if (!posed) return refuse(posed.error());
    const auto damper = damper_at_wheel(fitted, given.damper_curves[e], *posed, heights[e], out.damper_assumed);
    const double track = given.air.track[e].value_or(usual_track);
    parts.spring_share[e] = 1 / fitted.model.side_lever;
    parts.bar_rate[e] = given.bend.bar_rate[e].value_or(0);
    for (std::size_t side = 0; side < 2; ++side) {
      const std::size_t c = 2 * e + side;
      air::Body& body = parts.network.bodies.front();
      const air::Leg& leg = body.legs[c];
      // What a tee's end does not carry unevenly the other one does already.
      body.loads[c] = (fitted.model.joined ? posed->load.sprung_mass : posed->load.side_mass[side]) * standard_gravity;
      out.target[c] = heights[e];
      control::RollingCorner& corner = parts.corners[c];
      corner.forward = leg.forward;
      corner.left = (side == 0 ? 0.5 : -0.5) * track;
      corner.lowest = leg.travel->front(), corner.highest = leg.highest;
      corner.stop_meets = leg.lowest;
      corner.unsprung_mass = fitted.model.unsprung_mass;
      corner.tyre_rate = fitted.model.tyre_rate;
      corner.friction = fitted.model.friction;
      corner.damper = damper;
    }
  }
  if (const auto wrong = mistake_in_events(given, parts)) return refuse(*wrong);
  out.learned = control::learn_bursts(parts, out.circuits);
  return out;
}

Expected<LearnedCar> learned_car(const LevelingGiven& given) {
  std::array<double, 2> heights{};
  for (const End end : build::both_ends) {
    const auto& road = given.air.ends[build::at(end)]->fitted.road;
    if (!road)
      return refuse(words("{0}: no road height is wished for, or it can't be worked out yet."), {build::name_of(end)});
    heights[build::at(end)] = *road;
  }
  return learned_car(given, heights);
}

std::shared_ptr<const control::Road> road_of(const LevelingGiven& given) {
  const build::Drive& d = given.drive;
  const std::uint64_t seed = seed_of(d);
  const double way = control::Trip(d.profile, d.speed, d.duration, seed).length();
  const double track = given.air.track[0].value_or(usual_track);
  return std::make_shared<control::Road>(
      control::Road::rough(d.road, std::clamp(way + 10, 200.0, longest_road), seed, track));
}

control::DriveGiven drive_given(const LevelingGiven& given, const LearnedCar& car, const control::Rules& rules,
                                std::shared_ptr<const control::Road> road) {
  control::DriveGiven out;
  out.car = car.parts;
  out.circuits = car.circuits;
  out.target = car.target, out.pressure = car.pressure;
  out.gains = control::gains_of(car.learned);
  out.rules = rules;
  for (const End end : build::both_ends) {
    const build::SensorFit& fit = given.leveling.sensors[build::at(end)];
    const FittedEnd& fitted = given.air.ends[build::at(end)]->fitted;
    const auto linkage = linkage_of(fit);
    if (!linkage || !fitted.model.surveyed_height) continue;
    const auto pose = control::sensor_pose(*linkage, car.target[2 * build::at(end)] - *fitted.model.surveyed_height);
    if (!pose) continue;
    for (const std::size_t side : {0U, 1U})
      out.sensors[2 * build::at(end) + side] = {std::abs(pose->slope) * fit.counts / fit.range, fit.noise};
  }
  out.gauge_error = given.gauge_error;
  out.road = std::move(road);
  out.profile = given.drive.profile;
  out.speed = given.drive.speed, out.duration = given.drive.duration;
  out.seed = seed_of(given.drive);
  out.events = events_of(given.drive);
  out.altitude = given.air.surroundings.altitude;
  return out;
}

} // namespace mavrel::assess
