#include "assess/motion/end_motion.h"

#include "assess/motion/travel_ends.h"
#include "motion/linkage/smooth.h"

#include <algorithm>
#include <cmath>
#include <type_traits>

namespace mavrel::assess {

MotionGiven motion_given(const build::Build& build, Answered<SurveyQuestion> survey) {
  const build::Mounting& m = build.variant().fit[build::at(survey.given().end)].mounting;
  const build::EndSurvey& read = survey.given().survey;
  // Asked for only where the seats' distance was read both ways.
  const bool twice = !read.points->left.empty() && !read.spring_length.values.empty();
  return {std::move(survey), {m.upper.outward, m.upper.forward}, {m.lower.outward, m.lower.forward}, m.mount_outward,
          m.drop_spindle,    twice ? build.doubts.tape : 0,      twice ? build.doubts.point : 0};
}

namespace {

using motion::Geometry;
using motion::Joint;
using motion::Shape;

constexpr double looked_at = 0.2;      // m either way of the surveyed height
constexpr double pose_step = 0.010;    // m between poses
constexpr double short_of_end = 0.002; // m before the joints' end that the curves stop: there they turn too fast
constexpr double smooth_enough = 5e-6; // m that a curve may lie off the poses

/// The geometry with what a design moves. Of a coaxial spring the upper seat goes with the mount.
Geometry designed(Geometry g, const MotionGiven& given) {
  const auto move = [&](Joint joint, double outward, double forward) {
    if (auto& p = g.at(joint)) *p = *p + motion::Point{forward, outward, 0};
  };
  move(Joint::spring_body, given.upper.outward, given.upper.forward);
  move(Joint::spring_foot, given.lower.outward, given.lower.forward);
  if (given.mount_outward == 0 || g.shape != Shape::strut) return g;
  // What hangs from the strut's top goes with it.
  const auto top = g.at(Joint::strut_top);
  for (const Joint joint : {Joint::spring_body, Joint::damper_body})
    if (g.at(joint) && motion::length(*g.at(joint) - *top) < 0.08) move(joint, given.mount_outward, 0);
  move(Joint::strut_top, given.mount_outward, 0);
  return g;
}

EndPose figures_of(const motion::CornerLinkage& linkage, const motion::CornerPose& pose, double H0) {
  const Geometry& g = linkage.geometry();
  EndPose out;
  out.H = H0 + pose.dh;
  out.seat_top = linkage.part(g.spring_top, pose);
  out.seat_foot = linkage.part(g.spring_foot, pose);
  out.spring = pose.spring;
  out.damper = pose.damper;
  out.wheel_forward = pose.wheel_shift.x;
  out.wheel_outward = pose.wheel_shift.y;
  out.camber = pose.camber;
  out.toe = pose.toe;
  out.caster = pose.caster;
  out.kingpin = pose.kingpin;
  return out;
}

EndPose figures_of(const motion::AxleLinkage&, const motion::AxlePose& pose, double H0) {
  EndPose out;
  out.H = H0 + pose.dh;
  out.seat_foot = pose.axle;
  out.spring = pose.spring;
  out.damper = pose.damper;
  out.wheel_forward = pose.shift.x;
  out.wheel_outward = pose.shift.y;
  out.pinion = pose.pinion;
  out.roll = pose.roll;
  return out;
}

auto step_to(const motion::CornerLinkage& linkage, double dh, const motion::CornerPose* near) {
  return linkage.solve(dh, 0, near);
}
auto step_to(const motion::AxleLinkage& linkage, double dh, const motion::AxlePose* near) {
  return linkage.solve_level(dh, near);
}

/// Where the joints of an end go no further, within the heights looked at.
struct Ends {
  std::optional<motion::OutOfReach> low, high;
};

/// All poses of a side, rising in H: from where it stood outwards, each from its neighbour.
template <class Linkage, class Pose>
std::vector<EndPose> travel(const Linkage& linkage, double H0, Ends& ends, std::vector<Pose>& solved) {
  const auto first = step_to(linkage, 0, nullptr);
  if (!first) {
    ends.low = ends.high = first.error();
    return {};
  }
  const auto go = [&](double way, std::optional<motion::OutOfReach>& end) {
    Pose from = *first;
    for (int i = 1; i * pose_step <= looked_at + 1e-9; ++i) {
      auto pose = step_to(linkage, way * pose_step * i, &from);
      if (!pose) {
        end = pose.error();
        return;
      }
      from = *pose;
      solved.push_back(std::move(*pose));
    }
  };
  go(-1, ends.low);
  std::reverse(solved.begin(), solved.end());
  solved.push_back(*first);
  go(1, ends.high);
  std::vector<EndPose> out;
  out.reserve(solved.size());
  for (const Pose& pose : solved)
    out.push_back(figures_of(linkage, pose, H0));
  return out;
}
template <class Linkage>
std::vector<EndPose> travel(const Linkage& linkage, double H0, Ends& ends) {
  if constexpr (std::is_same_v<Linkage, motion::AxleLinkage>) {
    std::vector<motion::AxlePose> solved;
    return travel(linkage, H0, ends, solved);
  } else {
    std::vector<motion::CornerPose> solved;
    return travel(linkage, H0, ends, solved);
  }
}

/// Poses with the wheels steered by `angle`, further apart than those straight ahead: what lock adds changes slowly
/// over height.
std::vector<motion::CornerPose> poses_at(const motion::CornerLinkage& linkage,
                                         const std::vector<motion::CornerPose>& straight, double angle) {
  constexpr std::size_t every = 2;
  std::vector<motion::CornerPose> out;
  const auto rack = linkage.rack_for(angle);
  if (!rack) return out;
  for (std::size_t i = 0; i < straight.size(); i += every)
    if (const auto pose = linkage.solve(straight[i].dh, *rack, out.empty() ? &straight[i] : &out.back()))
      out.push_back(*pose);
  return out;
}

/// A length over height; none where some pose has none.
std::optional<curve::Polynomial> curve_of(const std::vector<EndPose>& poses,
                                          std::optional<motion::Strut> EndPose::*what, double H0, double& lowest,
                                          double& highest) {
  std::vector<double> H, length;
  for (const EndPose& pose : poses) {
    if (!(pose.*what)) return std::nullopt;
    if (pose.H < lowest - 1e-9 || pose.H > highest + 1e-9) continue;
    H.push_back(pose.H);
    length.push_back((pose.*what)->length);
  }
  // Near the joints' end lengths turn faster than any polynomial: there is less of the travel, and it is right. What
  // goes is the end without which a curve lies better, and never the height the car stood at.
  struct Part {
    std::vector<double> H, length;
    motion::Smooth smooth;
  };
  const auto fitted = [&](std::size_t from, std::size_t to) {
    Part part{{H.begin() + static_cast<std::ptrdiff_t>(from), H.begin() + static_cast<std::ptrdiff_t>(to)},
              {length.begin() + static_cast<std::ptrdiff_t>(from), length.begin() + static_cast<std::ptrdiff_t>(to)},
              {}};
    if (part.H.size() >= 5) part.smooth = motion::smooth_through(part.H, part.length);
    return part;
  };
  Part now = fitted(0, H.size());
  while (now.H.size() >= 5) {
    lowest = now.H.front(), highest = now.H.back();
    if (now.smooth.off <= smooth_enough) return now.smooth.curve;
    H = now.H, length = now.length;
    const std::size_t some = 1 + H.size() / 16;
    Part without_low = fitted(some, H.size()), without_high = fitted(0, H.size() - some);
    const bool keeps_low = without_high.H.back()<H0, keeps_high = without_low.H.front()> H0;
    const bool low = keeps_high ? false : keeps_low ? true : without_low.smooth.off < without_high.smooth.off;
    now = low ? std::move(without_low) : std::move(without_high);
  }
  return std::nullopt;
}

/// Both sides as one: where they differ, their mean.
std::vector<EndPose> mean_of(const std::vector<EndPose>& left, const std::vector<EndPose>& right) {
  if (right.empty()) return left;
  std::vector<EndPose> out;
  const auto mean = [](const std::optional<motion::Strut>& a, const std::optional<motion::Strut>& b) {
    std::optional<motion::Strut> m;
    if (a && b) m = motion::Strut{(a->length + b->length) / 2, (a->ratio + b->ratio) / 2};
    return m;
  };
  for (const EndPose& l : left)
    for (const EndPose& r : right)
      if (std::abs(l.H - r.H) < 1e-9) {
        EndPose both = l;
        both.spring = mean(l.spring, r.spring);
        both.damper = mean(l.damper, r.damper);
        out.push_back(both);
      }
  return out;
}

curve::Polynomial plus(curve::Polynomial a, const curve::Polynomial& b, double sign) {
  // Both about the same place, or b moved there by its own derivatives.
  curve::Polynomial moved{a.x0, std::vector<double>(b.c.size(), 0.0)};
  const double d = a.x0 - b.x0;
  for (std::size_t k = b.c.size(); k-- > 0;) { // Horner: moved = moved·(x − b.x0) + c[k], with x − b.x0 = u + d
    for (std::size_t i = moved.c.size(); i-- > 0;)
      moved.c[i] = moved.c[i] * d + (i > 0 ? moved.c[i - 1] : 0);
    moved.c[0] += b.c[k];
  }
  a.c.resize(std::max(a.c.size(), moved.c.size()), 0.0);
  for (std::size_t i = 0; i < moved.c.size(); ++i)
    a.c[i] += sign * moved.c[i];
  return a;
}

class Maker {
public:
  explicit Maker(const MotionGiven& given)
      : given_(given), read_(*given.survey), survey_(given.survey.given().survey) {}

