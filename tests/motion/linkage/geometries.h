// Geometries to try linkages on: the reference's, and variations of them.
#pragma once

#include "motion/linkage/axle.h"
#include "motion/linkage/corner.h"
#include "support.h"

#include <nlohmann/json.hpp>

#include <numbers>

namespace mavrel::motion {

constexpr double deg = std::numbers::pi / 180;

inline Geometry geometry_from(const nlohmann::json& file) {
  Geometry g;
  const std::string layout = file["layout"];
  g.shape = layout == "strut"             ? Shape::strut
            : layout == "double wishbone" ? Shape::double_arm
            : layout == "multi-link"      ? Shape::multi_link
            : layout == "solid axle"      ? Shape::solid_axle
                                          : Shape::hinge;
  const Part usual = parts_of(g.shape).front();
  g.spring_foot = file.contains("spring") ? part_from(file["spring"].get<std::string>()).value() : usual;
  g.damper_foot = file.contains("damper") ? part_from(file["damper"].get<std::string>()).value() : usual;
  g.camber = file.value("camber_deg", 0.0) * deg;
  g.toe = file.value("toe_deg", 0.0) * deg;
  for (const auto& [key, p] : file["points_m"].items())
    g.at(joint_from(key).value()) = Point{p[0], p[1], p[2]};
  return g;
}

inline Geometry reference(const std::string& name) {
  return geometry_from(nlohmann::json::parse(test::text_of(test::data("reference/linkages/" + name + ".json"))));
}

inline const char* const corners[] = {"strut", "double-wishbone", "multi-link", "trailing-arm"};

/// A twin beam: a beam hinged across the car's middle, a radius arm, a kingpin and a rod.
inline Geometry twin_beam() {
  Geometry g;
  g.shape = Shape::king_beam;
  g.spring_foot = g.damper_foot = Part::arm;
  const std::pair<Joint, Point> places[] = {
      {Joint::hinge_inner, {0, -0.18, 0.30}},    {Joint::hinge_outer, {-0.8, 0.38, 0.38}},
      {Joint::king_lower, {0, 0.70, 0.25}},      {Joint::king_upper, {-0.01, 0.66, 0.49}},
      {Joint::rod_inner, {0.12, -0.08, 0.34}},   {Joint::rod_outer, {0.12, 0.68, 0.33}},
      {Joint::wheel_centre, {0, 0.76, 0.36}},    {Joint::spring_body, {-0.02, 0.50, 0.58}},
      {Joint::spring_foot, {-0.02, 0.50, 0.31}}, {Joint::damper_body, {-0.16, 0.48, 0.70}},
      {Joint::damper_foot, {-0.16, 0.53, 0.28}},
  };
  for (const auto& [joint, place] : places)
    g.at(joint) = place;
  return g;
}

/// Moved and turned about the upright axis: nothing that is measured within the car changes.
inline Point moved(const Point& p, const Point& by) {
  return p + by;
}

} // namespace mavrel::motion
