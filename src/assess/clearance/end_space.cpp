#include "assess/clearance/end_space.h"

#include "assess/survey/stand_ins.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Joint;
using motion::Part;
using space::Placed;
using space::Point;
using space::Rod;

constexpr double looked_at = 0.2, apart = 0.010; // m, without joints

Placed mix(const Placed& a, const Placed& b, double t) {
  Placed out;
  for (std::size_t i = 0; i < out.turn.size(); ++i)
    out.turn[i] = std::lerp(a.turn[i], b.turn[i], t);
  out.shift = space::lerp(a.shift, b.shift, t);
  return out;
}
Rod mix(const Rod& a, const Rod& b, double t) {
  return {space::lerp(a.from, b.from, t), space::lerp(a.to, b.to, t), a.radius};
}
Stand mix(const Stand& a, const Stand& b, double t) {
  Stand out;
  out.H = std::lerp(a.H, b.H, t);
  out.wheel.centre = space::lerp(a.wheel.centre, b.wheel.centre, t);
  const Point outward = space::lerp(a.wheel.outward, b.wheel.outward, t);
  out.wheel.outward = (1 / space::length(outward)) * outward;
  for (std::size_t i = 0; i < part_count; ++i)
    out.parts[i] = mix(a.parts[i], b.parts[i], t);
  if (a.damper && b.damper) out.damper = mix(*a.damper, *b.damper, t);
  for (std::size_t i = 0; i < a.arms.size(); ++i)
    out.arms.push_back(mix(a.arms[i], b.arms[i], t));
  if (a.axle && b.axle) out.axle = mix(*a.axle, *b.axle, t);
  if (a.seats && b.seats)
    out.seats = {space::lerp((*a.seats)[0], (*b.seats)[0], t), space::lerp((*a.seats)[1], (*b.seats)[1], t)};
  return out;
}

/// A wheel turned about an upright axis through its hub face.
space::WheelPlace turned(const space::WheelPlace& wheel, double angle) {
  const double c = std::cos(angle), s = std::sin(angle);
  const Point& o = wheel.outward;
  return {wheel.centre, {c * o.x - s * o.y, s * o.x + c * o.y, o.z}};
}

/// Which arm or rod a bar is.
ArmRow arm_row(const motion::BarRow& bar) {
  ArmRow out{OwnPart::arm, bar.part, bar.to == Joint::wheel_centre};
  switch (bar.part) {
  case Part::lower_arm:
    out.own = OwnPart::lower_arm;
    break;
  case Part::upper_arm:
    out.own = OwnPart::upper_arm;
    break;
  case Part::link1:
  case Part::link2:
  case Part::link3:
  case Part::link4:
  case Part::link5:
    out.own = static_cast<OwnPart>(static_cast<int>(OwnPart::link1) + static_cast<int>(bar.part) -
                                   static_cast<int>(Part::link1));
    break;
  case Part::body: // a rod of its own
    out.own = bar.from == Joint::rod_inner    ? OwnPart::track_rod
              : bar.from == Joint::lower_body ? OwnPart::lower_link
              : bar.from == Joint::upper_body ? OwnPart::upper_link
              : bar.from == Joint::bar_body   ? OwnPart::lateral_bar
                                              : OwnPart::arm;
    break;
  default:
    break;
  }
  return out;
}

/// A turn and a shift seen in a mirror along the car.
Placed mirrored(const Placed& placed) {
  Placed out = placed;
  for (const std::size_t i : {1U, 3U, 5U, 7U}) // what leads across once changes its sign
    out.turn[i] = -out.turn[i];
  out.shift = space::mirrored(placed.shift);
  return out;
}

bool evenly(const std::vector<Stand>& stands) {
  const double step = stands[1].H - stands[0].H;
  for (std::size_t i = 1; i < stands.size(); ++i)
    if (std::abs(stands[i].H - stands[i - 1].H - step) > 1e-9) return false;
  return true;
}

} // namespace

/// Where no joints say how it steers, or they stop short of the lock: turned about the hub face.
void EndSpace::steer_where_not_solved() {
  constexpr std::size_t every = 2;
  if (lock_ == 0) return;
  for (std::size_t way = 0; way < 2; ++way) {
    if (!locked_[way].empty()) continue;
    for (std::size_t i = 0; i < straight_.size(); i += every) {
      Stand& stand = locked_[way].emplace_back(straight_[i]);
      stand.wheel = turned(stand.wheel, way == 0 ? -lock_ : lock_);
      stand.lock = way == 0 ? Lock::right : Lock::left;
    }
    if (locked_[way].size() < 2) locked_[way].clear();
  }
}

