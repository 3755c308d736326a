// mavrel-cli linkage: a geometry file through travel.
#include "build/json_text.h"
#include "cli/commands.h"
#include "cli/reader.h"
#include "file/text_file.h"
#include "motion/linkage/axle.h"
#include "motion/linkage/corner.h"
#include "quantity/quantity.h"
#include "quantity/text.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <numbers>

namespace mavrel::cli {

namespace {

using Json = nlohmann::ordered_json;
using motion::Geometry;
using motion::Joint;
using motion::Part;
using motion::Shape;

constexpr double farthest_joint = 5;   // m from the axle's middle that a joint may lie
constexpr double widest = 45 * degree; // of camber and toe
constexpr std::size_t most_heights = 1000;

struct LayoutName {
  const char* name;
  Shape shape;
};
constexpr LayoutName layouts[] = {
    {"strut", Shape::strut},
    {"double wishbone", Shape::double_arm},
    {"twin trailing arms", Shape::double_arm},
    {"multi-link", Shape::multi_link},
    {"trailing arm", Shape::hinge},
    {"semi-trailing arm", Shape::hinge},
    {"torsion beam", Shape::hinge},
    {"twin beam", Shape::king_beam},
    {"solid axle", Shape::solid_axle},
};

Expected<Shape> layout_in(const Json& file) {
  const Json layout = file.value("layout", Json());
  std::string known;
  for (const LayoutName& row : layouts) {
    if (layout == row.name) return row.shape;
    known += known.empty() ? "" : ", ";
    known += row.name;
  }
  return refuse(words("layout: {0} is there; one of {1} is right."), {build::kind_of(layout), known});
}

Expected<double> angle_in(const Json& file, const char* key) {
  const Json value = file.value(key, Json(0.0));
  if (!value.is_number() || !(std::abs(value.get<double>() * degree) <= widest))
    return refuse(words("{0}: {1} is there; a number from {2} to {3} is right."),
                  {std::string(key), build::kind_of(value), "-45", "45"});
  return value.get<double>() * degree;
}

Expected<Part> carrier_in(const Json& file, const char* key, Shape shape) {
  const auto parts = motion::parts_of(shape);
  if (!file.contains(key)) return shape == Shape::king_beam ? Part::arm : parts.front();
  std::string known;
  for (const Part part : parts) {
    if (file[key] == motion::key_of(part)) return part;
    known += known.empty() ? "" : ", ";
    known += motion::key_of(part);
  }
  if (shape == Shape::hinge && file[key] == "upright") return Part::arm; // one and the same there
  return refuse(words("{0}: {1} is there; one of {2} is right."), {std::string(key), build::kind_of(file[key]), known});
}

Expected<motion::Point> point_in(const std::string& key, const Json& value) {
  const auto coordinate = [&](std::size_t i) -> std::optional<double> {
    if (!value[i].is_number() || !(std::abs(value[i].get<double>()) <= farthest_joint)) return std::nullopt;
    return value[i].get<double>();
  };
  if (value.is_array() && value.size() == 3) {
    const auto x = coordinate(0), y = coordinate(1), z = coordinate(2);
    if (x && y && z) return motion::Point{*x, *y, *z};
  }
  return refuse(words("points_m.{0}: three numbers in metres are right, none beyond {1} m."),
                {excerpt(key, 40), std::to_string(static_cast<int>(farthest_joint))});
}

Expected<Geometry> geometry_in(const Json& file) {
  if (!file.is_object()) return refuse(words("A geometry is an object with layout and points_m."));
  const auto shape = layout_in(file);
  if (!shape) return refuse(shape.error());
  Geometry out;
  out.shape = *shape;
  for (const auto& [key, to] : {std::pair{"camber_deg", &Geometry::camber}, std::pair{"toe_deg", &Geometry::toe}}) {
    const auto angle = angle_in(file, key);
    if (!angle) return refuse(angle.error());
    out.*to = *angle;
  }
  for (const auto& [key, to] :
       {std::pair{"spring", &Geometry::spring_foot}, std::pair{"damper", &Geometry::damper_foot}}) {
    const auto part = carrier_in(file, key, *shape);
    if (!part) return refuse(part.error());
    out.*to = *part;
  }
  const Json points = file.value("points_m", Json());
  if (!points.is_object())
    return refuse(words("points_m: {0} is there; {1} is right."), {build::kind_of(points), words("an object")});
  for (const auto& [key, value] : points.items()) {
    const auto joint = motion::joint_from(key);
    if (!joint) continue; // other programs' points do no harm
    const auto point = point_in(key, value);
    if (!point) return refuse(point.error());
    out.at(*joint) = *point;
  }
  if (const auto mistake = motion::mistake_in(out)) {
    if (!mistake->joint) return refuse(mistake->what);
    return refuse(words("points_m.{0}: {1}"), {std::string(motion::key_of(*mistake->joint)), mistake->what});
  }
  return out;
}

Expected<std::vector<double>> heights_in(const std::string& text) {
  std::vector<double> out;
  for (std::size_t start = 0; start <= text.size();) {
    const std::size_t comma = std::min(text.find(',', start), text.size());
    const auto value = parse_quantity(text.substr(start, comma - start), Kind::length, {}, {});
    if (!value) return refuse(words("{0}: {1}"), {"--heights", value.error()});
    if (!(std::abs(*value) <= 1))
      return refuse(words("--heights: {0} is out of reason; a wheel travels less than a metre."), {metres(*value, 1)});
    if (out.size() == most_heights)
      return refuse(words("--heights: up to {0} heights are right."), {std::to_string(most_heights)});
    out.push_back(*value);
    start = comma + 1;
  }
  return out;
}

/// A height that can't be had, with the joint that stops it.
tl::unexpected<Message> unreachable(const Geometry& geometry, double dh, const motion::OutOfReach& why) {
  return refuse(words("--heights: {0} can't be reached: at {1} {2} ({3}) stops it."),
                {metres(dh, 1), metres(why.reached, 1), motion::name_of(geometry.shape, why.joint),
                 std::string(motion::key_of(why.joint))});
}

Json length_of(const std::optional<motion::Strut>& strut) {
  return strut ? Json(strut->length) : Json(nullptr);
}
Json ratio_of(const std::optional<motion::Strut>& strut) {
  return strut ? Json(strut->ratio) : Json(nullptr);
}
Json angle_of(const std::optional<double>& angle) {
  return angle ? Json(*angle / degree) : Json(nullptr);
}
Json place_of(const motion::Point& p) {
  return Json::array({p.x, p.y, p.z});
}

Expected<Json> corner_poses(const Geometry& geometry, const std::vector<double>& heights) {
  const motion::CornerLinkage linkage(geometry);
  Json out = Json::array();
  for (const double dh : heights) {
    const auto pose = linkage.solve(dh);
    if (!pose) return unreachable(geometry, dh, pose.error());
    out.push_back({{"dh_m", dh},
                   {"camber_deg", pose->camber / degree},
                   {"toe_deg", pose->toe / degree},
                   {"caster_deg", angle_of(pose->caster)},
                   {"kingpin_deg", angle_of(pose->kingpin)},
                   {"wheel_shift_m", place_of(pose->wheel_shift)},
                   {"spring_length_m", length_of(pose->spring)},
                   {"damper_length_m", length_of(pose->damper)},
                   {"motion_ratio", ratio_of(pose->spring)}});
  }
  return out;
}

Expected<Json> axle_poses(const Geometry& geometry, const std::vector<double>& heights) {
  const motion::AxleLinkage linkage(geometry);
  Json out = Json::array();
  for (const double dh : heights) {
    const auto pose = linkage.solve(dh);
    if (!pose) return unreachable(geometry, dh, pose.error());
    out.push_back({{"dh_m", dh},
                   {"pinion_change_deg", pose->pinion / degree},
                   {"roll_deg", pose->roll / degree},
                   {"axle_shift_m", place_of(pose->shift)},
                   {"misfit_m", pose->misfit},
                   {"spring_length_left_m", length_of(pose->springs[0])},
                   {"spring_length_right_m", length_of(pose->springs[1])},
                   {"damper_length_left_m", length_of(pose->dampers[0])},
                   {"damper_length_right_m", length_of(pose->dampers[1])},
                   {"motion_ratio", ratio_of(pose->springs[0])}});
  }
  return out;
}

} // namespace

Expected<std::string> linkage(const std::string& path, const std::string& heights) {
  const auto text = read_text(path, 1024 * 1024);
  if (!text) return refuse(text.error());
  const auto named = [&](const Message& why) {
    return refuse(words("{0}: {1}"), {shown_path(std::filesystem::path(path).filename()), why});
  };
  const auto file = build::read_json_text(*text);
  if (!file) return named(file.error());
  const auto geometry = geometry_in(*file);
  if (!geometry) return named(geometry.error());
  const auto at = heights_in(heights);
  if (!at) return refuse(at.error());
  auto poses = geometry->shape == Shape::solid_axle ? axle_poses(*geometry, *at) : corner_poses(*geometry, *at);
  if (!poses) return refuse(poses.error());
  return Json{{"poses", std::move(*poses)}}.dump(1, ' ', false, Json::error_handler_t::replace);
}

} // namespace mavrel::cli
