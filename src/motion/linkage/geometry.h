// The joints of one end, where they stand with the car on its wheels: what a builder can measure with a tape, a plumb
// line and the floor. The left side; a right side is its mirror image.
#pragma once

#include "quantity/expected.h"
#include "space/point.h"

#include <array>
#include <cstdint>
#include <optional>
#include <span>

namespace mavrel::motion {

using space::dot;
using space::length;
using space::mirrored;
using space::Point;

/// How an end is held.
enum class Shape : std::uint8_t {
  strut,      // lower arm, strut, rod
  double_arm, // two arms on an axis each, rod: wishbones, or trailing arms on a beam
  multi_link, // five links
  hinge,      // one arm turning about one axis: trailing, semi-trailing, torsion beam
  king_beam,  // a hinged beam that carries a kingpin, and a rod: twin beams
  solid_axle, // four links, mirrored, and a lateral bar or none
};
constexpr std::size_t shape_count = 6;

enum class Joint : std::uint8_t {
  lower_front,
  lower_rear,
  lower_outer,
  upper_front,
  upper_rear,
  upper_outer,
  strut_top,
  strut_lower,
  rod_inner,
  rod_outer,
  link1_inner,
  link1_outer,
  link2_inner,
  link2_outer,
  link3_inner,
  link3_outer,
  link4_inner,
  link4_outer,
  link5_inner,
  link5_outer,
  hinge_inner,
  hinge_outer,
  king_lower,
  king_upper,
  lower_body,
  lower_axle,
  upper_body,
  upper_axle,
  bar_body,
  bar_axle,
  wheel_centre,
  spring_body,
  spring_foot,
  damper_body,
  damper_foot,
};
constexpr std::size_t joint_count = static_cast<std::size_t>(Joint::damper_foot) + 1;

/// What moves as one piece.
enum class Part : std::uint8_t { body, upright, lower_arm, upper_arm, arm, link1, link2, link3, link4, link5, axle };

/// One joint of a shape.
struct JointRow {
  Joint joint;
  const char* name; // for people: `lower arm, front pivot`
  Part part;        // which part its place goes with; that of a spring's or damper's end is the geometry's to say
  bool needed;      // the shape can't be solved without it
};
/// The joints a shape has, in the order they are measured.
[[nodiscard]] std::span<const JointRow> joints_of(Shape shape);
/// The parts of a shape that may carry the foot of a spring or damper.
[[nodiscard]] std::span<const Part> parts_of(Shape shape);

/// Two joints that a bar or arm runs between, for drawings and lengths: `lower arm, front`.
struct BarRow {
  Joint from, to;
  const char* name;
  Part part; // that it is, or is a leg of; `body`: a rod or link of its own, which carries nothing
};
[[nodiscard]] std::span<const BarRow> bars_of(Shape shape);

[[nodiscard]] const char* key_of(Joint joint); // `lower_front`, as files write it
[[nodiscard]] std::optional<Joint> joint_from(std::string_view key);
[[nodiscard]] const char* key_of(Part part);
[[nodiscard]] const char* name_of(Part part); // for people
[[nodiscard]] std::optional<Part> part_from(std::string_view key);
[[nodiscard]] const char* name_of(Shape shape, Joint joint); // for people

/// What one end is solved from.
struct Geometry {
  Shape shape = Shape::strut;
  std::array<std::optional<Point>, joint_count> points{};
  Part spring_top = Part::body, spring_foot = Part::upright; // what carries the spring's ends
  Part damper_top = Part::body, damper_foot = Part::upright;
  double camber = 0, toe = 0; // rad as it stands; top outward and toe-in positive

  [[nodiscard]] const std::optional<Point>& at(Joint j) const { return points[static_cast<std::size_t>(j)]; }
  [[nodiscard]] std::optional<Point>& at(Joint j) { return points[static_cast<std::size_t>(j)]; }
  friend bool operator==(const Geometry&, const Geometry&) = default;
};

/// What is wrong with places that no arithmetic can mend: a joint that is missing, two that lie on each other where a
/// bar runs between them, an axis without a direction, an arm's end on its own axis, a part that this shape has not.
struct GeometryMistake {
  std::optional<Joint> joint; // the one to look at; none where a part is named
  Message what;
};
[[nodiscard]] std::optional<GeometryMistake> mistake_in(const Geometry& geometry);

constexpr double least_bar = 0.005; // m; nearer joints are one point measured twice

} // namespace mavrel::motion
