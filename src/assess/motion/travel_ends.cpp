#include "assess/motion/travel_ends.h"

#include "curve/root.h"
#include "space/wheel_solid.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Joint;
using Figure = std::optional<double>;

constexpr double travel_looked_at = 0.2; // m either way of the surveyed height
constexpr double step = 0.005;           // m between heights tried

// ---- the bar's link, in its own plane: the bar's axis at the origin, its arm to the right, up is up

struct LinkPlane {
  double arm, length;      // m
  double lower_x, lower_z; // m, its lower joint as surveyed; it hangs straight down
  double drop;             // m that it drops for a metre of H
  double start;            // rad, the arm's angle as surveyed
};

std::optional<LinkPlane> plane_of(const build::BarLink& link) {
  if (!link.arm || !link.arm_angle || !link.length) return std::nullopt;
  const double a = *link.arm, angle = *link.arm_angle;
  return LinkPlane{a, *link.length, a * std::cos(angle), a * std::sin(angle) - *link.length, link.pickup_ratio, angle};
}

/// The more bent of the link's two ends, rad off square; none where it can't reach: it is pulled into one line.
Figure link_angle(const LinkPlane& p, double dh) {
  const double x = p.lower_x, z = p.lower_z - p.drop * dh;
  const double d = std::hypot(x, z);
  if (d > p.arm + p.length || d < std::abs(p.arm - p.length) || d == 0) return std::nullopt;
  const double towards = std::atan2(z, x);
  const double opens =
      std::acos(std::clamp((p.arm * p.arm + d * d - p.length * p.length) / (2 * p.arm * d), -1.0, 1.0));
  // Of the two ways to bend, the one it stands in as surveyed.
  const double d0 = std::atan2(p.lower_z, p.lower_x);
  const double sign = std::remainder(p.start - d0, 2 * M_PI) >= 0 ? 1 : -1;
  const double angle = towards + sign * opens;
  const double ex = p.arm * std::cos(angle), ez = p.arm * std::sin(angle);
  const double lx = x - ex, lz = z - ez;
  const double at_arm = std::abs(std::acos(std::clamp((lx * ex + lz * ez) / (p.arm * p.length), -1.0, 1.0)) - M_PI / 2);
  const double upright = std::abs(std::atan2(lx, -lz));
  return std::max(at_arm, upright);
}

// ---- shafts

struct ShaftAt {
  double angle = 0, plunge = 0;
};
/// @param steer  rad that the wheel is turned by, left positive: of a drive shaft's outer joint
std::optional<ShaftAt> shaft_at(const build::Shaft& shaft, bool propeller, double dh, const EndPose* at,
                                double steer = 0) {
  if (!shaft.across || !shaft.down) return std::nullopt;
  const double outward = at ? at->wheel_outward : 0, forward = at ? at->wheel_forward : 0;
  const double down = *shaft.down + dh;
  if (propeller) {
    // Seen from the side; the pinion looks forward along the shaft, the gearbox's flange rearward: nose up, it falls.
    const double along = *shaft.across - forward;
    const double slope = std::atan2(down, along), pinion = shaft.flange_angle + (at ? at->pinion.value_or(0) : 0);
    const double gearbox = shaft.inner_angle.value_or(0);
    return ShaftAt{std::max(std::abs(slope - gearbox), std::abs(slope - pinion)),
                   std::hypot(along, down) - std::hypot(*shaft.across, *shaft.down)};
  }
  const double across = *shaft.across + outward;
  const double inner = std::atan2(std::hypot(down, forward), across);
  // The wheel's own axis leans down outward by the camber, and turns with the steering.
  const motion::Point wheel = space::wheel_place({}, at && at->camber ? *at->camber : 0, 0, steer).outward;
  const motion::Point along = unit({forward, across, -down});
  const double outer = std::acos(std::clamp(motion::dot(along, wheel), -1.0, 1.0));
  return ShaftAt{std::max(inner, outer), std::hypot(across, down, forward) - std::hypot(*shaft.across, *shaft.down)};
}

Figure hose_slack(const build::BrakeHose& hose, double dh) {
  if (!hose.length || !hose.across || !hose.down) return std::nullopt;
  return *hose.length - least_hose_slack - hose.lock_adds - std::hypot(*hose.across, *hose.down + dh);
}

