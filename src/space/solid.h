// The simple solids that clearances are taken to, and least distances between them.
#pragma once

#include "space/point.h"

#include <variant>

namespace mavrel::space {

/// Everything on the far side of a flat face.
struct Plane {
  Point at;
  Point normal; // towards free space; any length but zero
  friend bool operator==(const Plane&, const Plane&) = default;
};
/// A block, turned about z.
struct Box {
  Point centre, half; // m; half of each side
  double turn = 0;    // rad, left positive
  friend bool operator==(const Box&, const Box&) = default;
};
/// A bar with round ends; an edge where its radius is 0.
struct Rod {
  Point from, to;
  double radius = 0; // m
  friend bool operator==(const Rod&, const Rod&) = default;
};
using Solid = std::variant<Plane, Box, Rod>;

/// A round body with flat ends.
struct Cylinder {
  Point centre, axis;          // axis of length 1
  double radius = 0, half = 0; // m; half its length
};

/// Two bodies' nearest places.
struct Gap {
  double apart = 0;     // m; 0 where they overlap
  bool overlap = false; // touching counts
  Point on_first, on_second;
};

/// Least distance between two bodies. Exact in closed form but for a search along lines, good to 1 µm.
/// Source: docs/models.md, "Clearance".
[[nodiscard]] Gap gap_between(const Rod& first, const Solid& second);
[[nodiscard]] Gap gap_between(const Cylinder& first, const Solid& second);
[[nodiscard]] Gap gap_between(const Cylinder& first, const Cylinder& second);

/// The solid as it stands when the part that carries it has moved. A box may then be turned about any axis, so that it
/// is the other body that is moved back: see `moved_back`.
[[nodiscard]] Rod moved(const Rod& rod, const Placed& by);
[[nodiscard]] Rod moved_back(const Rod& rod, const Placed& by);
[[nodiscard]] Cylinder moved_back(const Cylinder& body, const Placed& by);
/// A gap found in a part's own place, told in the car's.
[[nodiscard]] Gap moved(const Gap& gap, const Placed& by);

} // namespace mavrel::space