/// Stands from a little below `low` to a little above `high`; those at lock stay among those straight ahead.
void EndSpace::keep_only(double low, double high) {
  std::size_t first = 0;
  while (first + 4 < straight_.size() && straight_[first + 2].H <= low)
    first += 2;
  straight_.erase(straight_.begin(), straight_.begin() + static_cast<std::ptrdiff_t>(first));
  while (straight_.size() > 3 && straight_[straight_.size() - 2].H >= high)
    straight_.pop_back();
  for (auto& stands : locked_)
    std::erase_if(stands,
                  [&](const Stand& s) { return s.H < straight_.front().H - 1e-9 || s.H > straight_.back().H + 1e-9; });
}

/// What does not hang on which side it is.
void EndSpace::begin(const Answered<MotionQuestion>& motion) {
  const build::EndSurvey& survey = motion.given().survey.given().survey;
  surveyed_ = motion->surveyed_height;
  spindle_ = motion.given().drop_spindle;
  lock_ = survey.points->lock.value_or(0);
  one_piece_ = is_solid_axle(survey.layout);
  arms_ = survey.thickness.arms / 2;
  damper_ = survey.thickness.damper / 2;
  tube_ = survey.thickness.axle / 2;
}

/// From joints that were solved.
void EndSpace::joints(const EndMotion& m, Side side, double low, double high) {
  const bool right = side == Side::right;
  side_ = side;
  corner_ = right ? m.right_corner : m.corner;
  axle_ = m.axle;
  const motion::Geometry& g = m.joints->side[build::at(side)];
  hub_ = *g.at(Joint::wheel_centre);
  spring_ = {g.spring_top, g.spring_foot};
  for (const motion::BarRow& bar : motion::bars_of(g.shape))
    if (g.at(bar.from) && g.at(bar.to)) arm_rows_.push_back(arm_row(bar));
  corner_poses_ = right ? m.right_corner_poses : m.corner_poses;
  for (const motion::CornerPose& pose : corner_poses_)
    straight_.push_back(stand_of(pose));
  for (const motion::AxlePose& pose : m.axle_poses)
    straight_.push_back(stand_of(pose));
  const auto& locked = right ? m.right_locked : m.locked;
  for (std::size_t way = 0; way < 2; ++way)
    for (const motion::CornerPose& pose : locked[way]) {
      locked_[way].push_back(stand_of(pose));
      locked_[way].back().lock = way == 0 ? Lock::right : Lock::left;
    }
  if (!corner_ || !corner_->steers()) lock_ = 0;
  keep_only(low, high);
  for (auto& stands : locked_)
    if (stands.size() < 2 || !evenly(stands)) stands.clear();
  steer_where_not_solved();
}

std::optional<EndSpace> EndSpace::of(const Answered<MotionQuestion>& motion, std::optional<double> tyre_radius,
                                     double low, double high) {
  const EndMotion& m = *motion;
  const SurveyedEnd& read = *motion.given().survey;
  const build::EndSurvey& survey = motion.given().survey.given().survey;
  if (!read.height) return std::nullopt;
  EndSpace out;
  out.begin(motion);
  if (m.joints && (m.corner_poses.size() > 1 || m.axle_poses.size() > 1)) {
    out.joints(m, Side::left, low, high);
    return out;
  }
  if (!survey.track || !tyre_radius) return std::nullopt;
  // Without joints the wheel goes straight up and down, leaning as the sheet has it.
  out.hub_ = {0, *survey.track / 2, *tyre_radius};
  if (is_solid_axle(survey.layout)) out.lock_ = 0;
  const auto angle = [&](const std::optional<motion::CycleFit>& fit, double H) {
    return fit ? fit->length.read(std::clamp(H + out.spindle_, fit->lowest, fit->highest)).value : 0.0;
  };
  for (double dh = -looked_at; dh <= looked_at + 1e-9; dh += apart) {
    const double H = out.surveyed_ + dh;
    out.straight_.push_back(out.straight_line(H, angle(read.camber_fit, H), angle(read.toe_fit, H)));
  }
  out.keep_only(low, high);
  out.steer_where_not_solved();
  return out;
}

