// How a build is made to go either way of a school.
#include "assess/fit_up/schools.h"

#include "assess/leveling/leveling_findings.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;

namespace {

using build::Build;

build::FitUp& fit_up(Build& b) {
  return b.variant().fit_up.own();
}

/// The line of the shelf with the next bore in a direction.
const shelf::Part* other_line(const shelf::Shelf& shelf, const std::string& now, bool wider) {
  const shelf::Part* here = nullptr;
  for (const auto& part : shelf.parts)
    if (part.part.name == now && part.part.kind == shelf::PartKind::line) here = &part.part;
  if (!here) return nullptr;
  const shelf::Part* best = nullptr;
  for (const auto& part : shelf.parts) {
    if (part.part.kind != shelf::PartKind::line || !part.part.bore) continue;
    if (wider ? *part.part.bore <= *here->bore : *part.part.bore >= *here->bore) continue;
    if (!best || (wider ? *part.part.bore < *best->bore : *part.part.bore > *best->bore)) best = &part.part;
  }
  return best;
}

} // namespace

Expected<Build> with_school(const Build& build, const shelf::Shelf& shelf, std::string_view key, std::size_t way) {
  Build out = build;
  build::Variant& v = out.variant();
  const bool second = way == 1;
  if (key == "sensing") {
    for (build::ControlSetUp& one : v.leveling.set_ups) {
      if (&one != &v.leveling.set_up()) continue;
      const bool by_height = goes_by_height(one.rules.method);
      if (second && by_height) one.rules.method = control::LevelMethod::pressure;
      if (!second && !by_height) one.rules.method = control::LevelMethod::bursts;
    }
    if (!second && v.air.sensor.empty())
      for (const auto& part : shelf.parts)
        if (part.part.kind == shelf::PartKind::sensor && v.air.sensor.empty()) v.air.sensor = part.part.name;
  } else if (key == "valves") {
    const auto wanted = second ? build::ValveSchool::hand_valves : build::ValveSchool::block;
    if (v.air.school == wanted) return out;
    const auto kind = second ? shelf::PartKind::hand_valve : shelf::PartKind::valve_block;
    const shelf::Part* old = nullptr;
    for (const auto& part : shelf.parts)
      if (part.part.name == v.air.valves) old = &part.part;
    // Of those on the shelf the one that lets air through most alike.
    const shelf::Part* best = nullptr;
    const auto unlike = [&](const shelf::Part& p) {
      return old && old->conductance ? std::abs(std::log(*p.conductance / *old->conductance)) : 0.0;
    };
    for (const auto& part : shelf.parts)
      if (part.part.kind == kind && part.part.conductance && (!best || unlike(part.part) < unlike(*best)))
        best = &part.part;
    if (!best) return refuse(words("The shelf has no {0}."), {shelf::part_kind_name(kind)});
    v.air.school = wanted;
    v.air.valves = best->name;
    if (second) {
      for (build::ControlSetUp& one : v.leveling.set_ups)
        if (&one == &v.leveling.set_up()) one.rules.method = control::LevelMethod::by_hand;
    } else {
      for (build::ControlSetUp& one : v.leveling.set_ups)
        if (&one == &v.leveling.set_up() && one.rules.method == control::LevelMethod::by_hand)
          one.rules.method = control::LevelMethod::bursts;
    }
  } else if (key == "sides") {
    v.air.circuits = second ? build::Circuits::per_axle : build::Circuits::per_corner;
    for (build::EndFit& fit : v.fit)
      fit.sides = second ? build::Sides::joined : build::Sides::separate;
  } else if (key == "held") {
    for (build::EndFit& fit : v.fit)
      fit.mounting.held = second ? build::Held::lower_only : build::Held::both;
  } else if (key == "straight") {
    for (build::EndFit& fit : v.fit)
      fit.mounting.straight_at = second ? build::StraightAt::parked : build::StraightAt::road;
  } else if (key == "order") {
    fit_up(out).order = second ? build::OrderSchool::kit_first : build::OrderSchool::suspension_first;
  } else if (key == "shown") {
    fit_up(out).shown = second ? build::KitShown::shown : build::KitShown::hidden;
  } else if (key == "lines") {
    // Inside, a line goes up into the car, along its middle floor and down again; under, from place to place.
    build::FitUp& f = fit_up(out);
    f.routes.erase(std::remove_if(f.routes.begin(), f.routes.end(),
                                  [](const build::Route& r) {
                                    return r.line.starts_with("front_") || r.line.starts_with("rear_");
                                  }),
                   f.routes.end());
    const FitUpGiven given = fit_up_given(out, shelf);
    const double floor = out.body.sill_height.value_or(0.25) + 0.05;
    for (std::size_t corner = 0; corner < 4; ++corner) {
      const build::PartPlace from = v.air.valves_at, to = port_of(given.air(), corner);
      build::Route r;
      r.line = corner_line_key(corner);
      r.runs = second ? build::RouteRuns::inside : build::RouteRuns::under;
      const double z = second ? floor : std::fmax(0.1, floor - 0.1), y = to.y > 0 ? 0.55 : -0.55;
      r.points = {{"down", build::WayKind::grommet, from.x, from.y, z, 0, {}},
                  {"along", build::WayKind::clip, from.x, y, z, 0, {}},
                  {"axle", second ? build::WayKind::grommet : build::WayKind::clip, to.x, y, z, 0, {}}};
      if (second) // past bulkhead and wheel arch, and up inside them
        r.points.push_back({"arch", build::WayKind::grommet, to.x, to.y, z + 0.35, 0, {}});
      f.routes.push_back(r);
    }
  } else if (key == "mount") {
    constexpr double usual_mount = 0.022, thin = 0.008; // m, of an adjustable mount and of a plate
    for (build::EndFit& fit : v.fit) {
      const bool is_thin = fit.mounting.mount_thicker < -5e-4;
      if (second && !is_thin) fit.mounting.mount_thicker = thin - usual_mount;
      if (!second && is_thin) fit.mounting.mount_thicker = 0;
    }
  } else if (key == "line_bore") {
    for (std::string* line : {&v.air.front_line, &v.air.rear_line}) {
      if (!second) continue;
      const shelf::Part* wider = other_line(shelf, *line, true);
      if (!wider) return refuse(words("The shelf has no wider line than {0}."), {*line});
      *line = wider->name;
    }
  } else if (key == "compressors") {
    if (second && v.air.second_compressor.empty())
      v.air.second_compressor = v.air.compressor;
    else if (!second)
      v.air.second_compressor.clear();
  } else if (key == "cutting") {
    const FitUpGiven given = fit_up_given(build, shelf);
    for (const End end : build::both_ends) {
      if (second || !notch_depth(given, end)) continue;
      // Without a notch it parks where the tube meets the rail.
      const double lowest = *given.end(end)->fitted.parked + *notch_depth(given, end);
      for (build::Preset& preset : v.brief.presets)
        if (preset.use == build::PresetUse::parked && preset.wish[at(end)])
          preset.wish[at(end)] = build::HeightWish{build::HeightWish::As::height, lowest, {}};
    }
  } else {
    return refuse(words("There is no choice called “{0}”."), {std::string(key)});
  }
  return out;
}

} // namespace mavrel::assess
