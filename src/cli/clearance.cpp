// mavrel-cli gap and ground: clearances of files that carry all they need.
#include "cli/commands.h"
#include "cli/reader.h"
#include "file/text_file.h"
#include "motion/wheel.h"
#include "quantity/quantity.h"
#include "quantity/text.h"
#include "space/ground.h"

#include <fmt/format.h>

#include <cmath>
#include <numbers>

namespace mavrel::cli {

namespace {

constexpr std::size_t most_solids = 1000, most_points = 5000;

// ---- gap

space::Solid solid_in(Reader& read, const Json& in, const std::string& where) {
  if (in.contains("plane")) {
    const Json& plane = read.object(in, where, "plane");
    const std::string at = Reader::path(where, "plane");
    space::Plane out{read.point(plane, at, "point_m"), read.point(plane, at, "normal")};
    if (!(space::length(out.normal) > 1e-9))
      read.wrong(words("{0}: a direction with some length is right, towards free space."),
                 {Reader::path(at, "normal")});
    return out;
  }
  if (in.contains("box")) {
    const Json& box = read.object(in, where, "box");
    const std::string at = Reader::path(where, "box");
    space::Box out{read.point(box, at, "centre_m"), read.point(box, at, "half_m"),
                   read.number(box, at, "turn_deg", -360, 360, 0.0) * degree};
    if (!(out.half.x >= 0 && out.half.y >= 0 && out.half.z >= 0))
      read.wrong(words("{0}: halves of its sides are right, none below 0."), {Reader::path(at, "half_m")});
    return out;
  }
  if (in.contains("rod")) {
    const Json& rod = read.object(in, where, "rod");
    const std::string at = Reader::path(where, "rod");
    return space::Rod{read.point(rod, at, "from_m"), read.point(rod, at, "to_m"),
                      read.number(rod, at, "radius_m", 0, 1)};
  }
  if (in.contains("edge")) {
    const Json& edge = read.object(in, where, "edge");
    const std::string at = Reader::path(where, "edge");
    return space::Rod{read.point(edge, at, "from_m"), read.point(edge, at, "to_m"), 0};
  }
  read.wrong(words("{0}: a plane, a box, a rod or an edge is right."), {where});
  return {};
}

Expected<Json> gaps_of(const Json& file) {
  Reader read;
  if (!file.is_object())
    return refuse(words("A wheel with what is near it is an object with wheel, centre_m and solids."));
  const std::string code = read.text(file, "", "wheel");
  std::optional<double> measured;
  if (file.contains("measured_width_m")) measured = read.number(file, "", "measured_width_m", 0.1, 0.6);
  const double grow = read.number(file, "", "grow_m", 0, 0.05, 0.0);
  const space::Point centre = read.point(file, "", "centre_m");
  const double camber = read.number(file, "", "camber_deg", -45, 45, 0.0) * degree,
               toe = read.number(file, "", "toe_deg", -45, 45, 0.0) * degree,
               steer = read.number(file, "", "steer_deg", -80, 80, 0.0) * degree;
  if (read.mistake()) return refuse(*read.mistake());
  const auto wheel = motion::parse_wheel(code);
  if (!wheel) return refuse(words("{0}: {1}"), {"wheel", wheel.error()});
  const space::WheelSolid solid = motion::wheel_solid(*wheel, measured, grow);
  const space::WheelPlace place = space::wheel_place(centre, camber, toe, steer);
  Json out = {{"gaps", Json::array()}};
  std::size_t number = 0;
  for (const Json& row : read.list(file, "solids", most_solids)) {
    const std::string where = fmt::format("solids.{}", number++);
    if (!row.is_object())
      return refuse(words("{0}: {1} is there; {2} is right."), {where, build::kind_of(row), words("an object")});
    const std::string name = read.text(row, where, "name");
    const space::Solid near = solid_in(read, row, where);
    if (read.mistake()) break;
    const space::Gap gap = space::gap_between(solid, place, near);
    out["gaps"].push_back({{"name", name}, {"gap_m", gap.apart}, {"overlap", gap.overlap}});
  }
  if (read.mistake()) return refuse(*read.mistake());
  return out;
}

// ---- ground

constexpr double longest = 500; // m of profile

Expected<Json> drive_of(const Json& file) {
  Reader read;
  if (!file.is_object())
    return refuse(words("A drive is an object with wheelbase_m, front, rear, underside and profile."));
  space::Underside car;
  car.wheelbase = read.number(file, "", "wheelbase_m", 0.5, 10);
  const auto end = [&](const char* key, double& radius, double& dh) {
    const Json& at = read.object(file, "", key);
    radius = read.number(at, key, "radius_m", 0.05, 1.5);
    dh = read.number(at, key, "height_m", 0, 2) - read.number(at, key, "surveyed_height_m", 0, 2);
  };
  end("front", car.front_radius, car.front_dh);
  end("rear", car.rear_radius, car.rear_dh);
  std::vector<std::string> names;
  for (const Json& row : read.list(file, "underside", most_points)) {
    const std::string where = fmt::format("underside.{}", names.size());
    if (!row.is_object())
      return refuse(words("{0}: {1} is there; {2} is right."), {where, build::kind_of(row), words("an object")});
    names.push_back(read.text(row, where, "name"));
    car.points.push_back({read.number(row, where, "x_m", -10, 20), read.number(row, where, "z_m", -2, 5)});
    if (car.points.size() > 1 && car.points.back().x < car.points[car.points.size() - 2].x)
      return refuse(words("{0}: points go from front to rear; this one lies before the last."), {where});
  }
  space::Profile profile;
  const Json& ground = read.list(file, "profile", most_points);
  for (std::size_t i = 0; i < ground.size() && !read.mistake(); ++i) {
    const Json& p = ground[i];
    if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number() ||
        !(std::abs(p[0].get<double>()) <= longest) || !(std::abs(p[1].get<double>()) <= longest))
      return refuse(words("{0}: two numbers in metres are right, none beyond {1} m."),
                    {fmt::format("profile.{}", i), fmt::format("{:g}", longest)});
    profile.push_back({p[0].get<double>(), p[1].get<double>()});
    if (i > 0 && !(profile[i].x > profile[i - 1].x))
      return refuse(words("{0}: x rises along a profile; this one does not lie past the last."),
                    {fmt::format("profile.{}", i)});
  }
  if (!read.mistake() && car.points.empty())
    read.wrong(words("{0}: at least one point is right."), {std::string("underside")});
  if (read.mistake()) return refuse(*read.mistake());
  const auto least = space::least_gap(car, profile);
  if (!least)
    return refuse(
        words("profile: it is too steep for a car of this wheelbase; somewhere both wheels can't stand on it."));
  const space::GroundAngles angles = space::ground_angles(car);
  const auto shown = [](const std::optional<double>& angle) { return angle ? Json(*angle / degree) : Json(nullptr); };
  return Json{{"least_gap_m", least->gap},
              {"front_axle_at_m", least->front_at},
              {"point", names[least->point]},
              {"approach_deg", shown(angles.approach)},
              {"departure_deg", shown(angles.departure)},
              {"breakover_deg", shown(angles.breakover)}};
}

} // namespace

Expected<std::string> gap(const std::string& path) {
  return answer_file(path, gaps_of);
}
Expected<std::string> ground(const std::string& path) {
  return answer_file(path, drive_of);
}

} // namespace mavrel::cli
