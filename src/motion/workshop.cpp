#include "motion/workshop.h"

#include "motion/linkage/axle.h"
#include "motion/linkage/corner.h"
#include "quantity/message.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>

namespace mavrel::motion {

Expected<CasterShift> shift_for_caster(const Geometry& g, double caster) {
  Joint lower = Joint::lower_outer, upper = Joint::upper_outer;
  if (g.shape == Shape::strut)
    upper = Joint::strut_top;
  else if (g.shape == Shape::king_beam)
    lower = Joint::king_lower, upper = Joint::king_upper;
  else if (g.shape != Shape::double_arm)
    return refuse(words("This suspension is not steered about two joints."));
  const Point low = *g.at(lower), k = *g.at(upper) - low, wheel = *g.at(Joint::wheel_centre) - low;
  const double now = std::atan2(-k.x, k.z);
  if (!(k.z > 0) || !(std::abs(caster) < 1)) return refuse(words("No shift of the upper joint gives so much caster."));
  // The joint stays at its height as the arm is moved along: the upright turns, and rises on its lower joint no
  // further.
  const double shift = std::tan(caster) * k.z + k.x;
  const double turn = caster - now;
  return CasterShift{shift, -(wheel.x * (std::cos(turn) - 1) - wheel.z * std::sin(turn))};
}

Expected<ShimSplit> split_shims(int shims, double t, double o, double s, double wanted) {
  if (shims < 0 || shims > 40) return refuse(words("Up to 40 shims at each arm are believable."));
  if (!(s > 0.01)) return refuse(words("The pins lie on each other."));
  ShimSplit best;
  bool any = false;
  for (int upper = 0; upper <= shims; ++upper)
    for (int lower = 0; lower <= shims; ++lower) {
      const double change = std::atan((o + (upper - lower) * t) / s), left = wanted - change;
      const double better = std::abs(best.left) - std::abs(left);
      const bool fewer = std::abs(better) < 1e-12 && upper + lower < best.upper + best.lower;
      if (any && better <= 1e-12 && !fewer) continue;
      best = {upper, lower, change, left};
      any = true;
    }
  return best;
}

double wedge_edge(double angle, double circle) {
  return circle * std::tan(std::abs(angle));
}

Expected<Squareness> squareness(double left_right, double right_left, double frame, double axle) {
  // Axle ends at (a ∓ e, ±w/2): with the frame's points f apart d1² = (a + e)² + c², d2² = (a − e)² + c².
  const double d1 = left_right * left_right, d2 = right_left * right_left;
  double c = (frame + axle) / 2, e = 0, a2 = 0;
  for (int round = 0; round < 20; ++round) { // the axle's ends come nearer to each other as it turns
    a2 = (d1 + d2) / 2 - c * c - e * e;
    if (!(a2 > 1e-6)) return refuse(words("No axle has such diagonals: they are shorter than it is wide."));
    e = (d1 - d2) / (4 * std::sqrt(a2));
    if (!(std::abs(e) < axle / 2)) return refuse(words("No axle has such diagonals: they differ by too much."));
    c = (frame + std::sqrt(axle * axle - 4 * e * e)) / 2;
  }
  return Squareness{std::asin(2 * e / axle), 2 * e};
}

Expected<LinkCut> cut_link(double between, double end_a, double end_b, double thread, double diameter) {
  LinkCut out;
  out.tube = between - end_a - end_b;
  if (!(out.tube > 0)) return refuse(words("The two ends together are longer than the link."));
  // Screwed half in, each end has half its thread in the tube.
  const double half = thread / 2, spare = half - least_engagement * diameter;
  if (spare < 0)
    return refuse(words("Screwed half in, less than {0} of thread hold it: {1} are right."),
                  {metres(half), metres(least_engagement * diameter)});
  out.longer = 2 * spare;
  out.shorter = 2 * half;
  return out;
}

Notch notch_for(double gap, double reserve, double surveyed, double wanted) {
  return {std::max(0.0, surveyed - wanted + reserve - gap), surveyed - std::max(0.0, gap - reserve)};
}

namespace {

/// Half of the side shift's range between two heights; none where the links end.
std::optional<double> side_shift(const Geometry& g, double low, double high) {
  const AxleLinkage linkage(g);
  double least = 1e9, most = -1e9;
  constexpr int steps = 12;
  for (int i = 0; i <= steps; ++i) {
    const auto pose = linkage.solve_level(low + (high - low) * i / steps);
    if (!pose) return std::nullopt;
    least = std::min(least, pose->shift.y), most = std::max(most, pose->shift.y);
  }
  return (most - least) / 2;
}

} // namespace

Expected<LevelBar> level_bar(const Geometry& g, double low, double high) {
  if (g.shape != Shape::solid_axle || !g.at(Joint::bar_body)) return refuse(words("There is no lateral bar."));
  if (low > high) std::swap(low, high);
  const auto before = side_shift(g, low, high);
  if (!before) return refuse(words("The links do not reach those heights."));
  const auto with = [&](double raise) {
    Geometry raised = g;
    raised.at(Joint::bar_body)->z += raise;
    return mistake_in(raised) ? 1.0 : side_shift(raised, low, high).value_or(1.0);
  };
  constexpr double farthest = 0.15; // m
  const auto [raise, after] = boost::math::tools::brent_find_minima(with, -farthest, farthest, 20);
  return after < *before ? LevelBar{raise, *before, after} : LevelBar{0, *before, *before};
}

namespace {

/// Least distance of two pieces of straight line, m. Source: closest points of segments by their parameters.
double between_segments(const Point& a0, const Point& a1, const Point& b0, const Point& b1) {
  const Point u = a1 - a0, v = b1 - b0, w = a0 - b0;
  const double uu = dot(u, u), uv = dot(u, v), vv = dot(v, v), uw = dot(u, w), vw = dot(v, w);
  const double across = uu * vv - uv * uv;
  double s = across > 1e-12 ? std::clamp((uv * vw - vv * uw) / across, 0.0, 1.0) : 0;
  const double t = std::clamp((uv * s + vw) / vv, 0.0, 1.0);
  s = std::clamp((uv * t - uw) / uu, 0.0, 1.0);
  return length(w + s * u - t * v);
}

} // namespace

Expected<RodGap> rod_to_damper(const Geometry& g, double low, double high, double lock) {
  const bool has = g.shape != Shape::solid_axle && g.at(Joint::rod_inner) && g.at(Joint::damper_foot);
  if (!has) return refuse(words("There is no track rod and damper to hold against each other."));
  const CornerLinkage linkage(g);
  std::vector<double> dh, rack{0};
  for (const double angle : {-lock, lock})
    if (const auto at = linkage.rack_for(angle); at && lock > 0) rack.push_back(*at);
  std::sort(rack.begin(), rack.end());
  constexpr int steps = 20;
  for (int i = 0; i <= steps; ++i)
    dh.push_back(std::min(low, high) + std::abs(high - low) * i / steps);
  const PoseGrid grid = solve_grid(linkage, dh, rack);
  std::optional<RodGap> best;
  for (std::size_t h = 0; h < dh.size(); ++h)
    for (std::size_t r = 0; r < rack.size(); ++r) {
      const auto& pose = grid.at(h, r);
      if (!pose) continue;
      const double gap =
          between_segments(linkage.joint(Joint::rod_inner, *pose), linkage.joint(Joint::rod_outer, *pose),
                           linkage.joint(Joint::damper_body, *pose), linkage.joint(Joint::damper_foot, *pose));
      if (!best || gap < best->gap) best = RodGap{gap, dh[h], rack[r]};
    }
  if (!best) return refuse(words("The joints do not reach those heights."));
  return *best;
}

} // namespace mavrel::motion
