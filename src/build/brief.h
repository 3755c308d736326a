// What is wanted of the car: its heights, its comfort, its room, what it has to get over.
#pragma once

#include "build/air_wishes.h"
#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_grounds = 12, most_profile_points = 200;

/// A height somebody wants, in the words they want it in.
struct HeightWish {
  enum class As { height, gap, drop };
  As as = As::height;
  double value = 0; // m: H itself, top of tyre to arch, or below the surveyed height
  Extra extra;
  friend bool operator==(const HeightWish&, const HeightWish&) = default;
};

/// What a preset is for decides the window it must lie in.
enum class PresetUse { parked, road, ramp, other };

/// How a car stands parked: its bags vented and the car on its stops, or low on its air.
enum class ParkedHow { aired_out, held };

struct Preset {
  std::string name;
  PresetUse use = PresetUse::other;
  ParkedHow parked = ParkedHow::aired_out;       // of a parked preset
  std::array<std::optional<HeightWish>, 2> wish; // front, rear
  Extra extra;
  friend bool operator==(const Preset&, const Preset&) = default;
};

/// Room that each kind of thing asks for, m.
struct Rooms {
  double tyre = 0.006, metal = 0.005, hose = 0.010, brake_line = 0.010; // the bag's own is `bag_clearance`
  double exhaust = 0.060, shielded_exhaust = 0.030;                     // for everything near, not only the bag
  double tyre_growth = 0.003;                                           // m that a tyre grows and squirms by all over
  Extra extra;
  friend bool operator==(const Rooms&, const Rooms&) = default;
};

struct ProfilePoint {
  double x = 0, z = 0; // m along the way and above the road before it
  Extra extra;
  friend bool operator==(const ProfilePoint&, const ProfilePoint&) = default;
};

/// Something on the ground that the car must get over.
struct Ground {
  std::string name;                 // `harbour ramp`
  PresetUse over = PresetUse::ramp; // at which heights
  double margin = 0.010;            // m kept under the car
  std::vector<ProfilePoint> points; // rising in x; flat beyond
  Extra extra;
  friend bool operator==(const Ground&, const Ground&) = default;
};

struct Brief {
  std::vector<Preset> presets;
  double bump_travel = 0.045;        // m kept below road height
  double rebound_reserve = 0.030;    // m kept above it
  double bag_margin = 0.006;         // m above the collapsed bag when the outside stop meets
  double bag_clearance = 0.012;      // m around the bag
  double road_pressure_share = 0.70; // of the bag's maximum, on the road
  double frequency_low = 1.0;        // Hz, body frequency wanted
  double frequency_high = 1.5;       // Hz
  double rear_quicker_low = 0.10;    // rear over front body frequency, less 1
  double rear_quicker_high = 0.20;
  double exponent = 1.38;                   // n for a wheel over a bump
  double braking = 0.5;                     // of g, at which brake dive is told
  double settle_speed = 25;                 // m/s, at which the car is to settle flat after a bump
  double gauge_error = 1e4;                 // Pa, either way
  double load_doubt = 10;                   // kg a corner, either way
  double lean_wanted = 0.05235987755982988; // rad, most lean at 0.3 g
  std::string notes;
  Rooms rooms;
  List<Ground> grounds;
  AirWishes air;
  Extra extra;
  friend bool operator==(const Brief&, const Brief&) = default;
};

template <>
const Table& table_of<HeightWish>();
template <>
const Table& table_of<Preset>();
template <>
const Table& table_of<Rooms>();
template <>
const Table& table_of<ProfilePoint>();
template <>
const Table& table_of<Ground>();
template <>
const Table& table_of<Brief>();

} // namespace mavrel::build
