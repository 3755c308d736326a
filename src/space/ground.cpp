#include "space/ground.h"

#include "curve/root.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace mavrel::space {

namespace {

constexpr double step = 0.020;       // m between places looked at
constexpr double clear = 0.050;      // m before and past the profile
constexpr double exact_place = 1e-9; // m of the rear wheel's place

double front_hub(const Underside& car) {
  return car.front_radius - car.front_bigger - car.front_dh;
}
double rear_hub(const Underside& car) {
  return car.rear_radius - car.rear_bigger - car.rear_dh;
}

/// How much the ground rises at most, m.
double rise_of(const Profile& profile) {
  double low = std::numeric_limits<double>::infinity(), high = -low;
  for (const SidePoint& p : profile)
    low = std::min(low, p.z), high = std::max(high, p.z);
  return profile.empty() ? 0 : high - low;
}

/// Least value and its place in a bracket where there is one least place.
template <class F>
std::pair<double, double> least_in(const F& f, double low, double high) {
  std::uintmax_t rounds = 60;
  return boost::math::tools::brent_find_minima(f, low, high, 26, rounds);
}

} // namespace

double height_at(const Profile& profile, double x) {
  if (profile.empty()) return 0;
  const auto above =
      std::lower_bound(profile.begin(), profile.end(), x, [](const SidePoint& p, double at) { return p.x < at; });
  if (above == profile.begin()) return profile.front().z;
  if (above == profile.end()) return profile.back().z;
  const SidePoint &a = *std::prev(above), &b = *above;
  return std::lerp(a.z, b.z, (x - a.x) / (b.x - a.x));
}

double rolling_height(const Profile& profile, double radius, double x) {
  if (profile.empty()) return radius;
  // Flat ground beyond the ends.
  double high = -std::numeric_limits<double>::infinity();
  if (x <= profile.front().x) high = profile.front().z + radius;
  if (x >= profile.back().x) high = std::max(high, profile.back().z + radius);
  // Only what lies under the wheel can carry it.
  auto at = std::lower_bound(profile.begin(), profile.end(), x - radius,
                             [](const SidePoint& p, double left) { return p.x < left; });
  if (at != profile.begin()) --at;
  for (; at != profile.end() && at->x <= x + radius; ++at) {
    const double across = at->x - x;
    if (std::abs(across) < radius) high = std::max(high, at->z + std::sqrt(radius * radius - across * across));
    const auto next = std::next(at);
    if (next == profile.end()) break;
    const double dx = next->x - at->x, dz = next->z - at->z, l = std::sqrt(dx * dx + dz * dz);
    const double foot = x + radius * dz / l;
    if (foot >= at->x && foot <= next->x) high = std::max(high, at->z + (foot - at->x) * dz / dx + radius * dx / l);
  }
  return high;
}

namespace {

/// Where the rear wheel stands when the front one does here. @returns none where the ground is too steep for it
std::optional<double> rear_place(const Underside& car, const Profile& profile, const SidePoint& front, double apart) {
  // Mostly the ground changes so little with the place that the distance itself leads there.
  double at = front.x - apart;
  for (int round = 0; round < 12; ++round) {
    const double rise = front.z - rolling_height(profile, car.rear_radius, at);
    if (std::abs(rise) >= apart) break;
    const double next = front.x - std::sqrt(apart * apart - rise * rise);
    if (std::abs(next - at) < exact_place) return next;
    at = next;
  }
  const auto too_far = [&](double x) {
    const double rise = front.z - rolling_height(profile, car.rear_radius, x);
    return std::sqrt((front.x - x) * (front.x - x) + rise * rise) - apart;
  };
  // Its rear wheel is no higher or lower than the ground and the radii allow, so no nearer than this.
  const double most = rise_of(profile) + std::abs(car.front_radius - car.rear_radius);
  if (most >= apart) return std::nullopt;
  return curve::crossing(too_far, front.x - apart - 1e-9, front.x - std::sqrt(apart * apart - most * most) + 1e-9, 0,
                         exact_place);
}

} // namespace

