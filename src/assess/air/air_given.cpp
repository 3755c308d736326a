#include "assess/air/air_given.h"

#include "motion/wheel.h"

#include <array>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

using build::at;

AirGiven air_given(const build::Build& build, const shelf::Shelf& shelf, const AnsweredEnds& ends) {
  const build::Variant& variant = build.variant();
  AirGiven out{variant.air,
               kit_parts(variant.air, shelf),
               variant.brief.air,
               build.surroundings,
               build.body.wheelbase,
               build.body.front_overhang,
               build.body.rear_overhang,
               {build.end(End::front).track, build.end(End::rear).track},
               {},
               ends,
               preset_names(build),
               {},
               {},
               case_names(build),
               false,
               variant.leveling.set_up().rules.sensors,
               variant.fit_up->routes};
  out.kit.extra.clear();
  switch (variant.leveling.set_up().rules.method) {
  case control::LevelMethod::bursts:
  case control::LevelMethod::until_reached:
    out.levels = !variant.air.sensor.empty();
    break;
  case control::LevelMethod::pressure:
    out.levels = true;
    break;
  case control::LevelMethod::by_hand:
    break;
  }
  for (const build::Preset& preset : variant.brief.presets)
    out.uses.push_back(preset.use), out.parked.push_back(preset.parked);
  for (const End end : build::both_ends) {
    const std::string& fitted = variant.fit[at(end)].wheel;
    if (const auto wheel = motion::parse_wheel(fitted.empty() ? build.end(end).wheel : fitted)) {
      // A ring whose section fills a share of its width times the sidewall's height.
      constexpr double filled = 0.8;
      const double outer = motion::wheel_space(*wheel).diameter, wall = (outer - wheel->rim_diameter) / 2;
      out.tyre_air[at(end)] = std::numbers::pi * (outer - wall) * wheel->tyre_width * wall * filled;
    }
  }
  return out;
}

std::vector<std::vector<std::size_t>> circuits_of(const build::AirKit& kit) {
  if (kit.circuits == build::Circuits::per_axle) return {{0, 1}, {2, 3}};
  return {{0}, {1}, {2}, {3}};
}

std::vector<std::vector<std::size_t>> circuits_of(const AirGiven& given) {
  auto out = circuits_of(given.kit);
  std::erase_if(out,
                [&](const auto& corners) { return on_springs(given, corners.front() < 2 ? End::front : End::rear); });
  return out;
}

bool on_springs(const AirGiven& given, End end) {
  const auto has_bag = [&](End of) { return !given.ends[at(of)].given().fit.bag.empty(); };
  return !has_bag(end) && has_bag(end == End::front ? End::rear : End::front);
}

std::size_t heaviest_case(const AirGiven& given) {
  std::size_t out = 0;
  double most = 0;
  for (std::size_t i = 0; i < given.cases.size(); ++i) {
    double mass = 0;
    for (const End end : build::both_ends) {
      const auto& loads = given.ends[at(end)]->fitted.model.loads;
      if (i < loads.size() && loads[i]) mass += loads[i]->axle_mass;
    }
    if (mass > most) most = mass, out = i;
  }
  return out;
}

std::string case_name(const AirGiven& given, std::size_t load_case) {
  return load_case < given.cases.size() ? given.cases[load_case] : std::string();
}

const char* corner_name(std::size_t corner) {
  constexpr const char* names[] = {words("Front left"), words("Front right"), words("Rear left"), words("Rear right")};
  return names[corner];
}
const char* circuit_name(const std::vector<std::size_t>& corners) {
  if (corners.size() == 1) return corner_name(corners.front());
  return corners.front() < 2 ? words("Front") : words("Rear");
}

double volts_at_compressor(const build::AirKit& kit) {
  return kit.volts * (1 - kit.drop_allowed);
}

bool for_another_voltage(const shelf::Part& compressor, const build::AirKit& kit) {
  return std::abs(*compressor.voltage / kit.volts - 1) > 0.25;
}

std::optional<double> sound_of(const KitParts& parts) {
  double power = 0;
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (const shelf::Part* part = parts[role]; part && part->sound) power += std::pow(10, *part->sound / 10);
  return power > 0 ? std::optional(10 * std::log10(power)) : std::nullopt;
}

double warmer_in(build::PartRoom room) {
  switch (room) {
  case build::PartRoom::engine_bay:
    return 35;
  case build::PartRoom::boot:
  case build::PartRoom::spare_well:
    return 5;
  case build::PartRoom::under_floor:
  case build::PartRoom::cabin:
    break;
  }
  return 0;
}

double tank_volume(const KitParts& parts) {
  double out = 0;
  for (const KitRole role : {KitRole::tank, KitRole::second_tank})
    if (const shelf::Part* part = parts[role]) out += *part->volume;
  return out;
}

double way_between(const build::PartPlace& a, const build::PartPlace& b, double slack) {
  return (std::abs(a.x - b.x) + std::abs(a.y - b.y) + std::abs(a.z - b.z)) * (1 + slack);
}