  EndMotion make() {
    if (!read_.height) return std::move(out_);
    H0_ = out_.surveyed_height = *read_.height - given_.drop_spindle;
    lowest_ = H0_ - looked_at, highest_ = H0_ + looked_at;
    if (!survey_.points->left.empty()) solve();
    curves();
    add_travel_ends(survey_, H0_, out_);
    return std::move(out_);
  }

private:
  void solve() {
    auto joints = joints_of_end(survey_);
    if (!joints) {
      out_.trouble = std::move(joints.error());
      return;
    }
    seats(*joints);
    surveyed_ = *joints;
    for (Geometry& g : joints->side)
      g = designed(std::move(g), given_);
    for (const Side side : build::both_sides)
      if (auto mistake = motion::mistake_in(joints->side[build::at(side)])) {
        out_.trouble =
            PointTrouble{std::move(mistake->what), mistake->joint ? motion::key_of(*mistake->joint) : "", side};
        return;
      }
    out_.joints = std::move(*joints);
    const auto& side = out_.joints->side;
    if (side[0].shape == Shape::solid_axle) {
      Geometry right = side[1];
      for (auto& p : right.points)
        if (p) p = motion::mirrored(*p);
      out_.axle = std::make_shared<const motion::AxleLinkage>(side[0], out_.joints->differ ? &right : nullptr);
      out_.poses = travel(*out_.axle, H0_, ends_, out_.axle_poses);
    } else {
      out_.corner = std::make_shared<const motion::CornerLinkage>(side[0]);
      out_.poses = travel(*out_.corner, H0_, ends_, out_.corner_poses);
      if (out_.joints->differ) {
        Ends right;
        out_.right_corner = std::make_shared<const motion::CornerLinkage>(side[1]);
        out_.right_poses = travel(*out_.right_corner, H0_, right, out_.right_corner_poses);
        // The side that ends first ends both.
        if (right.low && (!ends_.low || right.low->reached > ends_.low->reached)) ends_.low = right.low;
        if (right.high && (!ends_.high || right.high->reached < ends_.high->reached)) ends_.high = right.high;
      }
    }
    if (out_.poses.size() >= 5) {
      const auto locked = [&](const motion::CornerLinkage& corner, const std::vector<motion::CornerPose>& straight) {
        const double lock = *survey_.points->lock;
        return std::array{poses_at(corner, straight, -lock), poses_at(corner, straight, lock)};
      };
      if (survey_.points->lock && out_.corner && out_.corner->steers()) {
        out_.locked = locked(*out_.corner, out_.corner_poses);
        if (out_.right_corner) out_.right_locked = locked(*out_.right_corner, out_.right_corner_poses);
      }
      out_.low_end = ends_.low;
      out_.high_end = ends_.high;
      return;
    }
    const Joint stops = ends_.low ? ends_.low->joint : ends_.high ? ends_.high->joint : Joint::wheel_centre;
    out_.trouble = PointTrouble{{words("As measured, the wheel can hardly move: {0} stops it at once."),
                                 {motion::name_of(side[0].shape, stops)}},
                                motion::key_of(stops),
                                Side::left};
    out_.joints.reset();
    out_.corner.reset();
    out_.axle.reset();
    out_.poses.clear();
    out_.corner_poses.clear();
    out_.axle_poses.clear();
    out_.right_poses.clear();
    out_.right_corner.reset();
    out_.right_corner_poses.clear();
  }

