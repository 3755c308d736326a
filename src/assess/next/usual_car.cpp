#include "assess/next/usual_car.h"

#include "assess/care/origin.h"
#include "assess/ground/ground.h"
#include "build/care.h"

namespace mavrel::assess {

using build::BodyStyle;
using build::Layout;

namespace {

/// What is usual of a body, m and kg. Ours, to begin with; nothing of it is any one car.
struct UsualBody {
  BodyStyle style;
  double wheelbase, front_overhang, rear_overhang, height, sill;
  double front, rear;               // kg a corner
  double front_height, rear_height; // H
  double track;
  const char* wheel;
  std::array<Layout, 2> layout;
  double lowest; // of the underside
};
constexpr UsualBody usuals[] = {
    {BodyStyle::estate,
     2.72,
     0.90,
     1.02,
     1.47,
     0.21,
     405,
     355,
     0.385,
     0.395,
     1.54,
     "205/55R16 7 ET45",
     {Layout::strut, Layout::multi_link},
     0.15},
    {BodyStyle::hatchback,
     2.58,
     0.84,
     0.72,
     1.46,
     0.21,
     375,
     260,
     0.375,
     0.380,
     1.50,
     "195/55R16 6.5 ET42",
     {Layout::strut, Layout::twin_beam},
     0.15},
    {BodyStyle::saloon,
     2.80,
     0.88,
     1.08,
     1.45,
     0.20,
     440,
     415,
     0.385,
     0.385,
     1.56,
     "225/50R17 7.5 ET40",
     {Layout::double_wishbone, Layout::multi_link},
     0.15},
    {BodyStyle::coupe,
     2.60,
     0.86,
     0.92,
     1.36,
     0.18,
     390,
     350,
     0.365,
     0.370,
     1.53,
     "225/45R17 8 ET40",
     {Layout::strut, Layout::semi_trailing_arm},
     0.13},
    {BodyStyle::van,
     3.00,
     0.92,
     1.10,
     1.95,
     0.30,
     520,
     430,
     0.420,
     0.430,
     1.62,
     "215/65R16 6.5 ET50",
     {Layout::strut, Layout::torsion_beam},
     0.18},
    {BodyStyle::pickup,
     3.25,
     0.92,
     1.25,
     1.80,
     0.36,
     590,
     420,
     0.500,
     0.520,
     1.66,
     "245/70R17 8 ET30",
     {Layout::double_wishbone, Layout::axle_parallel_links},
     0.22},
};
const UsualBody& usual_of(BodyStyle style) {
  for (const UsualBody& one : usuals)
    if (one.style == style) return one;
  return usuals[0];
}

/// How a car for a use is wanted, m of H below where it stands as it came, and what is kept.
struct UseRow {
  CarUsedFor use;
  const char* name;
  double parked, road, ramp; // lower than as it came; the ramp's is negative: higher
  double bump, rebound;
};
constexpr UseRow uses[] = {
    {CarUsedFor::street, words("street"), 0.070, 0.025, -0.025, 0.045, 0.030},
    {CarUsedFor::show, words("show"), 0.095, 0.040, -0.020, 0.035, 0.025},
    {CarUsedFor::load, words("loads and towing"), 0.045, 0.005, -0.030, 0.055, 0.035},
    {CarUsedFor::track, words("track days"), 0.050, 0.035, -0.015, 0.050, 0.030},
};
const UseRow& row_of(CarUsedFor use) {
  return uses[static_cast<std::size_t>(use)];
}

void fill_end(build::EndSurvey& end, const UsualBody& u, Layout layout, bool front) {
  end.layout = layout;
  const bool axle = is_solid_axle(layout);
  end.spring_place = layout == Layout::strut ? build::SpringPlace::around_damper : build::SpringPlace::apart;
  end.spring_seat = axle                      ? build::SpringSeat::axle
                    : layout == Layout::strut ? build::SpringSeat::upright
                                              : build::SpringSeat::arm;
  for (build::Corner& corner : end.corners) {
    corner.mass.values = {front ? u.front : u.rear};
    corner.height.values = {front ? u.front_height : u.rear_height};
  }
  end.track = u.track;
  end.wheel = u.wheel;
  end.arch.lip_outward = 0.075;
  build::Obstacle liner;
  liner.name = words("liner above");
  liner.kind = build::ObstacleKind::liner;
  liner.gap = 0.095;
  end.obstacles.push_back(liner);
}

void fill_underside(build::Body& body, const UsualBody& u) {
  for (const auto& [name, x, over] : {std::tuple{words("bumper"), -0.8 * u.front_overhang, 0.03},
                                      {words("sump"), 0.25, 0.0},
                                      {words("sill middle"), 0.5 * u.wheelbase, u.sill - u.lowest},
                                      {words("silencer"), u.wheelbase - 0.25, 0.03},
                                      {words("rear bumper"), u.wheelbase + 0.85 * u.rear_overhang, 0.12}})
    body.underside.push_back({name, x, u.lowest + over, {}});
}

} // namespace

bool begun_from_usual(const build::Build& build) {
  return build.origin->car.empty() && build.origin->number.empty() && !build.origin->taken.empty();
}

const char* name_of(CarUsedFor use) {
  return row_of(use).name;
}

WhatItIs usual_for(BodyStyle style) {
  return {style, usual_of(style).layout,
          style == BodyStyle::pickup || style == BodyStyle::van ? CarUsedFor::load : CarUsedFor::street};
}

build::Build usual_car(const WhatItIs& what) {
  const UsualBody& u = usual_of(what.style);
  build::Build out = build::empty_build();
  out.body.style = what.style;
  out.body.wheelbase = u.wheelbase;
  out.body.front_overhang = u.front_overhang, out.body.rear_overhang = u.rear_overhang;
  out.body.overall_height = u.height, out.body.sill_height = u.sill;
  fill_underside(out.body, u);
  for (const build::End end : build::both_ends)
    fill_end(out.ends[build::at(end)], u, what.layout[build::at(end)], end == build::End::front);
  build::Brief& brief = out.variant().brief;
  const UseRow& use = row_of(what.use);
  brief.bump_travel = use.bump, brief.rebound_reserve = use.rebound;
  for (build::Preset& preset : brief.presets) {
    const double lower = preset.use == build::PresetUse::parked ? use.parked
                         : preset.use == build::PresetUse::road ? use.road
                                                                : use.ramp;
    for (const build::End end : build::both_ends) {
      const double H = end == build::End::front ? u.front_height : u.rear_height;
      preset.wish[build::at(end)] = build::HeightWish{build::HeightWish::As::height, H - lower, {}};
    }
  }
  for (build::Ground& ground : usual_grounds())
    if (ground.over != build::PresetUse::road || what.use == CarUsedFor::show)
      brief.grounds.push_back(std::move(ground));
  build::AirKit& kit = out.variant().air;
  const double boot = u.wheelbase + 0.3;
  kit.tank_at.x = boot, kit.compressor_at.x = boot - 0.2, kit.compressor_at.y = 0.35, kit.valves_at.x = boot,
  kit.valves_at.y = -0.3;
  build::Origin& origin = out.origin.own();
  for (const Leaf& leaf : measured_leaves(out))
    if (origin.taken.size() < build::most_taken) origin.taken.push_back({leaf.path, leaf.digest, {}});
  return out;
}

} // namespace mavrel::assess