bool is_propeller(const build::EndSurvey& survey) {
  return is_solid_axle(survey.layout);
}
bool steers(const build::EndSurvey& survey) {
  switch (shape_of(survey.layout)) {
  case motion::Shape::strut:
  case motion::Shape::double_arm:
  case motion::Shape::king_beam:
    return true;
  default:
    return false;
  }
}

/// Adds where something is used up, to either side of where the car stood.
/// @param spare  what is left at dh; below 0: it is at its end; none: nobody knows
/// @param part   m of height gained for a metre of the part, from the slope of `spare`; none where metres do not count
template <class F>
void add_ends(Runs what, const char* part, bool by_metres, double H0, const F& spare, EndMotion& motion) {
  const auto left = [&](double dh) { return spare(dh).value_or(-1); };
  // Where nothing is used up, nearest to where the car stood: usually right there.
  std::optional<double> free;
  for (int i = 0; !free && i * step <= travel_looked_at; ++i)
    for (const double dh : {i * step, -i * step})
      if (!free && left(dh) >= 0) free = dh;
  if (!free) { // nowhere at all
    motion.travel_ends.push_back({what, H0 - travel_looked_at, false, {}, part});
    return;
  }
  for (const double way : {-1.0, 1.0}) {
    for (double from = *free; std::abs(from) <= travel_looked_at;) {
      const double to = from + way * step;
      if (std::abs(to) > travel_looked_at + 1e-9 || !spare(to)) break; // nobody knows beyond
      if (left(to) >= 0) {
        from = to;
        continue;
      }
      const double end = curve::crossing(left, std::min(from, to), std::max(from, to)).value_or(from);
      Figure gain;
      if (by_metres) {
        const double slope = (left(end - way * 1e-4) - left(end - way * 2e-4)) / 1e-4; // used up for a metre of H
        if (std::abs(slope) > 0.02) gain = 1 / std::abs(slope);
      }
      motion.travel_ends.push_back({what, H0 + end, way < 0, gain, part});
      break;
    }
  }
}

/// The pose at H, linear between the solved ones, which lie close. @returns nullptr where joints were not solved
const EndPose* pose_at(const EndMotion& motion, double H, EndPose& room) {
  if (motion.poses.size() < 2) return nullptr;
  const auto& poses = motion.poses;
  auto above = std::lower_bound(poses.begin(), poses.end(), H, [](const EndPose& p, double h) { return p.H < h; });
  if (above == poses.end()) above = std::prev(poses.end());
  if (above == poses.begin()) ++above;
  const EndPose &a = *std::prev(above), &b = *above;
  const double t = std::clamp((H - a.H) / (b.H - a.H), 0.0, 1.0);
  const auto mix = [&](const Figure& x, const Figure& y) -> Figure {
    if (!x || !y) return std::nullopt;
    return std::lerp(*x, *y, t);
  };
  room = a;
  room.H = H;
  room.wheel_forward = std::lerp(a.wheel_forward, b.wheel_forward, t);
  room.wheel_outward = std::lerp(a.wheel_outward, b.wheel_outward, t);
  room.camber = mix(a.camber, b.camber);
  room.pinion = mix(a.pinion, b.pinion);
  return &room;
}

// ---- joints' angles

/// Angle a bar has turned by in the part its end sits in, rad.
/// @param turn  of that part
double turned_in(const motion::Placed& turn, const motion::Point& before, const motion::Point& now) {
  const motion::Point carried = turn.turned(before);
  return std::acos(std::clamp(motion::dot(unit(carried), unit(now)), -1.0, 1.0));
}

/// Everything about one joint's angle: its bar's two ends, and what the joint sits in.
struct JointBar {
  Joint joint, other;
  bool outer; // sits in the upright or axle
};
std::optional<JointBar> bar_at(motion::Shape shape, Joint joint) {
  for (const motion::BarRow& bar : motion::bars_of(shape)) {
    if (bar.from == joint) return JointBar{joint, bar.to, false};
    if (bar.to == joint) return JointBar{joint, bar.from, true};
  }
  return std::nullopt;
}

