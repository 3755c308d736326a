// Cars nobody drew: believable figures at random, with bags at random on a shelf of their own. What holds for these
// holds for the cars that builders bring.
#pragma once

#include "build/build.h"
#include "support.h"

namespace mavrel::test {

struct RandomCar {
  build::Build build;
  shelf::Shelf shelf;
};

/// One axle whose bag can stand somewhere near the surveyed height.
inline void random_end(build::EndSurvey& end, build::EndFit& fit, const air::BagCard& card) {
  const double corner = between(220, 700);
  for (auto& side : end.corners) {
    side.mass.values = {corner * between(0.95, 1.05)};
    side.height.values = {between(0.34, 0.5)};
  }
  end.corners[1].height.values = {end.corners[0].height.values[0] + between(-0.004, 0.004)};
  end.unsprung_mass = between(25, 60);
  end.track = between(1.4, 1.75);
  end.wheel = "205/55R16 6.5 ET45";
  const double MR = between(0.5, 1.05), damper_MR = between(0.5, 1.0);
  end.motion_ratio.values = {MR};
  end.damper_ratio.values = {damper_MR};
  fit.upper_stack = between(0, 0.03);
  fit.lower_stack = between(0, 0.03);
  const double middle = std::lerp(card.collapsed_height, card.max_height, between(0.4, 0.8));
  end.spring_length.values = {middle + fit.upper_stack + fit.lower_stack};
  end.damper_length.values = {between(0.36, 0.48)};
  end.damper_open.values = {end.damper_length.values[0] + between(0.03, 0.09)};
  end.damper_shut.values = {end.damper_length.values[0] - between(0.05, 0.14)};
  end.bump_stop_gap.values = {between(0.03, 0.11)};
  end.bump_stop_place = build::StopPlace::wheel;
  if (*rc::gen::arbitrary<bool>()) end.bar_rate = between(2e3, 40e3);
  end.friction = between(0, 250);
  fit.bag = card.name;
  if (*rc::gen::arbitrary<bool>()) {
    fit.added_volume = between(0.2e-3, 6e-3);
    fit.line_bore = between(0.003, 0.02);
    fit.line_length = between(0.05, 2);
  }
  // Something near it, now and then; what stands where the wheel does is found out like the rest.
  for (int i = 0; i < *rc::gen::inRange(0, 3); ++i) {
    build::Obstacle o;
    o.name = "thing";
    o.shape = *rc::gen::element(build::ObstacleShape::gap, build::ObstacleShape::plane, build::ObstacleShape::box,
                                build::ObstacleShape::rod, build::ObstacleShape::edge);
    o.gap = between(0, 0.08);
    o.x = between(-0.5, 0.5), o.y = between(0.2, 0.55), o.z = between(0.1, 0.9);
    o.to_x = between(-0.5, 0.5), o.to_y = between(0.2, 0.55), o.to_z = between(0.1, 0.9);
    end.obstacles.push_back(o);
  }
  if (*rc::gen::arbitrary<bool>()) end.arch.lip_outward = between(0.05, 0.12);
  if (*rc::gen::arbitrary<bool>()) fit.damper_curve = {{0.1, between(100, 600), between(200, 1200), {}}};
}

/// To be called inside a property.
inline RandomCar random_car() {
  RandomCar out;
  out.build = build::empty_build();
  out.build.body.wheelbase = between(2.3, 3.4);
  out.build.body.overall_height = between(1.3, 1.9);
  out.build.load_cases.push_back(
      {"laden", {{"stock", between(-40, 300), between(0.5, 2.6), between(-0.3, 0.3), {}}}, {}});
  auto& variant = out.build.variant();
  for (std::size_t e = 0; e < 2; ++e) {
    air::BagCard card = random_card();
    card.name = e == 0 ? "front bag" : "rear bag";
    if (card.pressures.back() > card.max_pressure) card.max_pressure = card.pressures.back();
    random_end(out.build.ends[e], variant.fit[e], card);
    const double H = out.build.ends[e].corners[0].height.values[0];
    for (const double drop : {0.05, 0.01, -0.02})
      variant.brief.presets[drop > 0.03 ? 0
                            : drop > 0  ? 1
                                        : 2]
          .wish[e] = build::HeightWish{build::HeightWish::As::height, H - drop, {}};
    out.shelf.bags.push_back({card, air::BagCurve(card), {}, {}});
  }
  return out;
}

} // namespace mavrel::test