std::optional<EndSpace> EndSpace::right_of(const Answered<MotionQuestion>& motion, double low, double high) {
  const EndMotion& m = *motion;
  if (!m.joints || !m.joints->differ || (m.right_corner_poses.size() < 2 && m.axle_poses.size() < 2))
    return std::nullopt;
  EndSpace out;
  out.begin(motion);
  out.joints(m, Side::right, low, high);
  return out.straight_.size() > 1 ? std::optional(std::move(out)) : std::nullopt;
}

Stand EndSpace::straight_line(double H, double camber, double toe) const {
  Stand out;
  out.H = H;
  const double up = surveyed_ - H + spindle_;
  out.wheel = space::wheel_place(hub_ + Point{0, 0, up}, camber, toe, 0);
  for (Placed& part : out.parts)
    part.shift = {0, 0, up};
  out.parts[static_cast<std::size_t>(Part::body)] = {};
  return out;
}

Stand EndSpace::stand_of(const motion::CornerPose& pose) const {
  const motion::Geometry& g = corner_->geometry();
  Stand out;
  out.H = surveyed_ + pose.dh;
  const space::WheelPlace at_first = space::wheel_place({}, g.camber, g.toe, 0);
  // Another upright carries the hub higher; its joints are where they were.
  out.wheel = {pose.upright.place(hub_) + Point{0, 0, spindle_}, pose.upright.turned(at_first.outward)};
  for (const Part part : motion::parts_of(g.shape))
    out.parts[static_cast<std::size_t>(part)] = corner_->part(part, pose);
  out.parts[static_cast<std::size_t>(Part::upright)] = pose.upright;
  const auto rod = [&](Joint from, Joint to, double radius) {
    return Rod{corner_->joint(from, pose), corner_->joint(to, pose), radius};
  };
  if (g.at(Joint::damper_body) && g.at(Joint::damper_foot))
    out.damper = rod(Joint::damper_body, Joint::damper_foot, damper_);
  for (const motion::BarRow& bar : motion::bars_of(g.shape))
    if (g.at(bar.from) && g.at(bar.to)) out.arms.push_back(rod(bar.from, bar.to, arms_));
  if (g.at(Joint::spring_body) && g.at(Joint::spring_foot))
    out.seats = {corner_->joint(Joint::spring_body, pose), corner_->joint(Joint::spring_foot, pose)};
  return out;
}

Stand EndSpace::stand_of(const motion::AxlePose& pose) const {
  const motion::Geometry& g = axle_->geometry();
  const bool left = side_ == Side::left;
  const Placed axle = left ? pose.axle : mirrored(pose.axle);
  Stand out;
  out.H = surveyed_ + pose.dh;
  const space::WheelPlace at_first = space::wheel_place({}, g.camber, g.toe, 0);
  out.wheel = {axle.place(hub_) + Point{0, 0, spindle_}, axle.turned(at_first.outward)};
  out.parts[static_cast<std::size_t>(Part::axle)] = axle;
  out.parts[static_cast<std::size_t>(Part::upright)] = axle;
  const auto at = [&](Joint joint) {
    const Point p = axle_->joint(joint, pose, left);
    return left ? p : space::mirrored(p);
  };
  if (g.at(Joint::damper_body) && g.at(Joint::damper_foot))
    out.damper = Rod{at(Joint::damper_body), at(Joint::damper_foot), damper_};
  for (const motion::BarRow& bar : motion::bars_of(g.shape))
    if (g.at(bar.from) && g.at(bar.to)) out.arms.push_back({at(bar.from), at(bar.to), arms_});
  // Up to the hub face, from one side to the other.
  out.axle = Rod{axle.place(hub_), axle.place(space::mirrored(hub_)), tube_};
  if (g.at(Joint::spring_body) && g.at(Joint::spring_foot))
    out.seats = {at(Joint::spring_body), at(Joint::spring_foot)};
  return out;
}

const std::vector<Stand>& EndSpace::stands(Lock lock) const {
  if (lock == Lock::straight) return straight_;
  const auto& of = locked_[lock == Lock::right ? 0 : 1];
  return of.empty() ? straight_ : of;
}

Stand EndSpace::at(double H, Lock lock) const {
  const auto& of = stands(lock);
  const double in = std::clamp(H, of.front().H, of.back().H);
  auto above = std::lower_bound(of.begin(), of.end(), in, [](const Stand& s, double h) { return s.H < h; });
  if (above == of.begin()) ++above;
  if (above == of.end()) --above;
  const Stand &a = *std::prev(above), &b = *above;
  Stand out = mix(a, b, (in - a.H) / (b.H - a.H));
  out.lock = lock;
  if (lock != Lock::straight && &of == &straight_) out.wheel = turned(out.wheel, lock == Lock::left ? lock_ : -lock_);
  return out;
}

