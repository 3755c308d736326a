// Least distances between convex bodies from one thing that each can tell: which of its places is nearest to a point.
// For .cpp files of this folder only.
#pragma once

#include "space/solid.h"

#include <algorithm>
#include <array>
#include <optional>
#include <utility>

namespace mavrel::space {

struct Segment {
  Point from, to;
};

[[nodiscard]] inline Point nearest_on(const Segment& s, const Point& p) {
  const Point way = s.to - s.from;
  const double long2 = dot(way, way);
  if (!(long2 > 0)) return s.from;
  return lerp(s.from, s.to, std::clamp(dot(p - s.from, way) / long2, 0.0, 1.0));
}

[[nodiscard]] inline Point nearest_on(const Cylinder& c, const Point& p) {
  const Point d = p - c.centre;
  const double a = dot(d, c.axis);
  const Point radial = d - a * c.axis;
  const double r = length(radial);
  const Point on = c.centre + std::clamp(a, -c.half, c.half) * c.axis;
  return r > c.radius ? on + (c.radius / r) * radial : on + radial;
}

/// A box with its sides as unit vectors.
struct Sides {
  Point centre;
  std::array<Point, 3> side;
  std::array<double, 3> half;

  explicit Sides(const Box& box)
      : centre(box.centre), side{Point{std::cos(box.turn), std::sin(box.turn), 0},
                                 Point{-std::sin(box.turn), std::cos(box.turn), 0}, Point{0, 0, 1}},
        half{box.half.x, box.half.y, box.half.z} {}
  [[nodiscard]] Point corner(int i) const {
    return centre + ((i & 1 ? 1 : -1) * half[0]) * side[0] + ((i & 2 ? 1 : -1) * half[1]) * side[1] +
           ((i & 4 ? 1 : -1) * half[2]) * side[2];
  }
  [[nodiscard]] bool holds(const Point& p) const {
    for (std::size_t i = 0; i < 3; ++i)
      if (std::abs(dot(p - centre, side[i])) > half[i]) return false;
    return true;
  }
};

[[nodiscard]] inline Point nearest_on(const Sides& box, const Point& p) {
  Point on = box.centre;
  for (std::size_t i = 0; i < 3; ++i)
    on = on + std::clamp(dot(p - box.centre, box.side[i]), -box.half[i], box.half[i]) * box.side[i];
  return on;
}

/// Where a slope that rises through 0 does so: by false position, the end that stays put counting half (Illinois), so
/// that both close in, to 0.1 µm of what it is the slope of.
/// @param at_low, at_high  the slope at the ends, below and above 0
template <class Slope>
[[nodiscard]] double rising_zero(const Slope& slope, double low, double at_low, double high, double at_high) {
  constexpr double fine = 1e-7; // m of the distance
  int stays = 0;
  for (int round = 0; round < 60; ++round) {
    double t = high - at_high * (high - low) / (at_high - at_low);
    if (!(t > low && t < high)) t = 0.5 * (low + high);
    const double here = slope(t);
    if (here == 0 || std::abs(here) * (high - low) < fine) return t;
    if (here < 0) {
      low = t, at_low = here;
      if (stays == -1) at_high *= 0.5;
      stays = -1;
    } else {
      high = t, at_high = here;
      if (stays == 1) at_low *= 0.5;
      stays = 1;
    }
  }
  return 0.5 * (low + high);
}

/// The place along a segment that is nearest to a convex body. Its distance is convex along the segment, so its slope
/// changes sign once.
template <class Body>
[[nodiscard]] Gap gap_along(const Body& body, const Segment& s) {
  const Point way = s.to - s.from;
  const auto at = [&](double t) { return lerp(s.from, s.to, t); };
  const auto gap = [&](double t) {
    const Point p = at(t), on = nearest_on(body, p);
    const double apart = length(p - on);
    return Gap{apart, !(apart > 0), on, p};
  };
  double apart = 0; // where the slope was last looked at
  const auto slope = [&](double t) {
    const Point p = at(t), off = p - nearest_on(body, p);
    apart = length(off);
    return apart > 0 ? dot(off, way) / apart : 0;
  };
  const double at_low = slope(0);
  if (at_low >= 0) return gap(0);
  const double at_high = slope(1);
  if (at_high <= 0) return gap(1);
  return gap(rising_zero(slope, 0, at_low, 1, at_high));
}

/// The least gap about a place where there is one, by golden section: each round keeps one of its two trials.
/// @param at  the gap at a parameter; what it finds on its way may be nearer still, so each trial is given to `take`
template <class At, class Take>
void least_within(const At& at, double low, double high, int rounds, const Take& take) {
  constexpr double golden = 0.6180339887498949;
  double a = high - golden * (high - low), b = low + golden * (high - low);
  Gap ga = at(a), gb = at(b);
  take(ga), take(gb);
  for (int round = 0; round < rounds && !ga.overlap && !gb.overlap; ++round) {
    if (ga.apart <= gb.apart) {
      high = b, b = a, gb = ga;
      a = high - golden * (high - low);
      ga = at(a);
      take(ga);
    } else {
      low = a, a = b, ga = gb;
      b = low + golden * (high - low);
      gb = at(b);
      take(gb);
    }
  }
}

/// Edges of a box as pairs of corners.
constexpr std::array<std::pair<int, int>, 12> box_edges{
    {{0, 1}, {2, 3}, {4, 5}, {6, 7}, {0, 2}, {1, 3}, {4, 6}, {5, 7}, {0, 4}, {1, 5}, {2, 6}, {3, 7}}};

} // namespace mavrel::space