std::optional<Stance> stance_at(const Underside& car, const Profile& profile, double x) {
  const double hf = front_hub(car), hr = rear_hub(car);
  const double apart = std::hypot(car.wheelbase, hf - hr);
  Stance out;
  out.front_hub = {x, rolling_height(profile, car.front_radius, x)};
  const auto rear = rear_place(car, profile, out.front_hub, apart);
  if (!rear) return std::nullopt;
  out.rear_hub = {*rear, rolling_height(profile, car.rear_radius, *rear)};
  // In the body, forward from the front hub to the rear one, and the same over the profile.
  const SidePoint body{-car.wheelbase / apart, (hr - hf) / apart};
  const SidePoint world{(out.rear_hub.x - x) / apart, (out.rear_hub.z - out.front_hub.z) / apart};
  const double cos = body.x * world.x + body.z * world.z, sin = body.x * world.z - body.z * world.x;
  out.back = {-cos, -sin};
  out.up = {-sin, cos};
  out.origin = {x - hf * out.up.x, out.front_hub.z - hf * out.up.z};
  return out;
}

std::optional<GroundGap> gap_at(const Underside& car, const Profile& profile, double x) {
  const auto stance = stance_at(car, profile, x);
  if (!stance || car.points.empty()) return std::nullopt;
  GroundGap best{std::numeric_limits<double>::infinity(), x, {}, 0};
  SidePoint last;
  for (std::size_t i = 0; i < car.points.size(); ++i) {
    const SidePoint p = stance->place(car.points[i]);
    if (const double gap = p.z - height_at(profile, p.x); gap < best.gap) best = {gap, x, p, i};
    if (i > 0) { // the ground's corners under the span from the point before; forward is +x, so that runs backward
      const auto [low, high] = std::minmax(p.x, last.x);
      for (auto corner = std::lower_bound(profile.begin(), profile.end(), low,
                                          [](const SidePoint&q, double at) { return q.x < at; });
           corner != profile.end() && corner->x <= high && high > low; ++corner) {
        const double t = (corner->x - last.x) / (p.x - last.x);
        const double z = std::lerp(last.z, p.z, t);
        if (z - corner->z < best.gap) best = {z - corner->z, x, {corner->x, z}, t < 0.5 ? i - 1 : i};
      }
    }
    last = p;
  }
  return best;
}

std::optional<GroundGap> least_gap(const Underside& car, const Profile& profile) {
  if (car.points.empty()) return std::nullopt;
  const double begin = profile.empty() ? 0 : profile.front().x, end = profile.empty() ? 0 : profile.back().x;
  double ahead = car.front_radius, behind = car.wheelbase + car.rear_radius;
  for (const SidePoint& p : car.points)
    ahead = std::max(ahead, -p.x), behind = std::max(behind, p.x);
  const double from = begin - ahead - clear, to = end + behind + clear;
  const auto count = static_cast<std::size_t>(std::ceil((to - from) / step)) + 1;
  std::vector<double> gaps(count);
  std::optional<GroundGap> best;
  const auto look = [&](double x) {
    const auto g = gap_at(car, profile, x);
    if (g && (!best || g->gap < best->gap)) best = g;
    return g;
  };
  for (std::size_t i = 0; i < count; ++i) {
    const auto g = look(from + step * static_cast<double>(i));
    if (!g) return std::nullopt;
    gaps[i] = g->gap;
  }
  // A corner of the underside over one of the ground, where the gap changes at once.
  for (const SidePoint& over : profile)
    for (const SidePoint& point : car.points) {
      double x = over.x + point.x;
      for (int round = 0; round < 4; ++round)
        if (const auto stance = stance_at(car, profile, x)) x += over.x - stance->place(point).x;
      look(x);
    }
  // Between places the gap is smooth: a place lower than its neighbours has one least gap beside it.
  constexpr double hopeless = 0.02; // m above the least so far that no step makes up for
  for (std::size_t i = 1; i + 1 < count; ++i)
    if (gaps[i] <= gaps[i - 1] && gaps[i] <= gaps[i + 1] && gaps[i] < best->gap + hopeless &&
        (gaps[i] < gaps[i - 1] || gaps[i] < gaps[i + 1])) {
      const double x = from + step * static_cast<double>(i);
      const auto gap = [&](double at) {
        const auto g = gap_at(car, profile, at);
        return g ? g->gap : std::numeric_limits<double>::infinity();
      };
      look(least_in(gap, x - step, x + step).first);
    }
  return best;
}

