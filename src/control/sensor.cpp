#include "control/sensor.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::control {

Expected<SensorPose> sensor_pose(const SensorLinkage& s, double dh) {
  SensorPose out;
  out.pickup = {s.pickup.x, s.pickup.z - s.pickup_ratio * dh};
  const double dx = out.pickup.x - s.pivot.x, dz = out.pickup.z - s.pivot.z;
  const double d = std::hypot(dx, dz);
  const double L = s.lever, R = s.rod;
  if (d > L + R || d < std::abs(L - R) || !(d > 0))
    return refuse(words("At {0} from the surveyed height lever and rod do not reach: pivot and pickup are {1} apart, "
                        "and {2} to {3} can be reached."),
                  {Amount{dh, Kind::length, 1, {}}, Amount{d, Kind::length, 1, {}},
                   Amount{std::abs(L - R), Kind::length, 1, {}}, Amount{L + R, Kind::length, 1, {}}});
  const double a = (L * L - R * R + d * d) / (2 * d);
  const double off = std::sqrt(std::fmax(0, L * L - a * a));
  const double ux = dx / d, uz = dz / d;
  // Of the two crossings, off the line from pivot to pickup to either side.
  const double side = (ux >= 0) == (s.crossing == Crossing::above) ? 1 : -1;
  out.joint = {s.pivot.x + a * ux - side * off * uz, s.pivot.z + a * uz + side * off * ux};
  const double lx = out.joint.x - s.pivot.x, lz = out.joint.z - s.pivot.z;
  const double rx = out.joint.x - out.pickup.x, rz = out.joint.z - out.pickup.z;
  out.angle = std::atan2(lz, lx);
  const double square = (lx * rx + lz * rz) / (L * R), turned = (lx * rz - lz * rx) / (L * R);
  out.from_in_line = std::atan2(std::abs(turned), std::abs(square));
  // The rod keeps its length: (joint − pickup)·(joint' − pickup') = 0, with joint' = θ'·(−lz, lx), pickup' = (0, −i).
  const double along_rod = -rx * lz + rz * lx;
  if (std::abs(along_rod) < 1e-9 * L * R)
    return refuse(words("At {0} from the surveyed height lever and rod lie in one line: it may flip over there."),
                  {Amount{dh, Kind::length, 1, {}}});
  out.slope = rz * -s.pickup_ratio / along_rod;
  return out;
}

namespace {

constexpr double millimetre = 1e-3, shortest = 0.02; // m
constexpr int looks = 41;

/// How a linkage does over a travel; none where it leaves what reads well.
std::optional<LeverChoice> over_travel(const SensorLinkage& linkage, double low, double high, double range) {
  LeverChoice out{linkage};
  for (const double end : {low, high}) { // most that fail do so there
    const auto pose = sensor_pose(linkage, end);
    if (!pose || std::numbers::pi / 2 - pose->from_in_line > reads_well) return std::nullopt;
  }
  double before = 0, least = 0, most = 0, angle = 0;
  for (int i = 0; i < looks; ++i) {
    const auto pose = sensor_pose(linkage, low + (high - low) * i / (looks - 1));
    if (!pose) return std::nullopt;
    out.off_square = std::fmax(out.off_square, std::numbers::pi / 2 - pose->from_in_line);
    if (i > 0) angle += std::remainder(pose->angle - before, 2 * std::numbers::pi);
    before = pose->angle;
    least = std::fmin(least, angle), most = std::fmax(most, angle);
  }
  out.sweep = most - least;
  if (out.off_square > reads_well || out.sweep > range) return std::nullopt;
  return out;
}

} // namespace

std::vector<LeverChoice> best_levers(const SensorLinkage& placed, double low, double high, double range) {
  std::vector<LeverChoice> out;
  const double middle = (low + high) / 2;
  const double dx = placed.pickup.x - placed.pivot.x;
  const double dz = placed.pickup.z - placed.pickup_ratio * middle - placed.pivot.z;
  const double d = std::hypot(dx, dz);
  for (const Crossing crossing : {Crossing::above, Crossing::below}) {
    // The shorter the lever, the further it turns: the first that reads well is the best.
    std::optional<LeverChoice> best;
    for (double lever = shortest; lever < d - shortest && !best; lever += millimetre) {
      SensorLinkage tried = placed;
      tried.crossing = crossing;
      tried.lever = lever;
      tried.rod = std::round(std::sqrt(d * d - lever * lever) / millimetre) * millimetre;
      best = over_travel(tried, low, high, range);
    }
    if (best) out.push_back(*best);
  }
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.sweep > b.sweep; });
  return out;
}

} // namespace mavrel::control