/// The axis a wheel is steered about: joints on it may spin about it as much as they like, and so may what is steered.
std::optional<std::pair<Joint, Joint>> steering_axis(motion::Shape shape) {
  switch (shape) {
  case motion::Shape::strut:
    return std::pair{Joint::lower_outer, Joint::strut_top};
  case motion::Shape::double_arm:
    return std::pair{Joint::lower_outer, Joint::upper_outer};
  case motion::Shape::king_beam:
    return std::pair{Joint::king_lower, Joint::king_upper};
  default:
    return std::nullopt;
  }
}

/// What one joint bears and how far it is bent.
class JointAngle {
public:
  JointAngle(const motion::Geometry& g, const JointBar& bar) : bar_(bar), before_(between(bar, g)) {
    axis_ = steering_axis(g.shape);
    if (axis_) king_before_ = *g.at(axis_->second) - *g.at(axis_->first);
  }

  [[nodiscard]] double bent(const motion::CornerLinkage& linkage, const motion::CornerPose& pose) const {
    const motion::Point now = linkage.joint(bar_.other, pose) - linkage.joint(bar_.joint, pose);
    if (!axis_ || !bar_.outer) return turned_in(bar_.outer ? pose.upright : motion::Placed{}, before_, now);
    // A stud that stands along the steering axis: only what tilts it in its socket counts.
    const motion::Point king = linkage.joint(axis_->second, pose) - linkage.joint(axis_->first, pose);
    const auto rise = [](const motion::Point& bar, const motion::Point& stud) {
      return std::asin(std::clamp(motion::dot(unit(bar), unit(stud)), -1.0, 1.0));
    };
    return std::abs(rise(now, king) - rise(before_, king_before_));
  }
  [[nodiscard]] double bent(const motion::AxleLinkage& linkage, const motion::AxlePose& pose) const {
    const motion::Point now = linkage.joint(bar_.other, pose) - linkage.joint(bar_.joint, pose);
    return turned_in(bar_.outer ? pose.axle : motion::Placed{}, before_, now);
  }

private:
  static motion::Point between(const JointBar& bar, const motion::Geometry& g) {
    return *g.at(bar.other) - *g.at(bar.joint);
  }
  JointBar bar_;
  motion::Point before_, king_before_;
  std::optional<std::pair<Joint, Joint>> axis_;
};

/// Angles of one joint at solved heights, linear between them.
struct AngleTable {
  std::vector<double> dh, bent; // m rising, rad
  [[nodiscard]] Figure at(double x) const {
    if (dh.empty() || x < dh.front() - 1e-9 || x > dh.back() + 1e-9) return std::nullopt;
    const auto above = std::lower_bound(dh.begin(), dh.end(), x);
    const auto i = static_cast<std::size_t>(above - dh.begin());
    if (i == 0) return bent.front();
    if (i == dh.size()) return bent.back();
    return std::lerp(bent[i - 1], bent[i], (x - dh[i - 1]) / (dh[i] - dh[i - 1]));
  }
};

void add_joint_angles(const build::HardPoints& points, double H0, EndMotion& motion) {
  const motion::Geometry& g = motion.joints->side[0];
  for (const build::HardPoint& p : points.left) {
    const auto joint = motion::joint_from(p.name);
    const auto bar = joint && p.turn_allowed ? bar_at(g.shape, *joint) : std::nullopt;
    if (!bar || !g.at(bar->joint) || !g.at(bar->other)) continue;
    const JointAngle angle(g, *bar);
    std::vector<AngleTable> tables;
    const auto tabulate = [&](const auto& linkage, const auto& poses) {
      AngleTable& table = tables.emplace_back();
      for (const auto& pose : poses) {
        table.dh.push_back(pose.dh);
        table.bent.push_back(angle.bent(linkage, pose));
      }
    };
    if (motion.axle)
      tabulate(*motion.axle, motion.axle_poses);
    else {
      tabulate(*motion.corner, motion.corner_poses);
      for (const auto& poses : motion.locked)
        if (!poses.empty()) tabulate(*motion.corner, poses);
    }
    const auto spare = [&](double dh) -> Figure {
      Figure most;
      for (const AngleTable& table : tables)
        if (const auto bent = table.at(dh)) most = std::max(most.value_or(0), *bent);
      return most ? Figure(*p.turn_allowed - *most) : std::nullopt;
    };
    add_ends(Runs::joint_angle, motion::name_of(g.shape, *joint), false, H0, spare, motion);
  }
}

} // namespace

