// How the document keeps its height: what drives the car over, how a controller holds it, and where its sensors sit.
#pragma once

#include "build/table.h"
#include "control/road_class.h"
#include "control/rules.h"

namespace mavrel::build {

constexpr std::size_t most_set_ups = 4, most_drive_events = 12;

/// One way of keeping the height.
struct ControlSetUp {
  std::string name;
  Fitted fitted = Fitted::no; // is it the one the car gets?
  control::Rules rules;
  Extra extra;
  friend bool operator==(const ControlSetUp&, const ControlSetUp&) = default;
};

enum class Mirrored { no, yes };

/// A height sensor at one end, the left one, with the car as surveyed. Seen from the front: y left of the car's middle,
/// z above the floor, in a plane `ahead` of the axle.
struct SensorFit {
  std::optional<double> pivot_y, pivot_z;   // m, the sensor's shaft on the body
  std::optional<double> lever, rod;         // m, joint to joint
  std::optional<double> pickup_y, pickup_z; // m, the rod's joint on what moves with the wheel
  double ahead = 0.08;                      // m ahead of the axle
  double pickup_ratio = 0.6;                // m that the pickup drops for a metre of H
  control::Crossing crossing = control::Crossing::above;
  double range = 1.3962634015954636; // rad that the sensor reads over, its middle as it is mounted
  double counts = 1024;              // over that range
  double noise = 1;                  // counts, one reading's scatter
  Mirrored mirrored = Mirrored::yes; // is the right one a mirror image? Else its counts run the other way
  Extra extra;
  friend bool operator==(const SensorFit&, const SensorFit&) = default;
};

struct Leveling {
  std::vector<ControlSetUp> set_ups{{"Bursts", Fitted::yes, {}, {}}}; // never empty
  std::array<SensorFit, 2> sensors;                                   // front, rear
  /// The one the car gets; the first where none is said to be.
  [[nodiscard]] const ControlSetUp& set_up() const {
    for (const ControlSetUp& one : set_ups)
      if (one.fitted == Fitted::yes) return one;
    return set_ups.front();
  }
  Extra extra;
  friend bool operator==(const Leveling&, const Leveling&) = default;
};

enum class DriveEventKind { load, air_temperature, altitude };

/// Something that happens on the way.
struct DriveEvent {
  std::string name; // `two people in`
  DriveEventKind kind = DriveEventKind::load;
  double at = 300;             // s
  double over = 20;            // s that it takes
  std::optional<double> until; // s, when it goes back, taking as long; never when absent
  double mass = 150;           // kg that gets in; below 0: out
  double x = 2.0, y = 0;       // m behind the front axle, left
  double warmer = 15;          // K
  double altitude = 1200;      // m higher
  Extra extra;
  friend bool operator==(const DriveEvent&, const DriveEvent&) = default;
};

/// The drive that ways of keeping the height are compared on.
struct Drive {
  control::RoadClass road = control::RoadClass::c;
  double seed = 1; // a whole number; the same seed is the same road
  control::SpeedProfile profile = control::SpeedProfile::steady;
  double speed = 16.666666666666668; // m/s, of a steady drive
  double duration = 1200;            // s
  std::vector<DriveEvent> events;
  Extra extra;
  friend bool operator==(const Drive&, const Drive&) = default;
};

template <>
const Table& table_of<ControlSetUp>();
template <>
const Table& table_of<SensorFit>();
template <>
const Table& table_of<Leveling>();
template <>
const Table& table_of<DriveEvent>();
template <>
const Table& table_of<Drive>();

} // namespace mavrel::build