namespace {

/// Slope of the plane under a wheel of this radius, on flat ground, that meets a point.
/// @param along  m from the hub to the point, in the plane's rising direction
/// @returns rad; none where the point lies within the wheel's circle or nothing under a right angle meets it
std::optional<double> slope_to(double radius, double along, double z) {
  const double up = z - radius, reach = std::hypot(along, up);
  if (reach <= radius) return std::nullopt;
  const double slope = std::acos(-radius / reach) - std::atan2(along, up);
  if (slope >= M_PI / 2) return std::nullopt;
  return slope;
}

} // namespace

GroundAngles ground_angles(const Underside& car) {
  GroundAngles out;
  const auto stance = stance_at(car, {}, 0);
  if (!stance) return out;
  const auto least = [](std::optional<double>& of, const std::optional<double>& angle) {
    if (angle && (!of || *angle < *of)) of = angle;
  };
  const auto over = [&](const SidePoint& p) -> std::optional<double> {
    const auto front = slope_to(car.front_radius, stance->front_hub.x - p.x, p.z);
    const auto rear = slope_to(car.rear_radius, p.x - stance->rear_hub.x, p.z);
    if (!front || !rear) return std::nullopt;
    return *front + *rear;
  };
  std::vector<SidePoint> points;
  for (const SidePoint& p : car.points)
    points.push_back(stance->place(p));
  for (std::size_t i = 0; i < points.size(); ++i) {
    const SidePoint& p = points[i];
    if (p.x > stance->front_hub.x) least(out.approach, slope_to(car.front_radius, p.x - stance->front_hub.x, p.z));
    if (p.x < stance->rear_hub.x) least(out.departure, slope_to(car.rear_radius, stance->rear_hub.x - p.x, p.z));
    if (i == 0) continue;
    // Of the span to the point before, what lies between the axles.
    const SidePoint& q = points[i - 1];
    const double span = q.x - p.x;
    if (!(span > 0)) {
      if (p.x <= stance->front_hub.x && p.x >= stance->rear_hub.x) least(out.breakover, over(p));
      continue;
    }
    const double low = std::max(0.0, (stance->rear_hub.x - p.x) / span),
                 high = std::min(1.0, (stance->front_hub.x - p.x) / span);
    if (low > high) continue;
    const auto at = [&](double t) {
      return over({std::lerp(p.x, q.x, t), std::lerp(p.z, q.z, t)}).value_or(std::numeric_limits<double>::infinity());
    };
    constexpr int pieces = 16;
    int best = 0;
    std::array<double, pieces + 1> slopes;
    for (int k = 0; k <= pieces; ++k) {
      slopes[static_cast<std::size_t>(k)] = at(std::lerp(low, high, static_cast<double>(k) / pieces));
      if (slopes[static_cast<std::size_t>(k)] < slopes[static_cast<std::size_t>(best)]) best = k;
    }
    double found = slopes[static_cast<std::size_t>(best)];
    if (!std::isfinite(found)) continue;
    found = std::min(found, least_in(at, std::lerp(low, high, std::max(0, best - 1) / static_cast<double>(pieces)),
                                     std::lerp(low, high, std::min(pieces, best + 1) / static_cast<double>(pieces)))
                                .second);
    least(out.breakover, found);
  }
  return out;
}

} // namespace mavrel::space
