#include "assess/air/car_air.h"

#include "build/names.h"
#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

constexpr double bag_wall = 1.5;      // W/K of one bag's rubber in moving air
constexpr double block_volume = 2e-5; // m³ inside a block or a row of valves
constexpr double tee_volume = 4e-6;   // m³
constexpr double usual_relief = 5e-8; // m³/(s·Pa) of a relief valve whose card says nothing
constexpr double usual_outlet = 350;  // K of air from a compressor whose card says nothing
constexpr int travel_points = 33;

/// W/K of a tank's wall where its card says nothing: 8 W/(m²·K) over the skin of a cylinder of its volume.
double tank_wall(const shelf::Part& tank) {
  return tank.wall.value_or(8 * 6.4 * std::pow(*tank.volume, 2.0 / 3));
}

double line_volume(const shelf::Part& line, double length) {
  return std::numbers::pi / 4 * *line.bore * *line.bore * length;
}

/// An end that no air moves: a spring at each corner, under which the other end's bag only keeps a place in the
/// network.
Expected<air::Leg> leg_on_springs(const AirGiven& given, End end, const EndLoad& load, double H) {
  constexpr double travels = 0.15; // m either way: further than any lift of the other end tips it
  const FittedEnd& other = given.ends[build::at(end == End::front ? End::rear : End::front)]->fitted;
  if (!other.bag) return refuse(words("{0}: no bag is chosen."), {build::name_of(end)});
  const double weight = load.sprung_mass * standard_gravity;
  const double rate = load.sprung_mass * std::pow(2 * std::numbers::pi * usual_own_springs, 2);
  air::Leg leg;
  leg.lowest = H - travels, leg.highest = H + travels, leg.height = H;
  leg.curve = other.bag->curve;
  const double bag = (leg.curve.lowest() + leg.curve.highest()) / 2;
  std::vector<double> heights, held;
  for (const double h : {H - travels, H - travels / 2, H, H + travels / 2, H + travels})
    heights.push_back(h), held.push_back(weight + rate * (H - h));
  const std::vector<double> still(heights.size(), bag), nothing(heights.size(), 0);
  leg.travel = curve::PchipTable(std::move(heights), {still, std::move(held), nothing});
  return leg;
}

Expected<air::Leg> leg_at(const AirGiven& given, End end, const CarStands& stands, double& pressure_left,
                          double& pressure_right, std::array<double, 2>& loads) {
  const FittedEnd& fitted = given.ends[build::at(end)]->fitted;
  if (!fitted.model.surveyed_height) return refuse(words("{0}: its height was not taken."), {build::name_of(end)});
  const auto& load =
      fitted.model.loads.size() > stands.load_case ? fitted.model.loads[stands.load_case] : fitted.model.loads.front();
  if (!load) return refuse(words("{0}: its weights were not taken."), {build::name_of(end)});
  if (on_springs(given, end)) {
    pressure_left = pressure_right = 0;
    const double half = 0.5 * (load->side_mass[0] - load->side_mass[1]) * fitted.model.side_lever;
    loads = {(load->sprung_mass + half) * standard_gravity, (load->sprung_mass - half) * standard_gravity};
    return leg_on_springs(given, end, *load, stands.heights[build::at(end)]);
  }
  if (!fitted.model.map) return refuse(words("{0}: its height was not taken."), {build::name_of(end)});
  if (!fitted.bag) return refuse(words("{0}: no bag is chosen."), {build::name_of(end)});
  const BagOnEnd on = fitted.on();
  const auto travel = standing_travel(fitted);
  if (!travel) return refuse(words("{0}: bag, damper and stop leave no travel."), {build::name_of(end)});
  const auto [low, high] = *travel;
  // Below it what a bump stop gives when it is hit.
  const auto hit = free_travel(on, Meeting::hit);
  const double deepest = std::fmax(hit ? hit->low : low, on.heights().first);
  const double wanted = stands.heights[build::at(end)], H = std::clamp(wanted, low, high);
  if (!stands.aired_out && !stands.onto_stops && std::abs(wanted - H) > preset_on_stop)
    return refuse(outside_travel(end, wanted, {low, high}));
  air::Leg leg;
  leg.lowest = low, leg.highest = high;
  leg.height = stands.aired_out ? low : H;
  leg.curve = fitted.bag->curve;
  std::vector<double> heights, bag, other, ratio;
  for (int i = 0; i < travel_points; ++i) {
    const double h = deepest + (high - deepest) * i / (travel_points - 1);
    const motion::MapPoint map = fitted.model.map->at(h);
    heights.push_back(h);
    bag.push_back(map.spring_length - fitted.stack);
    other.push_back(-fitted.model.spring_force(0, h, map) * map.motion_ratio);
    ratio.push_back(map.motion_ratio);
  }
  leg.travel = curve::PchipTable(std::move(heights), {std::move(bag), std::move(other), std::move(ratio)});
  const auto place = on.place(leg.height);
  if (!place) return refuse(words("{0}: the bag's card has no answer at {1}."), {build::name_of(end), metres(H)});
  const auto pressures = on.side_pressures(*place, *load);
  pressure_left = pressures[0], pressure_right = pressures[1];
  if (stands.aired_out) pressure_left = pressure_right = 0;
  const auto masses = fitted.model.bag_masses(*load);
  for (std::size_t side = 0; side < 2; ++side)
    loads[side] = masses[side] * standard_gravity;
  return leg;
}

