#include "assess/motion/geometry_of.h"

#include <cmath>

namespace mavrel::assess {

using build::Carrier;
using build::Layout;
using motion::Geometry;
using motion::Joint;
using motion::Part;
using motion::Shape;

motion::Shape shape_of(build::Layout layout) {
  switch (layout) {
  case Layout::strut:
    return Shape::strut;
  case Layout::double_wishbone:
  case Layout::twin_trailing_arms:
    return Shape::double_arm;
  case Layout::multi_link:
    return Shape::multi_link;
  case Layout::trailing_arm:
  case Layout::semi_trailing_arm:
  case Layout::torsion_beam:
    return Shape::hinge;
  case Layout::twin_beam:
    return Shape::king_beam;
  case Layout::axle_parallel_links:
  case Layout::axle_triangulated_links:
  case Layout::axle_was_leaves:
    return Shape::solid_axle;
  }
  return Shape::strut;
}

namespace {

/// How far a place lies from the line between two others, or from its nearer end, m.
double off_bar(const motion::Point& p, const motion::Point& a, const motion::Point& b) {
  const motion::Point way = b - a;
  const double along = std::clamp(motion::dot(p - a, way) / motion::dot(way, way), 0.0, 1.0);
  return motion::length(p - a - along * way);
}

Part nearest_link(const Geometry& g, Joint foot) {
  Part best = Part::link1;
  double nearest = INFINITY;
  for (int k = 0; k < 5; ++k) {
    const auto inner = static_cast<Joint>(static_cast<int>(Joint::link1_inner) + 2 * k);
    const auto outer = static_cast<Joint>(static_cast<int>(inner) + 1);
    if (!g.at(foot) || !g.at(inner) || !g.at(outer) || *g.at(inner) == *g.at(outer)) continue;
    const double off = off_bar(*g.at(foot), *g.at(inner), *g.at(outer));
    if (off < nearest) nearest = off, best = static_cast<Part>(static_cast<int>(Part::link1) + k);
  }
  return best;
}

/// An arm that carries a spring or damper, of the kind this suspension has.
Part arm_of(const Geometry& g, Joint foot) {
  switch (g.shape) {
  case Shape::strut:
  case Shape::double_arm:
    return Part::lower_arm;
  case Shape::multi_link:
    return nearest_link(g, foot);
  case Shape::hinge:
  case Shape::king_beam:
    return Part::arm;
  case Shape::solid_axle:
    return Part::axle;
  }
  return Part::upright;
}

Part usual_damper_carrier(const Geometry& g) {
  switch (g.shape) {
  case Shape::strut:
  case Shape::multi_link:
    return Part::upright;
  default:
    return arm_of(g, Joint::damper_foot);
  }
}

Part part_of(Carrier carrier, Part usual) {
  switch (carrier) {
  case Carrier::usual:
    return usual;
  case Carrier::body:
    return Part::body;
  case Carrier::upright:
    return Part::upright;
  case Carrier::lower_arm:
    return Part::lower_arm;
  case Carrier::upper_arm:
    return Part::upper_arm;
  case Carrier::arm:
    return Part::arm;
  case Carrier::link1:
    return Part::link1;
  case Carrier::link2:
    return Part::link2;
  case Carrier::link3:
    return Part::link3;
  case Carrier::link4:
    return Part::link4;
  case Carrier::link5:
    return Part::link5;
  case Carrier::axle:
    return Part::axle;
  }
  return usual;
}

bool has_joint(Shape shape, Joint joint) {
  for (const motion::JointRow& row : motion::joints_of(shape))
    if (row.joint == joint) return true;
  return false;
}

/// Puts one side's joints into a geometry. @param mirror  they are the right's
std::optional<PointTrouble> put(const List<build::HardPoint>& points, Side side, Geometry& g) {
  std::array<bool, motion::joint_count> seen{};
  for (const build::HardPoint& p : points) {
    const auto joint = motion::joint_from(p.name);
    if (!joint || !has_joint(g.shape, *joint)) continue; // another layout's; said as a finding
    bool& before = seen[static_cast<std::size_t>(*joint)];
    const char* name = motion::name_of(g.shape, *joint);
    if (before) return PointTrouble{{words("{0} stands there twice."), {name}}, p.name, side};
    before = true;
    // A lateral bar runs across: it lies as it lies and has no other side.
    const bool across = *joint == Joint::bar_body || *joint == Joint::bar_axle;
    if (across && side == Side::right) continue;
    g.at(*joint) = side == Side::left ? motion::Point{p.x, p.y, p.z} : motion::Point{p.x, -p.y, p.z};
  }
  return std::nullopt;
}

} // namespace

motion::Part usual_spring_carrier(const build::EndSurvey& survey, const motion::Geometry& g) {
  if (survey.spring_place == build::SpringPlace::around_damper) return usual_damper_carrier(g);
  if (g.shape == Shape::hinge || g.shape == Shape::solid_axle) return arm_of(g, Joint::spring_foot);
  switch (survey.spring_seat) {
  case build::SpringSeat::upright:
    return Part::upright;
  case build::SpringSeat::arm:
  case build::SpringSeat::axle:
    return arm_of(g, Joint::spring_foot);
  }
  return Part::upright;
}

tl::expected<Joints, PointTrouble> joints_of_end(const build::EndSurvey& survey) {
  const build::HardPoints& points = *survey.points;
  Joints out;
  for (const Side side : build::both_sides) {
    Geometry& g = out.side[build::at(side)];
    g.shape = shape_of(survey.layout);
    g.camber = points.camber.value_or(0);
    g.toe = points.toe.value_or(0);
    if (auto trouble = put(points.left, Side::left, g)) return tl::unexpected(std::move(*trouble));
    if (side == Side::right)
      if (auto trouble = put(points.right, Side::right, g)) return tl::unexpected(std::move(*trouble));
    const Part damper = usual_damper_carrier(g);
    g.spring_top = part_of(points.spring_top, Part::body);
    g.spring_foot = part_of(points.spring_foot, usual_spring_carrier(survey, g));
    g.damper_top = part_of(points.damper_top, Part::body);
    g.damper_foot = part_of(points.damper_foot, damper);
    if (g.shape == Shape::hinge)
      for (Part* part : {&g.spring_top, &g.spring_foot, &g.damper_top, &g.damper_foot})
        if (*part == Part::upright) *part = Part::arm;
    if (auto mistake = motion::mistake_in(g))
      return tl::unexpected(
          PointTrouble{std::move(mistake->what), mistake->joint ? motion::key_of(*mistake->joint) : "", side});
  }
  out.differ = !(out.side[0] == out.side[1]);
  return out;
}

namespace {

using J = Joint;
struct UsualPoint {
  J joint;
  double x, y, z; // m; y as a share of half the track, z from the wheel centre
};

// Places that any car of the kind might have; a start to drag from, never an answer.
constexpr UsualPoint usual_strut[] = {
    {J::lower_front, 0.04, 0.49, -0.10}, {J::lower_rear, -0.27, 0.51, -0.10}, {J::lower_outer, 0, 0.93, -0.12},
    {J::strut_top, -0.03, 0.73, 0.53},   {J::strut_lower, 0, 0.85, 0.06},     {J::rod_inner, -0.13, 0.45, -0.06},
    {J::rod_outer, -0.13, 0.91, -0.07},  {J::wheel_centre, 0, 1, 0},          {J::spring_body, -0.03, 0.73, 0.52},
    {J::spring_foot, -0.01, 0.80, 0.30}, {J::damper_body, -0.03, 0.73, 0.53}, {J::damper_foot, 0, 0.85, 0.06},
};
constexpr UsualPoint usual_double_arm[] = {
    {J::lower_front, 0.15, 0.47, -0.11}, {J::lower_rear, -0.17, 0.48, -0.11}, {J::lower_outer, 0, 0.94, -0.13},
    {J::upper_front, 0.11, 0.59, 0.15},  {J::upper_rear, -0.13, 0.60, 0.14},  {J::upper_outer, -0.02, 0.88, 0.16},
    {J::rod_inner, 0.13, 0.48, -0.07},   {J::rod_outer, 0.13, 0.92, -0.08},   {J::wheel_centre, 0, 1, 0},
    {J::spring_body, -0.02, 0.67, 0.17}, {J::spring_foot, 0, 0.75, -0.10},    {J::damper_body, 0.06, 0.66, 0.26},
    {J::damper_foot, 0.06, 0.78, -0.11},
};
constexpr UsualPoint usual_twin_trailing[] = {
    {J::lower_front, 0.33, 0.25, -0.06}, {J::lower_rear, 0.33, 0.72, -0.06},  {J::lower_outer, 0.01, 0.88, -0.08},
    {J::upper_front, 0.33, 0.25, 0.09},  {J::upper_rear, 0.33, 0.72, 0.09},   {J::upper_outer, 0, 0.87, 0.07},
    {J::rod_inner, 0.10, 0.30, 0.01},    {J::rod_outer, 0.10, 0.90, 0},       {J::wheel_centre, 0, 1, 0},
    {J::spring_body, 0.12, 0.80, 0.22},  {J::spring_foot, 0.14, 0.80, -0.06}, {J::damper_body, 0.06, 0.80, 0.34},
    {J::damper_foot, 0.07, 0.80, -0.06},
};
constexpr UsualPoint usual_multi_link[] = {
    {J::link1_inner, 0.10, 0.46, -0.09},  {J::link1_outer, 0.03, 0.92, -0.11}, {J::link2_inner, -0.16, 0.43, -0.10},
    {J::link2_outer, -0.06, 0.91, -0.12}, {J::link3_inner, 0.08, 0.59, 0.13},  {J::link3_outer, 0.02, 0.89, 0.14},
    {J::link4_inner, -0.12, 0.60, 0.12},  {J::link4_outer, -0.05, 0.88, 0.13}, {J::link5_inner, -0.20, 0.47, -0.04},
    {J::link5_outer, -0.13, 0.92, -0.03}, {J::wheel_centre, 0, 1, 0},          {J::spring_body, -0.02, 0.70, 0.20},
    {J::spring_foot, -0.05, 0.70, -0.09}, {J::damper_body, -0.05, 0.72, 0.34}, {J::damper_foot, -0.06, 0.83, -0.06},
};
constexpr UsualPoint usual_trailing[] = {
    {J::hinge_inner, 0.42, 0.45, -0.03},  {J::hinge_outer, 0.42, 0.84, -0.03}, {J::wheel_centre, 0, 1, 0},
    {J::spring_body, 0.12, 0.68, 0.16},   {J::spring_foot, 0.12, 0.68, -0.06}, {J::damper_body, -0.03, 0.75, 0.32},
    {J::damper_foot, -0.05, 0.80, -0.06},
};
constexpr UsualPoint usual_semi_trailing[] = {
    {J::hinge_inner, 0.36, 0.27, -0.03},  {J::hinge_outer, 0.46, 0.78, -0.04}, {J::wheel_centre, 0, 1, 0},
    {J::spring_body, 0.12, 0.68, 0.17},   {J::spring_foot, 0.12, 0.68, -0.06}, {J::damper_body, -0.04, 0.75, 0.32},
    {J::damper_foot, -0.05, 0.80, -0.05},
};
// The arm of a torsion beam turns about the line from its bush to the beam's shear centre on the car's middle.
constexpr UsualPoint usual_torsion[] = {
    {J::hinge_inner, 0.30, 0, -0.02},     {J::hinge_outer, 0.44, 0.76, 0.01},  {J::wheel_centre, 0, 1, 0},
    {J::spring_body, 0.08, 0.70, 0.15},   {J::spring_foot, 0.08, 0.70, -0.06}, {J::damper_body, -0.05, 0.74, 0.32},
    {J::damper_foot, -0.09, 0.80, -0.07},
};
constexpr UsualPoint usual_twin_beam[] = {
    {J::hinge_inner, 0, -0.25, -0.06},   {J::hinge_outer, -0.80, 0.50, 0.02},  {J::king_lower, 0, 0.92, -0.12},
    {J::king_upper, -0.01, 0.87, 0.12},  {J::rod_inner, 0.12, -0.10, -0.02},   {J::rod_outer, 0.12, 0.90, -0.04},
    {J::wheel_centre, 0, 1, 0},          {J::spring_body, -0.02, 0.66, 0.22},  {J::spring_foot, -0.02, 0.66, -0.06},
    {J::damper_body, -0.16, 0.64, 0.34}, {J::damper_foot, -0.16, 0.70, -0.08},
};
constexpr UsualPoint usual_axle_parallel[] = {
    {J::lower_body, 0.60, 0.66, -0.06},  {J::lower_axle, 0, 0.68, -0.09},      {J::upper_body, 0.48, 0.55, 0.11},
    {J::upper_axle, 0.03, 0.55, 0.13},   {J::bar_body, -0.15, 0.63, 0.07},     {J::bar_axle, -0.15, -0.60, 0.05},
    {J::wheel_centre, 0, 1, 0},          {J::spring_body, 0, 0.58, 0.24},      {J::spring_foot, 0, 0.60, 0.07},
    {J::damper_body, -0.08, 0.47, 0.39}, {J::damper_foot, -0.10, 0.66, -0.05},
};
constexpr UsualPoint usual_axle_triangulated[] = {
    {J::lower_body, 0.60, 0.66, -0.06}, {J::lower_axle, 0, 0.68, -0.09},     {J::upper_body, 0.44, 0.56, 0.11},
    {J::upper_axle, 0.02, 0.10, 0.16},  {J::wheel_centre, 0, 1, 0},          {J::spring_body, 0, 0.58, 0.24},
    {J::spring_foot, 0, 0.60, 0.07},    {J::damper_body, -0.08, 0.47, 0.39}, {J::damper_foot, -0.10, 0.66, -0.05},
};

std::span<const UsualPoint> usual_of(Layout layout) {
  switch (layout) {
  case Layout::strut:
    return usual_strut;
  case Layout::double_wishbone:
    return usual_double_arm;
  case Layout::twin_trailing_arms:
    return usual_twin_trailing;
  case Layout::multi_link:
    return usual_multi_link;
  case Layout::trailing_arm:
    return usual_trailing;
  case Layout::semi_trailing_arm:
    return usual_semi_trailing;
  case Layout::torsion_beam:
    return usual_torsion;
  case Layout::twin_beam:
    return usual_twin_beam;
  case Layout::axle_parallel_links:
  case Layout::axle_was_leaves:
    return usual_axle_parallel;
  case Layout::axle_triangulated_links:
    return usual_axle_triangulated;
  }
  return usual_strut;
}

} // namespace

std::vector<build::HardPoint> usual_points(build::Layout layout, std::optional<double> track,
                                           std::optional<double> radius) {
  constexpr double usual_track = 1.5, usual_radius = 0.31;
  const double half = track.value_or(usual_track) / 2, centre = radius.value_or(usual_radius);
  std::vector<build::HardPoint> out;
  // To the millimetre: nobody should take them for readings.
  const auto whole = [](double v) { return std::round(v * 1000) / 1000; };
  for (const UsualPoint& p : usual_of(layout))
    out.push_back({motion::key_of(p.joint), whole(p.x), whole(p.y * half), whole(p.z + centre), {}, {}});
  return out;
}

} // namespace mavrel::assess
