// A height sensor's linkage: a shaft on the body, a lever on it, and a rod from the lever to what moves with the wheel.
// All in one plane, x sideways and z up.
#pragma once

#include "control/rules.h"
#include "quantity/expected.h"

#include <vector>

namespace mavrel::control {

struct PlanePoint {
  double x = 0, z = 0; // m
  friend bool operator==(const PlanePoint&, const PlanePoint&) = default;
};

struct SensorLinkage {
  PlanePoint pivot, pickup;  // m; the pickup as surveyed
  double lever = 0, rod = 0; // m, joint to joint, above 0
  double pickup_ratio = 0;   // m that the pickup drops for a metre of H
  Crossing crossing = Crossing::above;
  friend bool operator==(const SensorLinkage&, const SensorLinkage&) = default;
};

struct SensorPose {
  PlanePoint pickup, joint; // m; the joint of lever and rod
  double angle = 0;         // rad, the lever's from x, counter-clockwise
  double slope = 0;         // rad/m, d(angle)/dH
  double from_in_line = 0;  // rad, how far lever and rod are from one line, stretched or folded
};

/// Nearer than this to in line the lever may flip over; square give or take this much is where it reads well. rad
constexpr double may_flip = 0.2617993877991494;   // 15°
constexpr double reads_well = 0.6108652381980153; // 35°

/// @param dh  m that H is more than as surveyed
/// @returns the pose; or that the rod is too short or too long to reach there
/// Source: docs/models.md, "Height sensor".
[[nodiscard]] Expected<SensorPose> sensor_pose(const SensorLinkage& linkage, double dh);

/// A lever and a rod for a shaft and a pickup.
struct LeverChoice {
  SensorLinkage linkage;
  double sweep = 0;      // rad from one end of the travel to the other
  double off_square = 0; // rad, the furthest from square over it
};

/// Lever and rod, in whole millimetres, that turn the shaft furthest over a travel without leaving what reads well or
/// the sensor's range: square to each other in the travel's middle.
/// @param low, high  m, dh of the ends of the travel, low < high
/// @param range      rad that the sensor reads over
/// @returns the best first, at most one for either crossing; none where nothing reads well
/// Source: docs/models.md, "Height sensor".
[[nodiscard]] std::vector<LeverChoice> best_levers(const SensorLinkage& placed, double low, double high, double range);

} // namespace mavrel::control
