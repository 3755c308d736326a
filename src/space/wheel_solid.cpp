#include "space/wheel_solid.h"

#include "space/convex.h"

#include <limits>
#include <vector>

namespace mavrel::space {

namespace {

constexpr double beyond_all = std::numeric_limits<double>::infinity();
constexpr double exact = 2e-6; // m, to which lines before the barrel are searched

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
  const double d = std::sqrt(da * da + dr * dr);
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
  const auto far = [&](const InSection& in) { return (in.inboard - a) * (in.inboard - a) + (in.r - r) * (in.r - r); };
  return far(disc) < far(ring) ? disc : ring;
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

/// A line as the wheel sees it: how far inboard and how far out it is at each place of it, and how far from the wheel.
class SeenLine {
public:
  SeenLine(const WheelSolid& w, const WheelPlace& place, const Segment& line) : w_(w) {
    const Seen from = seen(place, line.from), to = seen(place, line.to);
    const Point way = to.radial - from.radial;
    a_ = {from.inboard, to.inboard - from.inboard};
    r2_ = {dot(from.radial, from.radial), 2 * dot(from.radial, way), dot(way, way)};
    long_ = length(line.to - line.from);
  }
  [[nodiscard]] double inboard(double t) const { return a_[0] + t * a_[1]; }
  [[nodiscard]] double out(double t) const { return std::sqrt(std::max(0.0, r2_[0] + t * (r2_[1] + t * r2_[2]))); }
  [[nodiscard]] double apart(double t) const { return near(t).apart; }
  /// m for the whole line
  [[nodiscard]] double slope(double t) const {
    const Near n = near(t);
    if (!(n.apart > 0)) return 0;
    const double outward = n.r > 0 ? (r2_[1] + 2 * t * r2_[2]) / (2 * n.r) : 0;
    return ((n.a - n.on.inboard) * a_[1] + (n.r - n.on.r) * outward) / n.apart;
  }
  [[nodiscard]] double whole() const { return long_; }
  /// Squared distance from the spin axis' place that lies so far inboard, as a polynomial along the line.
  [[nodiscard]] std::array<double, 3> squared_from(double inboard) const {
    const double a = a_[0] - inboard;
    return {a * a + r2_[0], 2 * a * a_[1] + r2_[1], a_[1] * a_[1] + r2_[2]};
  }
  /// Where it is so far inboard, and where so far out.
  void crossings(double inboard, double bore, std::vector<double>& out) const {
    if (a_[1] != 0) out.push_back((inboard - a_[0]) / a_[1]);
    const double half = r2_[1] / 2, under = half * half - r2_[2] * (r2_[0] - bore * bore);
    if (!(r2_[2] > 0) || under < 0) return;
    for (const double root : {-std::sqrt(under), std::sqrt(under)})
      out.push_back((root - half) / r2_[2]);
  }

private:
  struct Near {
    double a, r, apart;
    InSection on;
  };
  [[nodiscard]] Near near(double t) const {
    const double a = inboard(t), r = out(t);
    const InSection on = nearest_in(w_, a, r);
    return {a, r, std::sqrt((a - on.inboard) * (a - on.inboard) + (r - on.r) * (r - on.r)), on};
  }
  const WheelSolid& w_;
  std::array<double, 2> a_{};
  std::array<double, 3> r2_{};
  double long_ = 0;
};

/// The nearest place so far.
struct Nearest {
  double t = 0, apart = beyond_all;
  void look(double at, double here) {
    if (here < apart) t = at, apart = here;
  }
};

/// Where the distance is convex along a piece: its slope changes sign once.
void convex_piece(const SeenLine& line, double low, double high, Nearest& best) {
  const double at_low = line.slope(low), at_high = line.slope(high);
  if (at_low >= 0 || at_high <= 0) return; // then at an end, which has been looked at
  // Not below where its tangents meet.
  const double from = line.apart(low), to = line.apart(high);
  const double meet = (to - from + at_low * low - at_high * high) / (at_low - at_high);
  if (from + at_low * (meet - low) >= best.apart) return;
  const double at = rising_zero([&](double t) { return line.slope(t); }, low, at_low, high, at_high);
  best.look(at, line.apart(at));
}

/// In front of the open barrel, where the distance to its edge, a circle, may have several least places. How far out
/// the line is bends one way only, so along a piece it lies under its chord: with that in its place the distance is
/// never more, and its least is at hand. Pieces that can't win by it are left.
class BeforeBarrel {
public:
  /// @param face  how far inboard the edge lies
  BeforeBarrel(const SeenLine& line, double face, double bore, Nearest& best)
      : line_(line), from_centre_(line.squared_from(face)), bore_(bore), best_(best) {}