/// What is delivered over the tank's pressure.
std::vector<std::pair<double, double>> delivered_curve(const AirGiven& given, const shelf::Part& pump) {
  const double volts = volts_at_compressor(given.kit);
  std::vector<std::pair<double, double>> out;
  for (const shelf::CompressorPoint& p : pump.curve)
    out.emplace_back(p.pressure, shelf::air_of(pump, pressure_at_pump(given, pump, p.pressure), volts));
  return out;
}

/// What keeps the tank from bursting.
void add_relief(const AirGiven& given, air::Network& net, std::size_t tank) {
  const shelf::Part* relief = given.parts[KitRole::relief];
  if (!relief) return;
  air::Line line{"relief", tank, air::outside, relief->through().value_or(air::Restriction{usual_relief, 0.3}),
                 true,     true};
  line.opens_at = *relief->opens_at;
  net.lines.push_back(std::move(line));
}

/// s from cold that a compressor runs where it is so warm: its card's figure is taken to be for 20 °C, and what it may
/// warm by ends where there it would stand at 120 °C.
double longest_run_at(const shelf::Part& pump, double temperature) {
  constexpr double card_at = 293.15, hottest = 393.15, least = 0.05;
  const double room = std::max(least, (hottest - temperature) / (hottest - card_at));
  const double warms = (1 - std::exp(-*pump.longest_run / *pump.cools_in)) * room;
  // Where it never gets as warm as that it runs as long as anybody waits.
  return warms < 1 - 1e-6 ? -*pump.cools_in * std::log1p(-warms) : 1e6;
}

void add_compressors(const AirGiven& given, air::Network& net, std::size_t tank, bool running) {
  const auto cut = cut_pressures(given.parts);
  if (!cut) return;
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor}) {
    const shelf::Part* part = given.parts[role];
    if (!part) continue;
    air::Compressor c;
    c.name = part->name;
    c.to = tank;
    c.curve = delivered_curve(given, *part);
    c.outlet = part->outlet.value_or(usual_outlet);
    c.cut_in = cut->first, c.cut_out = cut->second;
    c.running = running;
    if (part->longest_run)
      c.duty = air::Compressor::Duty{
          longest_run_at(*part, net.ambient_temperature + warmer_in(given.kit.compressor_at.room)), *part->cools_in,
          0.35};
    net.compressors.push_back(std::move(c));
  }
}

std::optional<Message> missing_part(const AirGiven& given, std::initializer_list<KitRole> roles) {
  for (const KitRole role : roles) {
    if (given.parts[role]) continue;
    const KitRoleRow& row = row_of(role);
    if (const std::string& name = given.kit.*row.name; !name.empty())
      return Message{words("The kit's {0}, {1}, is not on the shelf."), {row.label, name}};
    return Message{words("The kit has no {0}."), {row.label}};
  }
  return std::nullopt;
}

void surroundings(const AirGiven& given, air::Network& net) {
  const air::Ambient ambient{given.surroundings.altitude, given.surroundings.temperature};
  net.ambient_pressure = ambient.pressure();
  net.ambient_temperature = ambient.temperature;
}

air::Volume tank_of(const AirGiven& given, double pressure) {
  air::Volume tank{"tank", tank_volume(given.parts), pressure, given.surroundings.temperature, 0};
  for (const KitRole role : {KitRole::tank, KitRole::second_tank})
    if (const shelf::Part* part = given.parts[role]) tank.wall += tank_wall(*part);
  return tank;
}

} // namespace

