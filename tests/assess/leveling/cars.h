// The demo cars made to roll, for the tests of keeping the height.
#pragma once

#include "assess/assess.h"
#include "assess/leveling/leveling_given.h"
#include "support.h"

#include <map>

namespace mavrel::assess {

using build::Build;
using control::DriveGiven;
using control::DriveResult;
using control::LevelMethod;
using control::Road;
using control::Rules;

inline LevelingGiven leveling_of(const Build& b) {
  return leveling_given(b, air_given(b, test::demo_shelf(), ask_ends(b, test::demo_shelf())), 0);
}
inline const LevelingGiven& estate() {
  static const LevelingGiven given = [] {
    Build b = test::demo_whole();
    b.drive = {};
    return leveling_of(b);
  }();
  return given;
}
inline const LevelingGiven& pickup() {
  static const LevelingGiven given = [] {
    Build b = test::pickup_whole();
    b.drive = {};
    return leveling_of(b);
  }();
  return given;
}
inline const LearnedCar& car_of(const LevelingGiven& given) {
  static std::map<const LevelingGiven*, LearnedCar> cars;
  if (!cars.contains(&given)) {
    auto car = learned_car(given);
    if (!car) throw std::runtime_error(say(car.error()));
    cars.emplace(&given, std::move(*car));
  }
  return cars.at(&given);
}
/// A steady drive of a car, on a road of class C unless another is given.
inline DriveGiven a_drive(const LevelingGiven& given, const Rules& rules = {}, double minutes = 5,
                          std::shared_ptr<const Road> road = nullptr) {
  static const auto worn = std::make_shared<const Road>(Road::rough(control::RoadClass::c, 4000, 3));
  DriveGiven out = drive_given(given, car_of(given), rules, road ? std::move(road) : worn);
  out.sensors = {}; // read exactly
  out.speed = 16.7, out.duration = 60 * minutes, out.seed = 1;
  return out;
}
inline DriveResult driven(const DriveGiven& given) {
  return *control::drive(given);
}
inline control::TripEvent people() {
  return {control::TripEvent::Kind::load, 60, 10, {}, 150, 2.6, 0, 0};
}
inline std::shared_ptr<const Road> flat() {
  static const auto road = std::make_shared<const Road>(Road::flat());
  return road;
}

} // namespace mavrel::assess
