#include "space/solid.h"

#include "space/convex.h"

#include <limits>

namespace mavrel::space {

namespace {

constexpr double endless = std::numeric_limits<double>::infinity();

Point unit_or(const Point& v, const Point& otherwise) {
  const double l = length(v);
  return l > 1e-12 ? (1 / l) * v : otherwise;
}

Gap swapped(const Gap& g) {
  return {g.apart, g.overlap, g.on_second, g.on_first};
}

/// A gap to a line that has a radius after all.
/// @param g  to the bare line, which is its second
Gap thickened(Gap g, double radius) {
  if (g.apart <= radius) return {0, true, g.on_first, g.on_first};
  g.on_second = g.on_second + (radius / g.apart) * (g.on_first - g.on_second);
  g.apart -= radius;
  return g;
}

Gap to_plane(const Point& lowest, const Plane& plane, const Point& n) {
  const double above = dot(lowest - plane.at, n);
  return above > 0 ? Gap{above, false, lowest, lowest - above * n} : Gap{0, true, lowest, lowest};
}

/// The cylinder's furthest place in a direction of length 1; of a whole line or disc of them, its middle.
Point furthest(const Cylinder& c, const Point& way) {
  constexpr double square = 1e-9;
  const double along = dot(way, c.axis);
  Point out = c.centre;
  if (std::abs(along) > square) out = out + std::copysign(c.half, along) * c.axis;
  const Point radial = way - along * c.axis;
  const double l = length(radial);
  return l > square ? out + (c.radius / l) * radial : out;
}

Gap to_box(const Cylinder& c, const Box& box) {
  const Sides sides(box);
  if (sides.holds(c.centre)) return {0, true, c.centre, c.centre};
  Gap best{endless, false, {}, {}};
  // Over a face the cylinder's nearest place is the one furthest against the face's normal.
  for (std::size_t i = 0; i < 3; ++i)
    for (const double way : {-1.0, 1.0}) {
      const Point n = way * sides.side[i], face = sides.centre + sides.half[i] * n;
      const auto over = [&](const Point& p) {
        for (std::size_t k = 0; k < 3; ++k)
          if (k != i && std::abs(dot(p - sides.centre, sides.side[k])) > sides.half[k]) return false;
        return true;
      };
      const Point near = furthest(c, -1 * n);
      const double above = dot(near - face, n);
      if (above > 0) {
        if (above < best.apart && over(near)) best = {above, false, near, near - above * n};
        continue;
      }
      // The face's plane may cut the cylinder inside the face, no edge of the box touching it.
      const Point far = furthest(c, n);
      const double beyond = dot(far - face, n);
      if (beyond < 0) continue;
      const Point through = lerp(near, far, above == beyond ? 0.0 : above / (above - beyond));
      if (over(through)) return {0, true, through, through};
    }
  for (const auto& [from, to] : box_edges) {
    const Segment edge{sides.corner(from), sides.corner(to)};
    const Point middle = lerp(edge.from, edge.to, 0.5);
    if (length(middle - nearest_on(c, middle)) - 0.5 * length(edge.to - edge.from) >= best.apart) continue;
    const Gap g = gap_along(c, edge);
    if (g.overlap) return g;
    if (g.apart < best.apart) best = g;
  }
  return best;
}

/// To the flat end of a second one that lies nearest, its rim and its side.
/// @param way  out of that end
Gap to_end(const Cylinder& first, const Cylinder& second, const Point& way) {
  constexpr int places = 16;
  const Point middle = second.centre + second.half * way;
  Gap best{endless, false, {}, {}};
  const auto take = [&](const Gap& g) {
    if (g.apart < best.apart) best = g;
  };
  // Over the flat end, the first one's furthest place against it.
  const Point near = furthest(first, -1 * way);
  const double above = dot(near - middle, way);
  const auto over = [&](const Point& p) {
    const Point off = p - middle;
    const double along = dot(off, way);
    return length(off - along * way) <= second.radius;
  };
  if (above > 0 && over(near)) return {above, false, near, near - above * way};
  const Point far = furthest(first, way);
  if (const double beyond = dot(far - middle, way); above <= 0 && beyond >= 0) {
    const Point through = lerp(near, far, above == beyond ? 0.0 : above / (above - beyond));
    if (over(through)) return {0, true, through, through};
  }
  const Point side = std::abs(way.x) < 0.7 ? Point{1, 0, 0} : Point{0, 1, 0};
  const Point square = cross(way, side), u = (1 / length(square)) * square, v = cross(way, u);
  const auto rim = [&](double turn) {
    const Point p = middle + second.radius * (std::cos(turn) * u + std::sin(turn) * v);
    const Point on = nearest_on(first, p);
    const double apart = length(on - p);
    return Gap{apart, !(apart > 0), on, p};
  };
  constexpr double between = 2 * M_PI / places;
  int least = 0;
  for (int i = 0; i < places; ++i) {
    const Gap g = rim(i * between);
    if (g.apart < best.apart) least = i;
    take(g);
  }
  least_within(rim, (least - 1) * between, (least + 1) * between, 14, take);
  // And down its side from there, where the first one leans over it.
  const Point at_rim = best.on_second;
  take(gap_along(first, Segment{at_rim, at_rim - (2 * second.half) * way}));
  return best;
}

} // namespace

Gap gap_between(const Rod& first, const Solid& second) {
  const Segment line{first.from, first.to};
  if (const auto* plane = std::get_if<Plane>(&second)) {
    const Point n = unit_or(plane->normal, {0, 0, 1});
    const Point lower = dot(first.from - first.to, n) <= 0 ? first.from : first.to;
    return to_plane(lower - first.radius * n, *plane, n);
  }
  if (const auto* box = std::get_if<Box>(&second))
    return swapped(thickened(gap_along(Sides(*box), line), first.radius));
  const Rod& other = std::get<Rod>(second);
  // gap_along has the line that is gone along second.
  const Gap bare = thickened(gap_along(Segment{other.from, other.to}, line), first.radius);
  return bare.overlap ? bare : thickened(swapped(bare), other.radius);
}

Gap gap_between(const Cylinder& first, const Solid& second) {
  if (const auto* plane = std::get_if<Plane>(&second)) {
    const Point n = unit_or(plane->normal, {0, 0, 1});
    return to_plane(furthest(first, -1 * n), *plane, n);
  }
  if (const auto* box = std::get_if<Box>(&second)) return to_box(first, *box);
  const Rod& rod = std::get<Rod>(second);
  return thickened(gap_along(first, Segment{rod.from, rod.to}), rod.radius);
}

Gap gap_between(const Cylinder& first, const Cylinder& second) {
  const Point end = second.half * second.axis;
  const Gap bare = gap_along(first, Segment{second.centre - end, second.centre + end});
  if (bare.overlap) return bare;
  const double along = dot(bare.on_second - second.centre, second.axis);
  // Beside the second one its nearest place lies square to its axis.
  if (std::abs(along) < second.half - 1e-6) return thickened(bare, second.radius);
  return to_end(first, second, along > 0 ? second.axis : -1 * second.axis);
}

Rod moved(const Rod& rod, const Placed& by) {
  return {by.place(rod.from), by.place(rod.to), rod.radius};
}
Rod moved_back(const Rod& rod, const Placed& by) {
  return {by.back(rod.from), by.back(rod.to), rod.radius};
}
Cylinder moved_back(const Cylinder& body, const Placed& by) {
  return {by.back(body.centre), by.turned_back(body.axis), body.radius, body.half};
}
Gap moved(const Gap& gap, const Placed& by) {
  return {gap.apart, gap.overlap, by.place(gap.on_first), by.place(gap.on_second)};
}

} // namespace mavrel::space
