#include "assess/swing/end_scene.h"

#include "motion/wheel.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Geometry;
using motion::Joint;
using motion::Point;

Point unit_or_up(const Point& p) {
  const double l = motion::length(p);
  return l > 0 ? (1 / l) * p : Point{0, 0, 1};
}

/// The end's joints to draw: those measured, else usual places.
struct Drawn {
  Geometry geometry;
  std::shared_ptr<const motion::CornerLinkage> corner;
  std::shared_ptr<const motion::AxleLinkage> axle;
  bool measured = false;
};

Drawn drawn(const EndMotion& motion, const build::EndSurvey& survey, const SurveyedEnd& read) {
  Drawn out;
  if (motion.joints) {
    out.geometry = motion.joints->side[0];
    out.corner = motion.corner;
    out.axle = motion.axle;
    out.measured = true;
    return out;
  }
  build::EndSurvey usual = survey;
  if (survey.points->left.empty() || motion.trouble) {
    usual.points = Shared<build::HardPoints>();
    for (build::HardPoint& p : usual_points(survey.layout, survey.track, read.tyre_radius))
      usual.points.own().left.push_back(std::move(p));
  }
  const auto joints = joints_of_end(usual);
  if (!joints) return out;
  out.geometry = joints->side[0];
  if (out.geometry.shape == motion::Shape::solid_axle)
    out.axle = std::make_shared<const motion::AxleLinkage>(out.geometry);
  else
    out.corner = std::make_shared<const motion::CornerLinkage>(out.geometry);
  return out;
}

class Scene {
public:
  Scene(const EndGiven& given, const EndAnswer& answer, double H) : given_(given), answer_(answer) { out_.H = H; }

  std::optional<EndScene> make() {
    const EndMotion& motion = *given_.motion();
    const SurveyedEnd& read = *given_.survey();
    if (!read.height) return std::nullopt;
    const build::EndSurvey& survey = given_.survey().given().survey;
    drawn_ = drawn(motion, survey, read);
    if (!drawn_.corner && !drawn_.axle) return std::nullopt;
    out_.measured = drawn_.measured;
    out_.solid_axle = drawn_.axle != nullptr;
    if (const auto wheel = motion::parse_wheel(survey.wheel)) {
      const auto space = motion::wheel_space(*wheel);
      out_.radius = space.diameter / 2;
      out_.width = space.section_width;
    }
    const double dh = out_.H - motion.surveyed_height;
    if (drawn_.corner)
      corner(dh);
    else
      axle(dh);
    // Another upright carries the hub higher; its joints are where they were.
    out_.wheel.z += given_.motion().given().drop_spindle;
    out_.right_wheel.z += given_.motion().given().drop_spindle;
    damper();
    shaft(survey.shaft);
    bag();
    return std::move(out_);
  }

private:
  void corner(double dh) {
    const auto solved = drawn_.corner->solve(dh);
    out_.solved = solved.has_value();
    const auto pose = solved ? *solved : *drawn_.corner->solve(0);
    const auto now = [&](Joint j) { return drawn_.corner->joint(j, pose); };
    joints(now);
    for (const motion::BarRow& bar : motion::bars_of(drawn_.geometry.shape))
      out_.bars.push_back({now(bar.from), now(bar.to), bar.name, false});
    out_.wheel = now(Joint::wheel_centre);
    out_.wheel_axis = {std::sin(pose.toe) * std::cos(pose.camber), std::cos(pose.toe) * std::cos(pose.camber),
                       -std::sin(pose.camber)};
    seat_foot_ = drawn_.corner->part(drawn_.geometry.spring_foot, pose);
    seat_top_ = drawn_.corner->part(drawn_.geometry.spring_top, pose);
  }

  void axle(double dh) {
    const auto solved = drawn_.axle->solve_level(dh);
    out_.solved = solved.has_value();
    const auto pose = solved ? *solved : *drawn_.axle->solve_level(0);
    const auto now = [&](Joint j) { return drawn_.axle->joint(j, pose); };
    joints(now);
    const Geometry& g = drawn_.geometry;
    for (const motion::BarRow& bar : motion::bars_of(g.shape)) {
      if (!g.at(bar.from) || !g.at(bar.to)) continue;
      out_.bars.push_back({now(bar.from), now(bar.to), bar.name, false});
      if (bar.from == Joint::bar_body) continue;
      out_.bars.push_back(
          {drawn_.axle->joint(bar.from, pose, false), drawn_.axle->joint(bar.to, pose, false), bar.name, true});
    }
    out_.wheel = now(Joint::wheel_centre);
    out_.right_wheel = drawn_.axle->joint(Joint::wheel_centre, pose, false);
    out_.wheel_axis = unit_or_up(out_.wheel - out_.right_wheel);
    seat_foot_ = pose.axle;
  }