namespace {

constexpr double usual_wheelbase = 2.7, usual_track = 1.5, port_height = 0.45, port_inboard = 0.2; // m

void add_line(std::vector<AirStep>& out, KitRole fitting_role, const shelf::Part* fitting, KitRole line_role,
              const shelf::Part& line, double length, double elbows) {
  if (fitting) out.push_back({fitting_role, fitting->name, fitting->through(), 0, 2 + elbows});
  out.push_back({line_role, line.name, air::tube(*line.bore, length), length, 1});
}

} // namespace

const char* corner_line_key(std::size_t corner) {
  constexpr std::array<const char*, 4> keys{"front_left", "front_right", "rear_left", "rear_right"};
  return keys[corner];
}

build::PartPlace port_of(const AirGiven& given, std::size_t corner) {
  const std::size_t end = corner / 2;
  const double side = corner % 2 == 0 ? 1 : -1;
  build::PartPlace out;
  const double axle = end == 0 ? 0 : given.wheelbase.value_or(usual_wheelbase);
  out.x = axle;
  out.y = side * (given.track[end].value_or(usual_track) / 2 - port_inboard);
  out.z = port_height;
  const EndMotion& motion = *given.ends[end].given().motion();
  if (!motion.joints) return out;
  if (const auto seat = motion.joints->side[0].at(motion::Joint::spring_body)) {
    out.x = axle - seat->x; // joints count forwards from their axle, places in the car rearwards from the front one
    out.y = side * seat->y;
    out.z = seat->z;
  }
  return out;
}

double corner_line_length(const AirGiven& given, std::size_t corner) {
  const build::PartPlace port = port_of(given, corner);
  if (const build::Route* route = route_of(given.routes, corner_line_key(corner)))
    return routed_length(way_of(*route, given.kit.valves_at, port), *route, given.kit.line_slack);
  return way_between(given.kit.valves_at, port, given.kit.line_slack);
}
double feed_line_length(const AirGiven& given) {
  if (const build::Route* route = route_of(given.routes, "feed"))
    return std::fmax(
        0.1, routed_length(way_of(*route, given.kit.tank_at, given.kit.valves_at), *route, given.kit.line_slack));
  return std::fmax(0.1, way_between(given.kit.tank_at, given.kit.valves_at, given.kit.line_slack));
}

double amount_of(const AirGiven& given, KitRole role) {
  const auto lines_of = [&](std::size_t left, auto each) {
    if (on_springs(given, left == 0 ? End::front : End::rear)) return 0.0;
    return each(left) + each(left + 1);
  };
  const double ends = 2 + given.kit.elbows; // fittings of one line
  const auto length = [&](std::size_t corner) { return corner_line_length(given, corner); };
  const auto fittings = [&](std::size_t) { return ends; };
  switch (role) {
  case KitRole::feed_line:
    return feed_line_length(given);
  case KitRole::front_line:
    return lines_of(0, length);
  case KitRole::rear_line:
    return lines_of(2, length);
  case KitRole::feed_fitting:
    return 2;
  case KitRole::front_fitting:
    return lines_of(0, fittings);
  case KitRole::rear_fitting:
    return lines_of(2, fittings);
  default:
    return pieces_of(given.kit, role, given.sensors);
  }
}

std::optional<std::vector<AirStep>> way_to_bag(const AirGiven& given, std::size_t corner) {
  const KitParts& parts = given.parts;
  const bool front = corner < 2;
  const KitRole line = front ? KitRole::front_line : KitRole::rear_line,
                fitting = front ? KitRole::front_fitting : KitRole::rear_fitting;
  if (!parts[KitRole::feed_line] || !parts[KitRole::valves] || !parts[line]) return std::nullopt;
  std::vector<AirStep> out;
  add_line(out, KitRole::feed_fitting, parts[KitRole::feed_fitting], KitRole::feed_line, *parts[KitRole::feed_line],
           feed_line_length(given), 0);
  out.push_back({KitRole::valves, parts[KitRole::valves]->name, parts[KitRole::valves]->through(), 0, 1});
  add_line(out, fitting, parts[fitting], line, *parts[line], corner_line_length(given, corner), given.kit.elbows);
  return out;
}

std::optional<std::vector<AirStep>> way_out_of_bag(const AirGiven& given, std::size_t corner) {
  const KitParts& parts = given.parts;
  const bool front = corner < 2;
  const KitRole line = front ? KitRole::front_line : KitRole::rear_line,
                fitting = front ? KitRole::front_fitting : KitRole::rear_fitting;
  const shelf::Part* valves = parts[KitRole::valves];
  if (!valves || !parts[line]) return std::nullopt;
  std::vector<AirStep> out;
  add_line(out, fitting, parts[fitting], line, *parts[line], corner_line_length(given, corner), given.kit.elbows);
  const air::Restriction vent{valves->vent_conductance.value_or(*valves->conductance),
                              valves->vent_ratio.value_or(valves->ratio.value_or(0.3))};
  out.push_back({KitRole::valves, valves->name, vent, 0, 1});
  if (const shelf::Part* silencer = parts[KitRole::silencer])
    out.push_back({KitRole::silencer, silencer->name, silencer->through(), 0, 1});
  return out;
}

air::Restriction whole_way(const std::vector<AirStep>& way) {
  std::vector<air::Restriction> row;
  for (const AirStep& step : way)
    for (int i = 0; step.through && i < static_cast<int>(std::lround(step.count)); ++i)
      row.push_back(*step.through);
  return air::in_series(row);
}

} // namespace mavrel::assess