double pressure_at_pump(const AirGiven& given, const shelf::Part& pump, double tank) {
  std::vector<air::Restriction> row;
  for (const KitRole role : {KitRole::check_valve, KitRole::trap, KitRole::dryer})
    if (const shelf::Part* part = given.parts[role]; part && part->through()) row.push_back(*part->through());
  if (row.empty()) return tank;
  const air::Restriction way = air::in_series(row);
  const double T = given.surroundings.temperature, ambient = air::Ambient{given.surroundings.altitude, T}.pressure();
  const double volts = volts_at_compressor(given.kit), density = air::air_density(ambient, T);
  // The pump's own pressure is the one at which what it gives passes the row; past its card it gives what it gave
  // there.
  const double most = tank + 40e5;
  const auto passes = [&](double at_pump) {
    return air::mass_flow(way, at_pump + ambient, tank + ambient, T) - density * shelf::air_of(pump, at_pump, volts);
  };
  if (!(shelf::air_of(pump, tank, volts) > 0) || passes(tank) >= 0) return tank;
  return curve::crossing(passes, tank, most).value_or(most);
}

std::optional<std::pair<double, double>> standing_travel(const FittedEnd& end) {
  return standing_travel(end.on());
}

Message outside_travel(End end, double H, const std::pair<double, double>& travel) {
  return {words("{0}: {1} lies outside what the end can do, {2} to {3}."),
          {build::name_of(end), told_from(metres(H), H < travel.first ? travel.first : travel.second),
           told_from(metres(travel.first), H), told_from(metres(travel.second), H)}};
}

std::optional<double> full_tank(const AirGiven& given) {
  return full_tank(given.kit, given.parts);
}

Expected<air::Network> tank_alone(const AirGiven& given, double pressure, bool running) {
  const bool by_shop = by_shop_air_alone(given.kit);
  if (auto missing = by_shop ? missing_part(given, {KitRole::tank})
                             : missing_part(given, {KitRole::compressor, KitRole::tank, KitRole::pressure_switch}))
    return refuse(*missing);
  air::Network net;
  surroundings(given, net);
  net.volumes.push_back(tank_of(given, pressure));
  add_compressors(given, net, 0, running);
  add_relief(given, net, 0);
  return net;
}