  void joints(const auto& now) {
    const Geometry& g = drawn_.geometry;
    for (const motion::JointRow& row : motion::joints_of(g.shape))
      if (g.at(row.joint))
        out_.joints.push_back({row.joint, row.name, now(row.joint), *g.at(row.joint), row.part == motion::Part::body});
  }

  [[nodiscard]] const Point* place(Joint joint) const {
    for (const SceneJoint& j : out_.joints)
      if (j.joint == joint) return &j.at;
    return nullptr;
  }

  void damper() {
    const Point *top = place(Joint::damper_body), *foot = place(Joint::damper_foot);
    if (!top || !foot) return;
    out_.damper = SceneDamper{*top, *foot, {}, {}, {}};
    const auto read = [&](const TrackRow& what) -> std::optional<double> {
      const Track* track = answer_.assessment.find(what, 0);
      return track ? track->at(out_.H) : std::nullopt;
    };
    out_.damper->to_open = read(tracks::damper_to_open);
    out_.damper->to_shut = read(tracks::damper_to_shut);
    const EndModel& model = answer_.fitted.model;
    if (given_.survey().given().survey.bump_stop_place == build::StopPlace::damper && model.stop_height && model.map &&
        model.map->has_damper() && model.map->contains(out_.H) && model.map->contains(*model.stop_height))
      out_.damper->to_stop = model.map->damper(out_.H).value - model.map->damper(*model.stop_height).value;
  }

  /// The inner joint stands on the body where it was measured; the outer one goes with the wheel, or the axle's middle.
  void shaft(const build::Shaft& s) {
    if (!s.across || !s.down) return;
    const Point surveyed = *drawn_.geometry.at(Joint::wheel_centre);
    if (out_.solid_axle)
      out_.shaft = SceneBar{{surveyed.x + *s.across, 0, surveyed.z + *s.down},
                            0.5 * (out_.wheel + out_.right_wheel),
                            words("propeller shaft"),
                            false};
    else
      out_.shaft =
          SceneBar{{surveyed.x, surveyed.y - *s.across, surveyed.z + *s.down}, out_.wheel, words("drive shaft"), false};
  }

  void bag() {
    const Point *top = place(Joint::spring_body), *foot = place(Joint::spring_foot);
    if (!top || !foot) return;
    SceneBag bag;
    bag.lower = *foot, bag.upper = *top;
    bag.lower_stack = given_.fit.lower_stack, bag.upper_stack = given_.fit.upper_stack;
    const Point way = unit_or_up(bag.upper - bag.lower);
    bag.lower_face = bag.upper_face = way;
    if (const auto& alignment = answer_.fitted.model.alignment) {
      const auto facing = [](const GaugeAngles& gauge) {
        return unit_or_up({-std::tan(gauge.along), -std::tan(gauge.across), 1});
      };
      bag.lower_face = seat_foot_.turned(facing(alignment->lower));
      bag.upper_face = seat_top_.turned(facing(alignment->upper));
    }
    if (answer_.fitted.bag && answer_.fitted.model.map && answer_.fitted.model.map->contains(out_.H)) {
      bag.height = answer_.fitted.on().bag_height(out_.H);
      const air::BagCurve& curve = answer_.fitted.bag->curve;
      bag.diameter = curve.diameter(std::clamp(bag.height, curve.lowest(), curve.highest()));
    }
    out_.bag = bag;
  }

  const EndGiven& given_;
  const EndAnswer& answer_;
  EndScene out_;
  Drawn drawn_;
  motion::Placed seat_foot_, seat_top_;
};

} // namespace

std::optional<EndScene> end_scene(const Answered<EndQuestion>& answer, double H) {
  return Scene(answer.given(), *answer, H).make();
}

} // namespace mavrel::assess
