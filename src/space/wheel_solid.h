// A wheel with its tyre as a solid, and least distances to it.
#pragma once

#include "space/solid.h"

#include <vector>

namespace mavrel::space {

/// A ring about the spin axis, both corners at the tread rounded, open inside towards the car; in the ring's bore, from
/// the hub face to the ring's outboard face, the wheel's disc.
struct WheelSolid {
  double radius = 0;   // m, of the tread
  double bore = 0;     // m, radius of the ring's inside
  double widest = 0;   // m, across
  double offset = 0;   // m that the ring's middle lies inboard of the hub face
  double shoulder = 0; // m, radius of the corners at the tread
  double grow = 0;     // m that tread, shoulders and both faces move out along their normals
  friend bool operator==(const WheelSolid&, const WheelSolid&) = default;
};

/// Where it stands.
struct WheelPlace {
  Point centre;           // of the hub face
  Point outward{0, 1, 0}; // the spin axis, away from the car, of length 1
};
/// @param camber, toe, steer  rad; top outward, toe-in and left turn positive: about z by steer − toe, then the camber
///                            about the wheel's own forward axis
/// @param left  false: a right wheel, whose outward is −y; angles keep their meaning, `steer` is still to the left
[[nodiscard]] WheelPlace wheel_place(const Point& centre, double camber, double toe, double steer, bool left = true);
[[nodiscard]] WheelPlace moved_back(const WheelPlace& wheel, const Placed& by);

/// Least distance of tyre and wheel to a solid; what is inside the open barrel and touches nothing is apart.
/// `on_first` lies on the wheel.
/// Source: docs/models.md, "Clearance".
[[nodiscard]] Gap gap_between(const WheelSolid& wheel, const WheelPlace& place, const Solid& solid);
[[nodiscard]] Gap gap_between(const WheelSolid& wheel, const WheelPlace& place, const Cylinder& body);

/// Distance from a place to the wheel, m; 0 inside it.
[[nodiscard]] double distance_to(const WheelSolid& wheel, const WheelPlace& place, const Point& p);

/// The wheel's half section from the spin axis up, as corners to draw: x outboard of the hub face, y the radius.
struct SectionPoint {
  double outboard = 0, radius = 0;
};
[[nodiscard]] std::vector<SectionPoint> section_of(const WheelSolid& wheel);

} // namespace mavrel::space