Expected<CarAir> car_air(const AirGiven& given, const CarStands& stands) {
  if (auto missing = missing_part(given, {KitRole::tank, KitRole::feed_line, KitRole::valves})) return refuse(*missing);
  for (const auto& [end, line] : {std::pair{End::front, KitRole::front_line}, std::pair{End::rear, KitRole::rear_line}})
    if (!on_springs(given, end))
      if (auto missing = missing_part(given, {line})) return refuse(*missing);
  CarAir out;
  air::Network& net = out.network;
  surroundings(given, net);
  const double T = given.surroundings.temperature;
  out.tank = 0;
  net.volumes.push_back(tank_of(given, stands.tank_pressure));
  const shelf::Part& feed = *given.parts[KitRole::feed_line];
  const double feed_length = feed_line_length(given);
  net.volumes.push_back({"valves", block_volume + line_volume(feed, feed_length), stands.tank_pressure, T, 0.3});
  air::Body body;
  for (const End end : build::both_ends) {
    std::array<double, 2> pressures{}, loads{};
    auto leg = leg_at(given, end, stands, pressures[0], pressures[1], loads);
    if (!leg) return refuse(leg.error());
    const FittedEnd& fitted = given.ends[build::at(end)]->fitted;
    const double base = fitted.model.base.value_or(given.track[build::at(end)].value_or(1.5));
    for (std::size_t side = 0; side < 2; ++side) {
      const std::size_t corner = 2 * build::at(end) + side;
      if (!(loads[side] > 0))
        return refuse(words("{0}: nothing stands on this corner in this load case."), {corner_name(corner)});
      air::Leg here = *leg;
      here.volume = out.bags[corner] = net.volumes.size();
      here.forward = end == End::front ? 0 : -given.wheelbase.value_or(2.7);
      here.left = (side == 0 ? 0.5 : -0.5) * base;
      out.travel[corner] = {here.lowest, here.highest};
      net.volumes.push_back({corner_name(corner), 0, pressures[side], T, bag_wall});
      body.legs.push_back(std::move(here));
      body.loads.push_back(loads[side]);
    }
  }
  net.bodies.push_back(std::move(body));
  // What stands beside a bag, behind its own line.
  for (std::size_t corner = 0; corner < 4; ++corner) {
    const EndModel& model = given.ends[corner / 2]->fitted.model;
    if (!(model.setting.added_volume > 0) || on_springs(given, corner < 2 ? End::front : End::rear)) continue;
    const std::size_t beside = net.volumes.size();
    net.volumes.push_back({std::string(corner_name(corner)) + "+", model.setting.added_volume,
                           net.volumes[out.bags[corner]].gauge_pressure, T, 1.0});
    net.lines.push_back({"", beside, out.bags[corner], model.line, false, true});
  }
  // What a corner's way was timed to let through, over what its parts come to.
  const auto learned = [&](std::size_t corner, air::Restriction way) {
    way.conductance *= given.kit.learned_flow[corner].value_or(1);
    return way;
  };
  const shelf::Part* silencer = given.parts[KitRole::silencer];
  const shelf::Part& valves = *given.parts[KitRole::valves];
  // A block lets all its ways out by the exhausts it has; hand valves each have their own.
  const auto circuits = circuits_of(given);
  const double exhausts = given.kit.school == build::ValveSchool::hand_valves ? static_cast<double>(circuits.size())
                                                                              : valves.exhausts.value_or(1);
  const bool shared = silencer && exhausts < static_cast<double>(circuits.size());
  std::size_t let_out_to = air::outside;
  if (shared) {
    let_out_to = net.volumes.size();
    net.volumes.push_back({"exhaust", block_volume, 0, T, 0.3});
    air::Restriction out_of = *silencer->through();
    out_of.conductance *= exhausts; // a silencer on each
    net.lines.push_back({"exhaust", let_out_to, air::outside, out_of, false, true});
  }
  const auto vent = [&] {
    std::vector<air::Restriction> row = {{valves.vent_conductance.value_or(*valves.conductance),
                                          valves.vent_ratio.value_or(valves.ratio.value_or(0.3))}};
    if (silencer && !shared) row.push_back(*silencer->through());
    return row;
  }();
  {
    auto way = *way_to_bag(given, circuits.front().front());
    const auto valve = std::find_if(way.begin(), way.end(), [](const AirStep& s) { return s.role == KitRole::valves; });
    way.erase(valve, way.end());
    net.lines.push_back({"feed", out.tank, 1, whole_way(way), false, true});
  }
  for (const auto& corners : circuits) {
    CarAir::Circuit circuit;
    circuit.corners = corners;
    std::size_t end_of_valve = out.bags[corners.front()];
    const auto line_row = [&](std::size_t corner) {
      auto way = *way_to_bag(given, corner);
      const auto valve =
          std::find_if(way.begin(), way.end(), [](const AirStep& s) { return s.role == KitRole::valves; });
      way.erase(way.begin(), valve + 1);
      return way;
    };
    std::vector<AirStep> behind;
    if (corners.size() == 1) {
      behind = line_row(corners.front());
    } else {
      end_of_valve = net.volumes.size();
      double inside = tee_volume, pressure = 0;
      for (const std::size_t corner : corners) {
        const shelf::Part& line = *given.parts[corner < 2 ? KitRole::front_line : KitRole::rear_line];
        inside += line_volume(line, corner_line_length(given, corner)) / 2;
        pressure += net.volumes[out.bags[corner]].gauge_pressure / static_cast<double>(corners.size());
      }
      net.volumes.push_back({std::string(circuit_name(corners)) + " tee", inside, pressure, T, 0.3});
      for (const std::size_t corner : corners)
        net.lines.push_back(
            {"", end_of_valve, out.bags[corner], learned(corner, whole_way(line_row(corner))), false, true});
    }
    std::vector<air::Restriction> in, away = vent;
    in.push_back(*valves.through());
    if (!behind.empty()) {
      in.push_back(whole_way(behind));
      away.push_back(whole_way(behind));
    }
    const auto through = [&](const std::vector<air::Restriction>& row) {
      const air::Restriction way = air::in_series(row);
      return corners.size() == 1 ? learned(corners.front(), way) : way;
    };
    circuit.fill = net.lines.size();
    net.lines.push_back({"", 1, end_of_valve, through(in), false, false});
    circuit.vent = net.lines.size();
    net.lines.push_back({"", end_of_valve, let_out_to, through(away), false, false});
    out.circuits.push_back(std::move(circuit));
  }
  if (stands.compressor) {
    if (!given.parts[KitRole::compressor])
      return refuse(words("The kit has no {0}."), {row_of(KitRole::compressor).label});
    add_compressors(given, net, out.tank, false);
  }
  add_relief(given, net, out.tank);
  return out;
}

} // namespace mavrel::assess
