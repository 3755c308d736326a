// A car on its wheels over a profile of the ground, seen from the side.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace mavrel::space {

/// A place seen from the side, m.
struct SidePoint {
  double x = 0, z = 0;
  friend bool operator==(const SidePoint&, const SidePoint&) = default;
};

/// The ground, as a broken line rising in x; flat beyond its ends. The car drives towards +x.
using Profile = std::vector<SidePoint>;

/// The lowest places of a car as a broken line, and its wheels.
struct Underside {
  double wheelbase = 0;                     // m, between the hubs along the car
  double front_radius = 0, rear_radius = 0; // m
  double front_dh = 0, rear_dh = 0;         // m, H less that at which the points were measured
  double front_bigger = 0, rear_bigger = 0; // m, the radii less those of the wheels it stood on when they were measured
  std::vector<SidePoint> points;            // x behind the front axle, rising; z above the floor as measured
  friend bool operator==(const Underside&, const Underside&) = default;
};

/// How a car stands on the profile: a place (x behind the front axle, z above the floor as measured) of its body lies
/// at `at` + x·`back` + z·`up`.
struct Stance {
  SidePoint front_hub, rear_hub; // m, over the profile
  SidePoint origin, back, up;
  [[nodiscard]] SidePoint place(const SidePoint& of_body) const {
    return {origin.x + of_body.x * back.x + of_body.z * up.x, origin.z + of_body.x * back.z + of_body.z * up.z};
  }
};
/// @param x  m, of the front wheel's centre
/// @returns none where the rear wheel can't stand at the right distance: a profile too steep for the car
[[nodiscard]] std::optional<Stance> stance_at(const Underside& car, const Profile& profile, double x);

/// Where the underside is nearest to the ground.
struct GroundGap {
  double gap = 0;        // m, upright; below 0 it touches
  double front_at = 0;   // m, of the front wheel's centre
  SidePoint at;          // on the underside, over the profile
  std::size_t point = 0; // of the underside; of a span the nearer end
};
/// Over the whole car at one place. @returns none where it can't stand there
[[nodiscard]] std::optional<GroundGap> gap_at(const Underside& car, const Profile& profile, double x);
/// The least over the whole way, from where all of the car is before the profile until it is all past it.
/// @returns none without points, or where the car can't stand somewhere on its way
/// Source: docs/models.md, "Ground".
[[nodiscard]] std::optional<GroundGap> least_gap(const Underside& car, const Profile& profile);

/// Angles of flat ground, rad; none where no point limits it.
struct GroundAngles {
  std::optional<double> approach, departure, breakover;
};
[[nodiscard]] GroundAngles ground_angles(const Underside& car);

/// Height of a wheel's centre when it rolls on the profile at x: the profile offset by the radius.
[[nodiscard]] double rolling_height(const Profile& profile, double radius, double x);
/// Height of the profile at x.
[[nodiscard]] double height_at(const Profile& profile, double x);

} // namespace mavrel::space