  /// A taped distance between the seats and that of their joints are one figure read twice: each counts by how sure it
  /// is, and the joints move along their line by what is left. So far apart that one must be wrong, the joints stand.
  void seats(Joints& joints) {
    constexpr double wrong = 3; // standard deviations of the difference
    double apart = 0;
    for (const Geometry& g : joints.side) {
      if (!g.at(Joint::spring_body) || !g.at(Joint::spring_foot)) return;
      apart += motion::length(*g.at(Joint::spring_body) - *g.at(Joint::spring_foot)) / 2;
    }
    out_.seats_by_joints = apart;
    const auto& taped = survey_.spring_length.values;
    if (taped.empty() || read_.spring_fit || !read_.spring_length) return;
    const double by_tape = given_.tape * given_.tape / static_cast<double>(taped.size()),
                 by_joints = 2 * given_.point * given_.point, both = by_tape + by_joints;
    const double off = *read_.spring_length - apart;
    if (!(both > 0) || std::abs(off) > wrong * std::sqrt(both)) return;
    for (Geometry& g : joints.side) {
      motion::Point &top = *g.at(Joint::spring_body), &foot = *g.at(Joint::spring_foot);
      const double length = motion::length(top - foot);
      if (!(length > 1e-3)) return;
      const motion::Point way = (off * by_joints / both / 2 / length) * (top - foot);
      top = top + way;
      foot = foot - way;
    }
    out_.seats_combined = true;
  }

