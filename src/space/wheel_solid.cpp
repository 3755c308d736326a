#include "space/wheel_solid.h"

#include "space/convex.h"

#include <limits>

namespace mavrel::space {

namespace {

constexpr double beyond_all = std::numeric_limits<double>::infinity();
constexpr double exact = 3e-5; // m, to which lines through the barrel are searched

/// A place seen from the wheel: how far inboard of the hub face, how far from the spin axis, and which way that is.
struct Seen {
  double inboard, r;
  Point radial; // of length r
};
Seen seen(const WheelPlace& place, const Point& p) {
  const Point d = p - place.centre;
  const double outboard = dot(d, place.outward);
  const Point radial = d - outboard * place.outward;
  return {-outboard, length(radial), radial};
}

/// How far inboard of the hub face, and how far out, the nearest place of the wheel's half section lies.
struct InSection {
  double inboard, r;
};

double outboard_face(const WheelSolid& w) {
  return w.offset - w.widest / 2 - w.grow;
}
double inboard_face(const WheelSolid& w) {
  return w.offset + w.widest / 2 + w.grow;
}
/// The disc reaches from the outboard face to the hub face, but not past the ring.
bool has_disc(const WheelSolid& w) {
  return outboard_face(w) < 0;
}
double disc_end(const WheelSolid& w) {
  return std::min(0.0, inboard_face(w));
}

InSection nearest_in_ring(const WheelSolid& w, double a, double r) {
  const double rounding = w.shoulder + w.grow;
  const double low = outboard_face(w), high = inboard_face(w);
  const double straight = w.radius + w.grow - rounding; // up to here its sides are flat
  if (r <= straight || (a >= low + rounding && a <= high - rounding))
    return {std::clamp(a, low, high), std::clamp(r, w.bore, w.radius + w.grow)};
  const double ca = std::clamp(a, low + rounding, high - rounding), da = a - ca, dr = r - straight;
  const double d = std::hypot(da, dr);
  if (d <= rounding) return {a, r};
  return {ca + da * rounding / d, straight + dr * rounding / d};
}

InSection nearest_in_disc(const WheelSolid& w, double a, double r) {
  return {std::clamp(a, outboard_face(w), disc_end(w)), std::min(r, w.bore)};
}

InSection nearest_in(const WheelSolid& w, double a, double r) {
  const InSection ring = nearest_in_ring(w, a, r);
  if (!has_disc(w)) return ring;
  const InSection disc = nearest_in_disc(w, a, r);
  return std::hypot(disc.inboard - a, disc.r - r) < std::hypot(ring.inboard - a, ring.r - r) ? disc : ring;
}

Point nearest_on(const WheelSolid& w, const WheelPlace& place, const Point& p) {
  const Seen s = seen(place, p);
  const InSection in = nearest_in(w, s.inboard, s.r);
  Point radial = s.radial;
  if (s.r > 1e-12)
    radial = (in.r / s.r) * radial;
  else { // on the spin axis every way is as near
    const Point side = std::abs(place.outward.x) < 0.7 ? Point{1, 0, 0} : Point{0, 1, 0};
    const Point square = cross(place.outward, side);
    radial = (in.r / length(square)) * square;
  }
  return place.centre - in.inboard * place.outward + radial;
}

/// The wheel with its barrel filled is convex: a cylinder inside, rounded by a ball all over.
struct Filled {
  Cylinder core;
  double rounding;
};
Filled filled(const WheelSolid& w, const WheelPlace& place) {
  return {{place.centre - w.offset * place.outward, place.outward, w.radius - w.shoulder, w.widest / 2 - w.shoulder},
          w.shoulder + w.grow};
}
/// @param g  to the core, which is its first
Gap rounded(Gap g, double rounding) {
  if (g.apart <= rounding) return {0, true, g.on_second, g.on_second};
  g.on_first = g.on_first + (rounding / g.apart) * (g.on_second - g.on_first);
  g.apart -= rounding;
  return g;
}

/// Is the wheel itself where the filled one's nearest place is? Not in front of the open barrel, nor in it.
bool on_the_wheel(const WheelSolid& w, const WheelPlace& place, const Gap& g) {
  if (g.overlap) return length(g.on_first - nearest_on(w, place, g.on_first)) <= 1e-12;
  const Seen s = seen(place, g.on_first);
  return s.r >= w.bore - 1e-9 || (has_disc(w) && s.inboard < w.offset);
}

Gap at_place(const WheelSolid& w, const WheelPlace& place, const Point& p) {
  const Point on = nearest_on(w, place, p);
  const double apart = length(p - on);
  return {apart, !(apart > 0), on, p};
}

/// Along a line that may run through the barrel, where the distance has several least places. No place of a piece is
/// nearer than the mean of its ends' distances less half its length: pieces that can't win are left.
void search(const WheelSolid& w, const WheelPlace& place, const Point& from, double d_from, const Point& to,
            double d_to, Gap& best) {
  const double span = length(to - from);
  if (best.overlap || 0.5 * (d_from + d_to - span) >= best.apart - exact || span < 2 * exact) return;
  const Point middle = lerp(from, to, 0.5);
  const Gap g = at_place(w, place, middle);
  if (g.apart < best.apart) best = g;
  search(w, place, from, d_from, middle, g.apart, best);
  search(w, place, middle, g.apart, to, d_to, best);
}
void search(const WheelSolid& w, const WheelPlace& place, const Segment& line, Gap& best) {
  // A good guess first: pieces round the best of a few places, each third of it nearer.
  constexpr int pieces = 8;
  std::array<Gap, pieces + 1> at;
  for (int i = 0; i <= pieces; ++i) {
    at[static_cast<std::size_t>(i)] = at_place(w, place, lerp(line.from, line.to, static_cast<double>(i) / pieces));
    if (at[static_cast<std::size_t>(i)].apart < best.apart) best = at[static_cast<std::size_t>(i)];
  }
  const auto least =
      std::min_element(at.begin(), at.end(), [](const Gap& a, const Gap& b) { return a.apart < b.apart; });
  Point low = least == at.begin() ? least->on_second : std::prev(least)->on_second;
  Point high = std::next(least) == at.end() ? least->on_second : std::next(least)->on_second;
  for (int round = 0; round < 24 && !best.overlap; ++round) {
    const Gap a = at_place(w, place, lerp(low, high, 0.382)), b = at_place(w, place, lerp(low, high, 0.618));
    if (a.apart < best.apart) best = a;
    if (b.apart < best.apart) best = b;
    (a.apart <= b.apart ? high : low) = a.apart <= b.apart ? b.on_second : a.on_second;
  }
  for (std::size_t i = 0; i < pieces; ++i)
    search(w, place, at[i].on_second, at[i].apart, at[i + 1].on_second, at[i + 1].apart, best);
}

/// How far inboard of the hub face a body's outermost place lies.
double outermost(const WheelPlace& place, const Sides& box) {
  double least = beyond_all;
  for (int i = 0; i < 8; ++i)
    least = std::min(least, seen(place, box.corner(i)).inboard);
  return least;
}
double outermost(const WheelPlace& place, const Cylinder& body) {
  const double along = dot(body.axis, place.outward), across = std::sqrt(std::max(0.0, 1 - along * along));
  return seen(place, body.centre).inboard - body.half * std::abs(along) - body.radius * across;
}

double outermost(const WheelPlace& place, const Segment& line) {
  return std::min(seen(place, line.from).inboard, seen(place, line.to).inboard);
}

/// To the ring from in front of its bore or in it: what is nearest then lies on the bore. Line by line along it, all
/// round; between lines the least place of each dip is looked for.
/// @param body  convex, no part of it in the ring's rubber unless it reaches through the bore
template <class Body>
Gap to_bore(const WheelSolid& w, const WheelPlace& place, const Body& body) {
  constexpr int lines = 24;
  const double inner = inboard_face(w), outer = has_disc(w) ? disc_end(w) : outboard_face(w);
  const bool outside = outermost(place, body) >= inner; // then its edge alone
  const Point side = std::abs(place.outward.x) < 0.7 ? Point{1, 0, 0} : Point{0, 1, 0};
  const Point square = cross(place.outward, side), u = (1 / length(square)) * square, v = cross(place.outward, u);
  const auto at = [&](double turn) {
    const Point edge = place.centre - inner * place.outward + w.bore * (std::cos(turn) * u + std::sin(turn) * v);
    if (!outside) {
      const Gap g = gap_along(body, Segment{edge, edge + (inner - outer) * place.outward});
      return Gap{g.apart, g.overlap, g.on_second, g.on_first};
    }
    const Point on = nearest_on(body, edge);
    const double apart = length(on - edge);
    return Gap{apart, !(apart > 0), edge, on};
  };
  constexpr double between = 2 * M_PI / lines;
  std::array<Gap, lines> around;
  Gap best{beyond_all, false, {}, {}};
  const auto take = [&](const Gap& g) {
    if (g.apart < best.apart) best = g;
  };
  for (int i = 0; i < lines; ++i) {
    around[static_cast<std::size_t>(i)] = at(i * between);
    take(around[static_cast<std::size_t>(i)]);
    if (best.overlap) return best;
  }
  for (int i = 0; i < lines; ++i) {
    const double here = around[static_cast<std::size_t>(i)].apart;
    if (here > around[static_cast<std::size_t>((i + lines - 1) % lines)].apart ||
        here > around[static_cast<std::size_t>((i + 1) % lines)].apart || here - w.bore * between >= best.apart)
      continue;
    least_within(at, (i - 1) * between, (i + 1) * between, 12, take);
  }
  return best;
}

/// With the disc, which is convex, where there is one.
template <class Body, class Solid_>
Gap through_barrel(const WheelSolid& w, const WheelPlace& place, const Body& body, const Solid_& as_solid) {
  const Gap best = to_bore(w, place, body);
  // No nearer to the disc than its outermost place is to the hub face.
  if (best.overlap || !has_disc(w) || outermost(place, body) - disc_end(w) >= best.apart) return best;
  const double low = outboard_face(w), high = disc_end(w);
  const Cylinder disc{place.centre - 0.5 * (low + high) * place.outward, place.outward, w.bore, (high - low) / 2};
  const Gap g = gap_between(disc, as_solid);
  return g.apart < best.apart || g.overlap ? g : best;
}

Gap through_barrel(const WheelSolid& w, const WheelPlace& place, const Rod& rod) {
  const Segment line{rod.from, rod.to};
  Gap best{beyond_all, false, {}, {}};
  const double out = outermost(place, line);
  // In front of the open barrel its edge is what is nearest; in it, or through it, the line itself is searched.
  if (out >= inboard_face(w)) best = to_bore(w, place, line);
  if (!(out >= inboard_face(w)) || (has_disc(w) && out - disc_end(w) < best.apart)) search(w, place, line, best);
  if (best.apart <= rod.radius) return {0, true, best.on_first, best.on_first};
  best.on_second = best.on_second + (rod.radius / best.apart) * (best.on_first - best.on_second);
  best.apart -= rod.radius;
  return best;
}

} // namespace

WheelPlace wheel_place(const Point& centre, double camber, double toe, double steer, bool left) {
  const double turn = left ? steer - toe : steer + toe, out = left ? 1 : -1;
  return {centre,
          {-out * std::sin(turn) * std::cos(camber), out * std::cos(turn) * std::cos(camber), -std::sin(camber)}};
}

WheelPlace moved_back(const WheelPlace& wheel, const Placed& by) {
  return {by.back(wheel.centre), by.turned_back(wheel.outward)};
}

double distance_to(const WheelSolid& wheel, const WheelPlace& place, const Point& p) {
  return length(p - nearest_on(wheel, place, p));
}

Gap gap_between(const WheelSolid& wheel, const WheelPlace& place, const Solid& solid) {
  const Filled whole = filled(wheel, place);
  // Against a plane the open barrel makes no difference: the rims of the ring reach as far as the filled wheel.
  const Gap convex = rounded(gap_between(whole.core, solid), whole.rounding);
  if (std::holds_alternative<Plane>(solid) || on_the_wheel(wheel, place, convex)) return convex;
  if (const auto* rod = std::get_if<Rod>(&solid)) return through_barrel(wheel, place, *rod);
  return through_barrel(wheel, place, Sides(std::get<Box>(solid)), solid);
}

Gap gap_between(const WheelSolid& wheel, const WheelPlace& place, const Cylinder& body) {
  const Filled whole = filled(wheel, place);
  const Gap convex = rounded(gap_between(whole.core, body), whole.rounding);
  return on_the_wheel(wheel, place, convex) ? convex : through_barrel(wheel, place, body, body);
}

std::vector<SectionPoint> section_of(const WheelSolid& w) {
  std::vector<SectionPoint> out;
  const double low = -inboard_face(w), high = -outboard_face(w), rounding = w.shoulder + w.grow;
  const double top = w.radius + w.grow;
  out.push_back({low, w.bore});
  constexpr int steps = 8;
  for (int i = 0; i <= steps; ++i) {
    const double t = M_PI / 2 * i / steps;
    out.push_back({low + rounding - rounding * std::cos(t), top - rounding + rounding * std::sin(t)});
  }
  for (int i = 0; i <= steps; ++i) {
    const double t = M_PI / 2 * (1 - static_cast<double>(i) / steps);
    out.push_back({high - rounding + rounding * std::cos(t), top - rounding + rounding * std::sin(t)});
  }
  if (!has_disc(w)) {
    out.push_back({high, w.bore});
    return out;
  }
  const double hub = -disc_end(w);
  out.push_back({high, 0});
  out.push_back({hub, 0});
  out.push_back({hub, w.bore});
  return out;
}

} // namespace mavrel::space
