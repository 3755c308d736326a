#include "assess/motion/alignment.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

using motion::Joint;
using motion::Placed;
using motion::Point;
using space::unit;

constexpr double degree = std::numbers::pi / 180;
constexpr double usual_bellows_tilt = 12 * degree, usual_sleeve_tilt = 5 * degree, usual_offset = 0.010;

Point turned_back(const Placed& placed, const Point& u) {
  const auto& t = placed.turn;
  return {t[0] * u.x + t[3] * u.y + t[6] * u.z, t[1] * u.x + t[4] * u.y + t[7] * u.z,
          t[2] * u.x + t[5] * u.y + t[8] * u.z};
}

/// The way a plate faces, from what a gauge shows on it, and back.
Point facing(const GaugeAngles& gauge) {
  return unit({-std::tan(gauge.along), -std::tan(gauge.across), 1});
}
GaugeAngles gauge_of(const Point& normal) {
  return {std::atan2(-normal.y, normal.z), std::atan2(-normal.x, normal.z)};
}

/// The bag's seats at one pose: middles of its plates and the way between them.
struct Seats {
  Point lower, upper;
  [[nodiscard]] Point way() const { return upper - lower; }
};
Seats seats_at(const motion::Geometry& g, const Placed& top, const Placed& foot) {
  return {foot.place(*g.at(Joint::spring_foot)), top.place(*g.at(Joint::spring_body))};
}
Seats seats_at(const motion::Geometry& g, const EndPose& pose) {
  return seats_at(g, pose.seat_top, pose.seat_foot);
}

/// @param up, low  the ways its plates face, as surveyed
AlignedAt read_at(const motion::Geometry& g, double H, const Placed& top, const Placed& foot, const Point& up,
                  const Point& low) {
  const Point u = top.turned(up), l = foot.turned(low), between = seats_at(g, top, foot).way(), axis = unit(u + l);
  return {H, std::acos(std::clamp(motion::dot(u, l), -1.0, 1.0)),
          motion::length(between - motion::dot(between, axis) * axis)};
}

GaugeAngles chosen(const build::Seat& seat, const GaugeAngles& straight) {
  return {seat.across_angle.value_or(straight.across), seat.along_angle.value_or(straight.along)};
}

} // namespace

AlignmentLimits alignment_limits(const air::BagCard& card) {
  const bool sleeve = card.kind == air::BagKind::sleeve;
  return {card.max_tilt > 0 ? card.max_tilt
          : sleeve          ? usual_sleeve_tilt
                            : usual_bellows_tilt,
          card.max_offset > 0 ? card.max_offset : usual_offset, card.max_tilt > 0, card.max_offset > 0};
}

std::optional<Alignment> alignment_of(const EndMotion& motion, const build::Mounting& mounting, double straight_at) {
  if (!motion.joints || motion.poses.size() < 2) return std::nullopt;
  const motion::Geometry& g = motion.joints->side[0];
  if (!g.at(Joint::spring_body) || !g.at(Joint::spring_foot)) return std::nullopt;
  Alignment out;
  out.straight_at = std::clamp(straight_at, motion.poses.front().H, motion.poses.back().H);
  const auto solved = motion.solved_at(out.straight_at);
  const EndPose& there = solved ? *solved : motion.nearest(out.straight_at);
  const Seats straight = seats_at(g, there);
  if (motion::length(straight.way()) < 1e-3) return std::nullopt;
  const Point way = unit(straight.way());
  out.straight_upper = gauge_of(turned_back(there.seat_top, way));
  out.straight_lower = gauge_of(turned_back(there.seat_foot, way));
  out.upper = chosen(mounting.upper, out.straight_upper);
  out.lower = chosen(mounting.lower, out.straight_lower);
  const Point up = facing(out.upper), low = facing(out.lower);
  out.lower_there = gauge_of(there.seat_foot.turned(low));
  const auto read = [&](const EndPose& pose) { return read_at(g, pose.H, pose.seat_top, pose.seat_foot, up, low); };
  // Both figures have their least, with a bend in it, where it stands straight: that height is one of theirs.
  bool straight_is_in = !solved;
  for (const EndPose& pose : motion.poses) {
    if (!straight_is_in && there.H <= pose.H) {
      if (there.H < pose.H) out.over.push_back(read(there));
      straight_is_in = true;
    }
    out.over.push_back(read(pose));
  }
  return out;
}

std::optional<AlignedAt> aligned_at_lock(const EndMotion& motion, const Alignment& alignment, double H) {
  if (!motion.corner || !motion.joints || motion.joints->side[0].spring_foot != motion::Part::upright)
    return std::nullopt;
  const motion::Geometry& g = motion.joints->side[0];
  const Point up = facing(alignment.upper), low = facing(alignment.lower);
  std::optional<AlignedAt> worst;
  for (const auto& poses : motion.locked) {
    const auto near = std::min_element(poses.begin(), poses.end(), [&](const auto& a, const auto& b) {
      return std::abs(motion.surveyed_height + a.dh - H) < std::abs(motion.surveyed_height + b.dh - H);
    });
    if (near == poses.end()) continue;
    const auto pose = motion.corner->solve(H - motion.surveyed_height, near->rack, &*near);
    if (!pose) continue;
    const AlignedAt here =
        read_at(g, H, motion.corner->part(g.spring_top, *pose), motion.corner->part(g.spring_foot, *pose), up, low);
    if (!worst) worst = here;
    worst->tilt = std::max(worst->tilt, here.tilt);
    worst->offset = std::max(worst->offset, here.offset);
  }
  return worst;
}

AlignedAt Alignment::at(double H) const {
  auto above = std::lower_bound(over.begin(), over.end(), H, [](const AlignedAt& a, double h) { return a.H < h; });
  if (above == over.begin()) return over.front();
  if (above == over.end()) return over.back();
  const AlignedAt &a = *std::prev(above), &b = *above;
  const double t = (H - a.H) / (b.H - a.H);
  return {H, std::lerp(a.tilt, b.tilt, t), std::lerp(a.offset, b.offset, t)};
}

std::vector<std::pair<double, double>> Alignment::over_limit(double AlignedAt::*figure, double limit) const {
  std::vector<std::pair<double, double>> out;
  bool open = false;
  for (std::size_t i = 0; i < over.size(); ++i) {
    const double here = over[i].*figure - limit;
    if ((here > 0) == open) continue;
    double edge = over[i].H;
    if (i > 0) {
      const double before = over[i - 1].*figure - limit;
      edge = std::lerp(over[i - 1].H, over[i].H, before / (before - here));
    }
    if (open)
      out.back().second = edge;
    else
      out.emplace_back(edge, over.back().H);
    open = !open;
  }
  return out;
}

} // namespace mavrel::assess