  /// Of what was read on the tape first, then of the joints; a design that moves joints moves a tape's curve as much.
  void curves() {
    double low = lowest_, high = highest_;
    if (out_.low_end) low = std::max(low, H0_ + out_.low_end->reached + short_of_end);
    if (out_.high_end) high = std::min(high, H0_ + out_.high_end->reached - short_of_end);
    const auto poses = mean_of(out_.poses, out_.right_poses);
    std::optional<curve::Polynomial> spring, damper;
    if (!poses.empty()) {
      spring = curve_of(poses, &EndPose::spring, H0_, low, high);
      damper = curve_of(poses, &EndPose::damper, H0_, low, high);
    }
    const bool both_move = out_.joints && out_.joints->side[0].spring_top != motion::Part::body;
    if (spring && (both_move || spring->read(H0_).slope <= 0)) spring.reset(); // it lifts nothing; said as a finding
    if (damper && damper->read(H0_).slope <= 0) damper.reset();
    const bool jacked = read_.spring_fit || read_.damper_fit;
    if (!spring && !damper && !jacked) return;
    if (jacked) {
      // The joints' own range counts only where a curve of theirs is used.
      const bool by_joints = (spring && (!read_.spring_fit || moves())) || (damper && !read_.damper_fit);
      if (!by_joints) low = lowest_, high = highest_;
      for (const auto* fit : {&read_.spring_fit, &read_.damper_fit, &read_.right_spring_fit, &read_.right_damper_fit})
        if (*fit) {
          low = std::max(low, (*fit)->lowest - trusted_past_reading - given_.drop_spindle);
          high = std::min(high, (*fit)->highest + trusted_past_reading - given_.drop_spindle);
        }
    }
    if (read_.spring_fit) {
      out_.spring = lowered(read_.spring_fit->length);
      if (const auto& right = read_.right_spring_fit) // one map for both sides: their mean
        out_.spring = halved(plus(*out_.spring, lowered(right->length), 1));
      out_.spring_from = MapSource::cycle_sheet;
      if (spring && moves()) {
        if (const auto as_surveyed = surveyed_spring(low, high))
          out_.spring = plus(plus(*out_.spring, *spring, 1), *as_surveyed, -1);
      }
    } else if (spring) {
      out_.spring = spring;
      out_.spring_from = MapSource::hard_points;
    }
    out_.damper = read_.damper_fit ? lowered(read_.damper_fit->length) : damper;
    if (read_.damper_fit && read_.right_damper_fit)
      out_.damper = halved(plus(*out_.damper, lowered(read_.right_damper_fit->length), 1));
    out_.lowest = low;
    out_.highest = high;
    both_sides(low, high);
  }