  void search(double low, double high) const { search(low, line_.out(low), high, line_.out(high)); }

private:
  void search(double low, double out_low, double high, double out_high) const {
    if (!(best_.apart > 0) || (high - low) * line_.whole() < exact) return;
    const double rises = (out_high - out_low) / (high - low);
    const auto& [q0, q1, q2] = from_centre_;
    const double at = q2 > 0 ? std::clamp((bore_ * rises - q1 / 2) / q2, low, high) : low;
    const double chord = out_low + rises * (at - low);
    const double square = q0 + at * (q1 + at * q2) + bore_ * (bore_ - 2 * chord);
    if (std::sqrt(std::max(0.0, square)) >= best_.apart - exact) return;
    best_.look(at, line_.apart(at));
    // At the place itself where that parts the piece well, else in its middle.
    const double eighth = (high - low) / 8;
    const double parts = at - low > eighth && high - at > eighth ? at : 0.5 * (low + high), out = line_.out(parts);
    best_.look(parts, line_.apart(parts));
    search(low, out_low, parts, out);
    search(parts, out, high, out_high);
  }
  const SeenLine& line_;
  std::array<double, 3> from_centre_;
  double bore_;
  Nearest& best_;
};

/// Along a line that may run through the barrel. Beside the ring the distance to it is convex; in the barrel it is the
/// least of concave ones, so least at an end; in front of the barrel it is searched.
Gap search(const WheelSolid& w, const WheelPlace& place, const Segment& segment) {
  const SeenLine line(w, place, segment);
  const double inner = inboard_face(w), outer = outboard_face(w), hub = has_disc(w) ? disc_end(w) : outer;
  std::vector<double> ends;
  ends.reserve(12);
  ends = {0, 1};
  for (const double face : {inner, hub, outer})
    line.crossings(face, w.bore, ends);
  std::erase_if(ends, [](double t) { return !(t >= 0 && t <= 1); });
  std::sort(ends.begin(), ends.end());
  ends.erase(std::unique(ends.begin(), ends.end()), ends.end());
  Nearest best;
  for (const double t : ends)
    best.look(t, line.apart(t));
  for (std::size_t i = 0; i + 1 < ends.size() && best.apart > 0; ++i) {
    const double middle = 0.5 * (ends[i] + ends[i + 1]), a = line.inboard(middle);
    if (line.out(middle) >= w.bore)
      convex_piece(line, ends[i], ends[i + 1], best);
    else if (a > inner || (a < outer && !has_disc(w)))
      BeforeBarrel(line, a > inner ? inner : outer, w.bore, best).search(ends[i], ends[i + 1]);
  }
  return at_place(w, place, lerp(segment.from, segment.to, best.t));
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
  const auto at_edge = [&](double cos, double sin) {
    const Point edge = place.centre - inner * place.outward + w.bore * (cos * u + sin * v);
    if (!outside) {
      const Gap g = gap_along(body, Segment{edge, edge + (inner - outer) * place.outward});
      return Gap{g.apart, g.overlap, g.on_second, g.on_first};
    }
    const Point on = nearest_on(body, edge);
    const double apart = length(on - edge);
    return Gap{apart, !(apart > 0), edge, on};
  };
  const auto at = [&](double turn) { return at_edge(std::cos(turn), std::sin(turn)); };
  constexpr double between = 2 * M_PI / lines;
  static const auto turns = [] {
    std::array<std::pair<double, double>, lines> out;
    for (std::size_t i = 0; i < lines; ++i)
      out[i] = {std::cos(static_cast<double>(i) * between), std::sin(static_cast<double>(i) * between)};
    return out;
  }();
  std::array<Gap, lines> around;
  Gap best{beyond_all, false, {}, {}};
  const auto take = [&](const Gap& g) {
    if (g.apart < best.apart) best = g;
  };
  for (int i = 0; i < lines; ++i) {
    const auto& [cos, sin] = turns[static_cast<std::size_t>(i)];
    around[static_cast<std::size_t>(i)] = at_edge(cos, sin);
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
  Gap best = search(w, place, {rod.from, rod.to});
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
