#include "assess/leveling/sensor_at_end.h"

#include "assess/end/travel.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

constexpr int looks = 49, looks_around = 13; // along the travel; for what comes near every fourth of them
constexpr double ball = 0.02; // m around the joints: the pickup's own bracket touches what it is bolted to

/// Lever and rod at a pose, in the car's place; the last bit of the rod is its own bracket's.
std::array<space::Rod, 2> rods_of(const control::SensorLinkage& s, const control::SensorPose& pose, double ahead) {
  const space::Point pivot{ahead, s.pivot.x, s.pivot.z}, joint{ahead, pose.joint.x, pose.joint.z},
      pickup{ahead, pose.pickup.x, pose.pickup.z};
  const double share = std::fmin(0.9, ball / s.rod);
  const space::Point end = pickup + share * (joint - pickup);
  return {space::Rod{pivot, joint, sensor_rod}, space::Rod{joint, end, sensor_rod}};
}

/// A sensor that sits on the far side of a face sits behind a sheet, not inside it.
bool is_behind(const space::Plane& face, const space::Point& p) {
  return space::dot(p - face.at, face.normal) < 0;
}

void look_around(const FittedEnd& end, const build::SensorFit& fit, SensorAtEnd& out) {
  const auto& clear = end.model.clearance;
  if (!clear || !(*clear)->space) return;
  const EndSpace& space = *(*clear)->space;
  const build::Rooms& rooms = clear->given().rooms;
  const auto& obstacles = clear->given().motion.given().survey.given().survey.obstacles;
  const auto take = [&](const std::string& name, double gap, double wanted, double H) {
    if (!out.nearest || gap - wanted < out.nearest->gap - out.nearest->wanted) out.nearest = {name, gap, wanted, H};
  };
  const space::Point pivot{fit.ahead, out.linkage->pivot.x, out.linkage->pivot.z};
  constexpr std::size_t stride = (looks - 1) / (looks_around - 1);
  for (std::size_t i = 0; i < out.looks.size(); i += stride) {
    const SensorLook& look = out.looks[i];
    if (look.H < space.lowest() || look.H > space.highest()) continue;
    for (const Lock lock : all_locks) {
      const Stand stand = space.at(look.H, lock);
      for (const space::Rod& rod : rods_of(*out.linkage, look.pose, fit.ahead)) {
        if ((*clear)->wheel) take("", space::gap_between(*(*clear)->wheel, stand.wheel, rod).apart, rooms.tyre, look.H);
        if (lock != Lock::straight) continue; // what is bolted to the body or an arm does not steer
        for (const build::Obstacle& o : obstacles) {
          auto near = placement_of(o);
          if (!near) continue;
          if (auto* face = std::get_if<space::Plane>(&near->solid); face && is_behind(*face, pivot))
            face->normal = -1.0 * face->normal; // a sheet, seen from its other side
          const space::Placed& by = stand.parts[static_cast<std::size_t>(near->on)];
          const double gap = near->on == motion::Part::body
                                 ? space::gap_between(rod, near->solid).apart
                                 : space::gap_between(space::moved_back(rod, by), near->solid).apart;
          take(o.name, gap, o.room.value_or(room_for(Mover::arms, o.kind, rooms, 0)), look.H);
        }
      }
      if (!space.steers()) break;
    }
  }
}

} // namespace

std::optional<control::SensorLinkage> linkage_of(const build::SensorFit& f) {
  if (!f.pivot_y || !f.pivot_z || !f.lever || !f.rod || !f.pickup_y || !f.pickup_z) return std::nullopt;
  return control::SensorLinkage{
      {*f.pivot_y, *f.pivot_z}, {*f.pickup_y, *f.pickup_z}, *f.lever, *f.rod, f.pickup_ratio, f.crossing};
}

SensorAtEnd sensor_at_end(const FittedEnd& end, const build::SensorFit& fit) {
  SensorAtEnd out;
  out.linkage = linkage_of(fit);
  const auto& surveyed = end.model.surveyed_height;
  if (!surveyed || !end.model.map || !end.bag) return out;
  const auto travel = free_travel(end.on(), Meeting::hit);
  if (!travel) return out;
  out.lowest = travel->low, out.highest = travel->high;
  if (!out.linkage) return out;
  out.nearest_in_line = std::numbers::pi;
  double angle = 0;
  for (int i = 0; i < looks; ++i) {
    const double H = out.lowest + (out.highest - out.lowest) * i / (looks - 1);
    const auto pose = control::sensor_pose(*out.linkage, H - *surveyed);
    if (!pose) {
      out.trouble = pose.error();
      if (!out.looks.empty()) break;
      continue;
    }
    if (!out.looks.empty()) angle += std::remainder(pose->angle - out.looks.back().pose.angle, 2 * std::numbers::pi);
    out.looks.push_back({H, *pose, angle});
    out.off_square = std::fmax(out.off_square, std::numbers::pi / 2 - pose->from_in_line);
    out.nearest_in_line = std::fmin(out.nearest_in_line, pose->from_in_line);
  }
  if (!out.looks.empty()) {
    const auto [least, most] = std::minmax_element(out.looks.begin(), out.looks.end(),
                                                   [](const auto& a, const auto& b) { return a.turned < b.turned; });
    out.sweep = most->turned - least->turned;
    out.used = out.sweep / fit.range;
    out.flips = out.nearest_in_line < control::may_flip;
  }
  if (end.road)
    if (const auto pose = control::sensor_pose(*out.linkage, *end.road - *surveyed))
      out.counts_per_metre = std::abs(pose->slope) * fit.counts / fit.range;
  out.better = control::best_levers(*out.linkage, out.lowest - *surveyed, out.highest - *surveyed, fit.range);
  look_around(end, fit, out);
  return out;
}

} // namespace mavrel::assess