  /// Left and right by themselves, where they differ: the worse side holds, and a mean would hide it.
  void both_sides(double low, double high) {
    if (out_.spring && out_.spring_from == MapSource::cycle_sheet && read_.right_spring_fit) {
      const curve::Polynomial left = lowered(read_.spring_fit->length), right = lowered(read_.right_spring_fit->length);
      // What a design moves, it moves alike on both sides.
      const auto moved = plus(*out_.spring, halved(plus(left, right, 1)), -1);
      out_.springs = {plus(left, moved, 1), plus(right, moved, 1)};
    }
    if (read_.damper_fit && read_.right_damper_fit)
      out_.dampers = {lowered(read_.damper_fit->length), lowered(read_.right_damper_fit->length)};
    const auto [left, right] = sides();
    if (right.empty()) return;
    const auto of_joints = [&](std::optional<motion::Strut> EndPose::*what) {
      std::optional<std::array<curve::Polynomial, 2>> out;
      double from = low, to = high;
      const auto a = curve_of(left, what, H0_, from, to);
      const auto b = curve_of(right, what, H0_, from, to);
      if (a && b) out = {*a, *b}, out_.lowest = std::max(out_.lowest, from), out_.highest = std::min(out_.highest, to);
      return out;
    };
    if (out_.spring && out_.spring_from == MapSource::hard_points) out_.springs = of_joints(&EndPose::spring);
    if (out_.damper && !read_.damper_fit) out_.dampers = of_joints(&EndPose::damper);
  }

  /// The poses of each side; no right ones where both are alike.
  [[nodiscard]] std::array<std::vector<EndPose>, 2> sides() const {
    if (!out_.joints || !out_.joints->differ) return {};
    if (!out_.axle) return {out_.poses, out_.right_poses};
    std::array<std::vector<EndPose>, 2> out{out_.poses, out_.poses};
    for (std::size_t side = 0; side < 2; ++side)
      for (std::size_t i = 0; i < out_.axle_poses.size(); ++i) {
        out[side][i].spring = out_.axle_poses[i].springs[side];
        out[side][i].damper = out_.axle_poses[i].dampers[side];
      }
    return out;
  }

