// The car as it came: the job, its body and what is hot under it, its loads, and the air around it.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_low_points = 60, most_hot_parts = 12;

enum class BodyStyle { estate, hatchback, saloon, coupe, van, pickup };

struct Job {
  std::string car, number, owner, shop, notes;
  std::string platform; // what cars alike are found by: `Sorrel Wayfare`
  std::string put_off;  // steps that were put off, by their ids with spaces between
  Extra extra;
  friend bool operator==(const Job&, const Job&) = default;
};

/// A low place of the underside, with the car as surveyed.
struct LowPoint {
  std::string name;       // `pan front`
  double x = 0, z = 0.15; // m behind the front axle, m above the floor
  Extra extra;
  friend bool operator==(const LowPoint&, const LowPoint&) = default;
};

/// The space behind the seats, as a box; its middle is the car's.
struct Boot {
  std::optional<double> from, floor;           // m: its front behind the front axle, its floor above the road
  std::optional<double> length, width, height; // m
  Extra extra;
  friend bool operator==(const Boot&, const Boot&) = default;
};

/// The spare wheel's well, a round one.
struct Well {
  std::optional<double> x, y, bottom;    // m: its middle behind the front axle and left; its bottom above the road
  std::optional<double> diameter, depth; // m
  Extra extra;
  friend bool operator==(const Well&, const Well&) = default;
};

enum class Shielded { no, yes };

/// Something hot under the car, as a round rod.
struct HotPart {
  std::string name;                         // `silencer`
  double x = 2.5, y = 0, z = 0.25;          // m behind the front axle, left, above the road: one end
  double to_x = 3.2, to_y = 0, to_z = 0.25; // the other
  double radius = 0.03;                     // m
  Shielded shielded = Shielded::no;
  Extra extra;
  friend bool operator==(const HotPart&, const HotPart&) = default;
};

struct Body {
  BodyStyle style = BodyStyle::estate;
  std::optional<double> wheelbase, front_overhang, rear_overhang, overall_height, sill_height; // m
  std::optional<double> rating;                                                                // kg, the whole car's
  std::optional<double> gravity_height; // m above the road, of the sprung body; estimated when absent
  List<LowPoint> underside;             // from front to rear, or in any order
  Boot boot;
  Well well;
  List<HotPart> hot;
  Extra extra;
  friend bool operator==(const Body&, const Body&) = default;
};

struct LoadMass {
  std::string name;
  double mass = 0; // kg, added to the surveyed car; negative for what comes off
  double x = 0;    // m behind the front axle
  double y = 0;    // m left of the middle
  Extra extra;
  std::optional<double> z = std::nullopt; // m above the road; at the body's own height of gravity when absent
  friend bool operator==(const LoadMass&, const LoadMass&) = default;
};

struct LoadCase {
  std::string name;
  std::vector<LoadMass> masses;
  Extra extra;
  friend bool operator==(const LoadCase&, const LoadCase&) = default;
};

struct Surroundings {
  double altitude = 0;                // m
  double temperature = 293.15;        // K
  double night_temperature = 269.15;  // K, of a frosty morning
  double shut_off_above = 15;         // K, a worked bag's air above the air around when the valves are shut
  double pass_altitude = 1800;        // m, of the highest road
  double worked_temperature = 323.15; // K, of the air in a bag after a hard hour
  double humidity = 0.65;             // relative, of the air that is taken in
  Extra extra;
  friend bool operator==(const Surroundings&, const Surroundings&) = default;
};

template <>
const Table& table_of<Job>();
template <>
const Table& table_of<LowPoint>();
template <>
const Table& table_of<Boot>();
template <>
const Table& table_of<Well>();
template <>
const Table& table_of<HotPart>();
template <>
const Table& table_of<Body>();
template <>
const Table& table_of<LoadMass>();
template <>
const Table& table_of<LoadCase>();
template <>
const Table& table_of<Surroundings>();

} // namespace mavrel::build