std::optional<Stand> EndSpace::uneven(double H, double other) const {
  const double mean = 0.5 * (H + other);
  if (!one_piece_ || H == other) {
    if (H < lowest() - 1e-9 || H > highest() + 1e-9) return std::nullopt;
    return at(H);
  }
  const double up = std::atan2(other - H, 2 * hub_.y); // this wheel's side, against the body
  if (axle_) {
    const auto pose = axle_->solve_rolled(mean - surveyed_, side_ == Side::left ? up : -up);
    if (!pose) return std::nullopt;
    Stand out = stand_of(*pose);
    out.H = H;
    return out;
  }
  if (mean < lowest() - 1e-9 || mean > highest() + 1e-9) return std::nullopt;
  Stand out = at(mean);
  out.H = H;
  const double c = std::cos(up), s = std::sin(up);
  const Point middle{0, 0, out.wheel.centre.z};
  const Placed roll{{1, 0, 0, 0, c, -s, 0, s, c}, {}};
  const auto turned_about = [&](const Point& p) { return middle + roll.turned(p - middle); };
  out.wheel = {turned_about(out.wheel.centre), roll.turned(out.wheel.outward)};
  for (std::size_t i = 0; i < part_count; ++i) {
    if (static_cast<Part>(i) == Part::body) continue;
    Placed& part = out.parts[i];
    Placed whole;
    for (std::size_t k = 0; k < 3; ++k) {
      const Point column = roll.turned({part.turn[k], part.turn[3 + k], part.turn[6 + k]});
      whole.turn[k] = column.x, whole.turn[3 + k] = column.y, whole.turn[6 + k] = column.z;
    }
    whole.shift = turned_about(part.shift);
    part = whole;
  }
  return out;
}

std::optional<Stand> EndSpace::steered(double H, double angle) const {
  const bool within = H >= lowest() - 1e-9 && H <= highest() + 1e-9;
  if (within && (angle == 0 || lock_ == 0)) return at(H);
  if (!corner_) {
    if (!within) return std::nullopt;
    Stand out = at(H);
    out.wheel = turned(out.wheel, angle);
    return out;
  }
  const auto rack = angle == 0 || lock_ == 0 ? std::optional(0.0) : corner_->rack_for(angle);
  if (!rack) return std::nullopt;
  const double dh = H - surveyed_;
  const auto near = std::min_element(corner_poses_.begin(), corner_poses_.end(), [&](const auto& a, const auto& b) {
    return std::abs(a.dh - dh) < std::abs(b.dh - dh);
  });
  const auto pose = corner_->solve(dh, *rack, &*near);
  return pose ? std::optional(stand_of(*pose)) : std::nullopt;
}

std::vector<std::optional<Stand>> EndSpace::grid(const std::vector<double>& heights,
                                                 const std::vector<double>& angles) const {
  std::vector<std::optional<Stand>> out;
  out.reserve(heights.size() * angles.size());
  if (!corner_ || lock_ == 0) {
    for (const double H : heights)
      for (const double angle : angles)
        out.push_back(steered(H, angle));
    return out;
  }
  std::vector<double> dh, racks;
  std::vector<std::size_t> column; // of the poses, for each angle; not there where no rack does
  constexpr auto none = static_cast<std::size_t>(-1);
  for (const double H : heights)
    dh.push_back(H - surveyed_);
  // A rack moved one way turns the wheels one way: racks rise or fall with the angles.
  std::vector<std::pair<double, std::size_t>> found;
  for (std::size_t k = 0; k < angles.size(); ++k)
    if (const auto rack = corner_->rack_for(angles[k])) found.emplace_back(*rack, k);
  std::sort(found.begin(), found.end());
  column.assign(angles.size(), none);
  for (std::size_t k = 0; k < found.size(); ++k) {
    racks.push_back(found[k].first);
    column[found[k].second] = k;
  }
  if (racks.empty()) {
    out.resize(heights.size() * angles.size());
    return out;
  }
  const motion::PoseGrid poses = motion::solve_grid(*corner_, dh, racks);
  for (std::size_t i = 0; i < heights.size(); ++i)
    for (std::size_t k = 0; k < angles.size(); ++k) {
      const auto* pose = column[k] == none ? nullptr : &poses.at(i, column[k]);
      out.push_back(pose && *pose ? std::optional(stand_of(**pose)) : std::nullopt);
    }
  return out;
}

} // namespace mavrel::assess
