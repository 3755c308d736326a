// mavrel-cli road, level and sensor: roads, a car that keeps its height on one, and its sensors.
#include "assess/leveling/leveling_given.h"
#include "assess/opened.h"
#include "build/names.h"
#include "cli/commands.h"
#include "cli/reader.h"
#include "cli/typed.h"
#include "control/sensor.h"
#include "report/leveling_json.h"

#include <algorithm>
#include <numbers>
#include <regex>

namespace mavrel::cli {

namespace {

constexpr double most_rows = 2e6, widest_step = 0.25; // m: 4 points to the shortest wave that must be there

Expected<control::RoadClass> road_class(const std::string& name) {
  for (const auto& row : build::names_of(control::RoadClass{}))
    if (name == row.key) return row.value;
  return refuse(words("--road: “{0}” is no class of road; A to H are."), {name});
}

control::PlanePoint plane_point(Reader& r, const Json& in, const char* key) {
  const Json value = value_of(in, key);
  if (value.is_array() && value.size() == 2 && value[0].is_number() && value[1].is_number() &&
      std::abs(value[0].get<double>()) <= farthest && std::abs(value[1].get<double>()) <= farthest)
    return {value[0].get<double>(), value[1].get<double>()};
  r.wrong(words("{0}: two numbers in metres are right, none beyond {1} m."),
          {std::string(key), fmt::format("{:g}", farthest)});
  return {};
}

/// `150kg at 2600mm after 300s`
Expected<build::DriveEvent> event_of(const std::string& text) {
  static const std::regex form(R"(\s*(.+?)\s+at\s+(.+?)\s+after\s+(.+?)\s*)");
  std::smatch found;
  if (text.size() > 200 || !std::regex_match(text, found, form))
    return refuse(words("--add: “{0}” is there; “150kg at 2600mm after 300s” is right."), {text.substr(0, 80)});
  const auto mass = within("--add", found[1], Kind::mass, -1500, 1500);
  const auto place = within("--add", found[2], Kind::length, -3, 9);
  const auto after = within("--add", found[3], Kind::time, 0, 36000);
  for (const auto* value : {&mass, &place, &after})
    if (!*value) return refuse(value->error());
  build::DriveEvent out;
  out.mass = *mass, out.x = *place, out.at = *after;
  return out;
}

} // namespace

Expected<std::string> road(const RoadRequest& request) {
  const auto kind = road_class(request.road);
  if (!kind) return refuse(kind.error());
  // A road is told in metres or in kilometres.
  const bool far = parse_quantity(request.length, Kind::distance, {}, {}).has_value();
  const auto length = within("--length", request.length, far ? Kind::distance : Kind::length, 1, 1e5);
  const auto step = within("--step", request.step, Kind::length, 0.001, widest_step);
  for (const auto* value : {&length, &step})
    if (!*value) return refuse(value->error());
  if (*length / *step > most_rows)
    return refuse(words("{0} in steps of {1} are more than {2} rows: a shorter road or wider steps are right."),
                  {Amount{*length, Kind::altitude, 0, {}}, metres(*step), fmt::format("{:.0f}", most_rows)});
  const auto made = control::Road::rough(*kind, *length, request.seed);
  std::string out = "x_m,left_m,right_m\n";
  const auto steps = static_cast<std::size_t>(std::floor(*length / *step * (1 + 1e-12)));
  for (std::size_t i = 0; i <= steps; ++i) {
    const double x = static_cast<double>(i) * *step;
    const auto z = made.at(x);
    out += fmt::format("{:.6g},{:.9g},{:.9g}\n", x, z[0], z[1]);
  }
  out.pop_back(); // the printing ends the last row
  return out;
}

Expected<std::string> sensor(const std::string& path) {
  return answer_file(path, [](const Json& file) -> Expected<Json> {
    if (!file.is_object())
      return refuse(
          words("A sensor is an object with pivot_m, pickup_m, lever_m, rod_m, pickup_ratio, side and dh_m."));
    Reader r;
    control::SensorLinkage s;
    s.pivot = plane_point(r, file, "pivot_m");
    s.pickup = plane_point(r, file, "pickup_m");
    s.lever = r.number(file, "", "lever_m", 0.001, 2);
    s.rod = r.number(file, "", "rod_m", 0.001, 2);
    s.pickup_ratio = r.number(file, "", "pickup_ratio", -5, 5);
    const std::string side = r.text(file, "", "side");
    if (side != "above" && side != "below")
      r.wrong(words("{0}: “{1}” is there; “above” or “below” is right."), {std::string("side"), side});
    s.crossing = side == "below" ? control::Crossing::below : control::Crossing::above;
    std::vector<double> asked;
    for (const Json& dh : r.list(file, "dh_m", 10000)) {
      if (dh.is_number() && std::abs(dh.get<double>()) <= 1)
        asked.push_back(dh.get<double>());
      else
        r.wrong(words("{0}: {1} is there; a number from {2} to {3} is right."),
                {std::string("dh_m"), build::kind_of(dh), std::string("-1"), std::string("1")});
    }
    if (r.mistake()) return refuse(*r.mistake());
    Json at = Json::array();
    bool flips = false;
    for (const double dh : asked) {
      const auto pose = control::sensor_pose(s, dh);
      if (!pose) return refuse(pose.error());
      flips = flips || pose->from_in_line < control::may_flip;
      at.push_back({{"dh_m", dh},
                    {"angle_deg", pose->angle / degree},
                    {"deg_per_mm", pose->slope / degree * 1e-3},
                    {"from_in_line_deg", pose->from_in_line / degree}});
    }
    return Json{{"at", at}, {"flips", flips}};
  });
}

Expected<std::string> level(const LevelRequest& request) {
  const auto kind = road_class(request.road);
  if (!kind) return refuse(kind.error());
  const auto speed = within("--speed", request.speed, Kind::road_speed, 0, 70);
  const auto minutes = within("--minutes", request.minutes, Kind::minutes, 12, 43200);
  const auto average = within("--average", request.average, Kind::time, 0.02, 60);
  const auto band = within("--band", request.band, Kind::length, 0.0005, 0.1);
  const auto wait = within("--wait", request.wait, Kind::time, 0, 120);
  for (const auto* value : {&speed, &minutes, &average, &band, &wait})
    if (!*value) return refuse(value->error());
  auto opened = assess::open_build(request.build, request.shelf);
  if (!opened) return refuse(opened.error());
  build::Drive& drive = opened->build.drive;
  drive.road = *kind, drive.speed = *speed, drive.duration = *minutes;
  drive.profile = control::SpeedProfile::steady;
  drive.seed = static_cast<double>(request.seed);
  drive.events.clear();
  if (!request.add.empty()) {
    const auto event = event_of(request.add);
    if (!event) return refuse(event.error());
    drive.events.push_back(*event);
  }
  if (!request.warm.empty()) {
    const auto warm = within("--warm", request.warm, Kind::temperature_step, -60, 60);
    if (!warm) return refuse(warm.error());
    build::DriveEvent hour;
    hour.kind = build::DriveEventKind::air_temperature;
    hour.at = 0, hour.over = *minutes, hour.warmer = *warm;
    drive.events.push_back(hour);
  }
  const auto given = assess::leveling_given(opened->build, opened->air, 0);
  control::Rules rules = given.leveling.set_up().rules;
  rules.method = control::LevelMethod::bursts;
  for (const auto& row : build::names_of(control::LevelMethod{}))
    if (std::string key = row.key; std::replace(key.begin(), key.end(), ' ', '-'), key == request.method)
      rules.method = row.value;
  rules.average = *average, rules.band = *band, rules.wait = *wait;
  rules.pressure_band = 1e4;
  rules.gain.reset(), rules.pressure_gain.reset();
  if (!request.gain.empty()) {
    const auto gain = within("--gain", request.gain, Kind::burst_gain, 0.01, 1000);
    if (!gain) return refuse(gain.error());
    rules.gain = *gain;
  }
  const auto car = assess::learned_car(given);
  if (!car) return refuse(car.error());
  const auto driven = control::drive(assess::drive_given(given, *car, rules, assess::road_of(given)), {}, false);
  return report::drive_json(*driven, !request.add.empty());
}

} // namespace mavrel::cli