  static curve::Polynomial halved(curve::Polynomial sum) {
    for (double& c : sum.c)
      c /= 2;
    return sum;
  }

  /// A curve over the heights that were read, over those of the design.
  [[nodiscard]] curve::Polynomial lowered(curve::Polynomial length) const {
    length.x0 -= given_.drop_spindle;
    return length;
  }
  [[nodiscard]] bool moves() const {
    return !(given_.upper == SeatShift{}) || !(given_.lower == SeatShift{}) || given_.mount_outward != 0;
  }
  std::optional<curve::Polynomial> surveyed_spring(double low, double high) {
    Ends ends;
    const Geometry& g = surveyed_->side[0];
    const auto poses = g.shape == Shape::solid_axle ? travel(motion::AxleLinkage(g), H0_, ends)
                                                    : travel(motion::CornerLinkage(g), H0_, ends);
    return curve_of(poses, &EndPose::spring, H0_, low, high);
  }

  const MotionGiven& given_;
  const SurveyedEnd& read_;
  const build::EndSurvey& survey_;
  EndMotion out_;
  std::optional<Joints> surveyed_;
  Ends ends_;
  double H0_ = 0, lowest_ = 0, highest_ = 0;
};

} // namespace

EndMotion end_motion(const MotionGiven& given) {
  return Maker(given).make();
}

std::optional<EndPose> EndMotion::solved_at(double H) const {
  const double dh = H - surveyed_height;
  const auto solve = [&](const auto& linkage, const auto& solved) -> std::optional<EndPose> {
    const auto nearer = [&](const auto& x, const auto& y) { return std::abs(x.dh - dh) < std::abs(y.dh - dh); };
    const auto near = std::min_element(solved.begin(), solved.end(), nearer);
    if (near == solved.end()) return std::nullopt;
    const auto pose = step_to(linkage, dh, &*near);
    return pose ? std::optional(figures_of(linkage, *pose, surveyed_height)) : std::nullopt;
  };
  if (corner) return solve(*corner, corner_poses);
  if (axle) return solve(*axle, axle_poses);
  return std::nullopt;
}

std::optional<double> EndMotion::contact_forward(double H) const {
  if (!joints) return std::nullopt;
  const auto& hub = joints->side[0].at(Joint::wheel_centre);
  if (!hub) return std::nullopt;
  const motion::Point contact{hub->x, hub->y, 0};
  const double dh = H - surveyed_height;
  const auto between = [&](const auto& solved, const auto& carried) -> std::optional<double> {
    auto above = std::lower_bound(solved.begin(), solved.end(), dh, [](const auto& p, double at) { return p.dh < at; });
    if (solved.size() < 2 || dh < solved.front().dh - 1e-9 || above == solved.end()) return std::nullopt;
    if (above == solved.begin()) ++above;
    const motion::Point lower = carried(*std::prev(above)).place(contact), higher = carried(*above).place(contact);
    const double up = lower.z - higher.z; // the wheel goes up as the car comes down
    if (!(std::abs(up) > 1e-6)) return std::nullopt;
    return (lower.x - higher.x) / up;
  };
  if (corner)
    return between(
        corner_poses, [](const motion::CornerPose& p) -> const auto& { return p.upright; });
  if (axle)
    return between(
        axle_poses, [](const motion::AxlePose& p) -> const auto& { return p.axle; });
  return std::nullopt;
}

const EndPose& EndMotion::nearest(double H) const {
  const auto above =
      std::lower_bound(poses.begin(), poses.end(), H, [](const EndPose& p, double h) { return p.H < h; });
  if (above == poses.begin()) return poses.front();
  if (above == poses.end()) return poses.back();
  return above->H - H < H - std::prev(above)->H ? *above : *std::prev(above);
}

} // namespace mavrel::assess