void add_travel_ends(const build::EndSurvey& survey, double H0, EndMotion& motion) {
  const auto at = [&](double dh, EndPose& room) { return pose_at(motion, H0 + dh, room); };
  if (motion.low_end)
    motion.travel_ends.push_back({Runs::joints,
                                  H0 + motion.low_end->reached,
                                  true,
                                  {},
                                  motion::name_of(motion.joints->side[0].shape, motion.low_end->joint)});
  if (motion.high_end)
    motion.travel_ends.push_back({Runs::joints,
                                  H0 + motion.high_end->reached,
                                  false,
                                  {},
                                  motion::name_of(motion.joints->side[0].shape, motion.high_end->joint)});
  if (hose_slack(survey.hose, 0))
    add_ends(
        Runs::brake_hose, nullptr, true, H0, [&](double dh) { return hose_slack(survey.hose, dh); }, motion);
  if (shaft_at(survey.shaft, false, 0, nullptr)) {
    const auto here = [&](double dh) {
      EndPose room;
      return *shaft_at(survey.shaft, is_propeller(survey), dh, at(dh, room));
    };
    if (const auto& allowed = survey.shaft.turn_allowed)
      add_ends(
          Runs::shaft_angle, nullptr, false, H0, [&](double dh) -> Figure { return *allowed - here(dh).angle; },
          motion);
    const auto lock = survey.points->lock;
    if (const auto& allowed = survey.shaft.turn_allowed; allowed && lock && !is_propeller(survey) && steers(survey)) {
      // At lock it counts where the car is driven; where it stands for a moment nobody steers it.
      const std::size_t first = motion.travel_ends.size();
      const auto locked = [&](double dh) -> Figure {
        EndPose room;
        const EndPose* pose = at(dh, room);
        const auto bent = [&](double steer) { return shaft_at(survey.shaft, false, dh, pose, steer)->angle; };
        return *allowed - std::max(bent(*lock), bent(-*lock));
      };
      add_ends(Runs::shaft_angle, words("at full lock"), false, H0, locked, motion);
      for (std::size_t i = first; i < motion.travel_ends.size(); ++i)
        motion.travel_ends[i].driven_only = true;
    }
    if (const auto& in = survey.shaft.plunge_in)
      add_ends(
          Runs::shaft_plunge, nullptr, true, H0, [&](double dh) -> Figure { return *in + here(dh).plunge; }, motion);
    if (const auto& out = survey.shaft.plunge_out)
      add_ends(
          Runs::shaft_plunge, nullptr, true, H0, [&](double dh) -> Figure { return *out - here(dh).plunge; }, motion);
  }
  if (const auto plane = plane_of(survey.bar_link); plane && survey.bar_link.turn_allowed)
    add_ends(
        Runs::bar_link, nullptr, false, H0,
        [&](double dh) -> Figure {
          const auto angle = link_angle(*plane, dh);
          return angle ? *survey.bar_link.turn_allowed - *angle : -1; // pulled into one line
        },
        motion);
  if (motion.joints && (motion.corner || motion.axle)) add_joint_angles(*survey.points, H0, motion);
}

RunningOut running_out(const build::EndSurvey& survey, double dh, const EndPose* at) {
  RunningOut out;
  out.hose_slack = hose_slack(survey.hose, dh);
  if (const auto shaft = shaft_at(survey.shaft, is_propeller(survey), dh, at)) {
    out.shaft_angle = shaft->angle;
    out.plunge = shaft->plunge;
  }
  if (const auto plane = plane_of(survey.bar_link)) out.link_angle = link_angle(*plane, dh);
  return out;
}

std::optional<double> centred_link(const build::BarLink& link, double dh) {
  const auto plane = plane_of(link);
  if (!plane) return std::nullopt;
  // The arm level, the link from its lower joint straight to the arm's end.
  return std::hypot(plane->arm - plane->lower_x, plane->lower_z - plane->drop * dh);
}

} // namespace mavrel::assess
