// A bag in depth on the demo cars: what a volume, a stroke, the weather, a gauge and a bend make of it.
#include "assess/asked.h"
#include "assess/assess.h"
#include "assess/bags/gauge.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/softening.h"
#include "assess/bags/weather.h"
#include "assess/end/stroke.h"
#include "assess/survey/loads.h"
#include "support.h"

#include <cmath>

namespace mavrel::assess {
namespace {

/// A build with both its ends made ready, so that the tests read as the questions they ask.
struct Car {
  build::Build build;
  std::vector<CaseLoad> loads;
  std::array<FittedEnd, 2> ends;
  Assessment assessment;

  explicit Car(build::Build of)
      : build(std::move(of)), loads(case_loads(build)), assessment(assess(build, test::demo_shelf())) {
    for (const End end : build::both_ends)
      ends[build::at(end)] = fitted_end(build, test::demo_shelf(), end);
  }
  [[nodiscard]] const Window& reach(End end) const { return *assessment.end(end).windows.reach; }
  [[nodiscard]] const FittedEnd& end(End e) const { return ends[build::at(e)]; }
};

build::Build demo_with(const std::function<void(build::Build&)>& change) {
  build::Build out = test::demo_build();
  change(out);
  return out;
}

build::Build with_volume(double volume, double bore) {
  return demo_with([&](build::Build& b) {
    b.variant().fit[1].added_volume = volume;
    b.variant().fit[1].line_bore = bore;
    b.variant().fit[1].line_length = 0.3;
  });
}

// ---- added volume

TEST(Softening, NoAddedVolumeIsTheBareBagAtEveryFrequency) {
  const Car car(test::demo_build());
  const auto soft = softening(car.build, car.end(End::rear), *car.end(End::rear).road, 0);
  ASSERT_TRUE(soft);
  for (const StiffnessPoint& point : soft->curve) {
    EXPECT_DOUBLE_EQ(point.stiffness, soft->shut_rate);
    EXPECT_EQ(point.loss_angle, 0);
  }
  EXPECT_FALSE(soft->fitting_bore);
  EXPECT_DOUBLE_EQ(*soft->bounce, *soft->bounce_shut);
}

TEST(Softening, BodyFrequencyLiesBetweenOpenAndShutAndFollowsTheBore) {
  double last = 1e9;
  for (const double bore : {0.002, 0.004, 0.006, 0.010, 0.020, 0.060}) {
    const Car car(with_volume(3e-3, bore));
    const auto soft = softening(car.build, car.end(End::rear), *car.end(End::rear).road, 0);
    ASSERT_TRUE(soft);
    EXPECT_GE(*soft->bounce, *soft->bounce_open - 1e-9);
    EXPECT_LE(*soft->bounce, *soft->bounce_shut + 1e-9);
    EXPECT_LE(*soft->bounce, last + 1e-9) << "a wider bore never stiffens";
    last = *soft->bounce;
  }
}

TEST(Softening, TheBoreFoundPutsTheChangeBetweenBounceAndHop) {
  const Car first(with_volume(3e-3, 0.010));
  const double H = *first.end(End::rear).road;
  const auto found = softening(first.build, first.end(End::rear), H, 0);
  ASSERT_TRUE(found && found->fitting_bore);
  const Car fitted(with_volume(3e-3, *found->fitting_bore));
  const auto soft = softening(fitted.build, fitted.end(End::rear), H, 0);
  ASSERT_TRUE(soft);
  EXPECT_NEAR(soft->middle, std::sqrt(*soft->bounce_open * soft->hop), 1e-3 * soft->middle);
  EXPECT_GT(soft->middle, *soft->bounce_open);
  EXPECT_LT(soft->middle, soft->hop);
  EXPECT_FALSE(soft->reason.empty());
}

TEST(Softening, TheVolumeWantedBringsComfortToTheBriefsEdge) {
  const Car car(demo_with([](build::Build& b) { b.variant().brief.frequency_high = 1.3; }));
  const auto soft = softening(car.build, car.end(End::rear), *car.end(End::rear).road, 0);
  ASSERT_TRUE(soft && soft->volume_wanted);
  const Car with(with_volume(*soft->volume_wanted, 0.08));
  const auto after = softening(with.build, with.end(End::rear), *with.end(End::rear).road, 0);
  ASSERT_TRUE(after);
  EXPECT_NEAR(*after->ride, 1.3, 1e-3) << "what is felt, tyre and all";
}

TEST(Softening, AShutLineIsNoVolumeAndCostsNoAir) {
  auto build = with_volume(3e-3, 0.01);
  build.variant().fit[1].line = build::LineState::shut;
  const Car shut(build), bare(test::demo_build()), open(with_volume(3e-3, 0.01));
  const double H = *bare.end(End::rear).road;
  const auto a = softening(shut.build, shut.end(End::rear), H, 0), b = softening(bare.build, bare.end(End::rear), H, 0),
             c = softening(open.build, open.end(End::rear), H, 0);
  EXPECT_DOUBLE_EQ(*a->bounce, *b->bounce);
  ASSERT_TRUE(a->air_added && c->air_added && b->air_bag);
  EXPECT_EQ(*a->air_added, 0);
  EXPECT_GT(*c->air_added, 0);
  EXPECT_DOUBLE_EQ(*c->air_bag, *b->air_bag);
}

TEST(Softening, SaysWhatIsMissing) {
  const Car car(demo_with([](build::Build& b) { b.variant().fit[0].bag.clear(); }));
  const auto soft = softening(car.build, car.end(End::front), 0.35, 0);
  ASSERT_FALSE(soft);
  EXPECT_NE(say(soft.error()).find("choose a bag"), std::string::npos);
}

// ---- stroke

TEST(Stroke, StartsAtTheLoadAndKeepsItsAir) {
  const Car car(test::demo_build());
  const FittedEnd& end = car.end(End::rear);
  const auto stroke = stroke_through(end, *end.road, 1);
  ASSERT_TRUE(stroke);
  const auto at_road = posed_end(end, *end.road, 1);
  const BagOnEnd bag = end.on();
  const double p_amb = end.model.setting.ambient.pressure(), V_road = at_road->place.section.volume;
  const auto& sides = at_road->state.side_pressure;
  double last_H = 0;
  for (const StrokeAt& at : stroke->points) {
    const double V = bag.place(at.H)->section.volume;
    // In bump the heavier side, in rebound the lighter.
    const double p = (at.H < *end.road ? std::max(sides[0], sides[1]) : std::min(sides[0], sides[1])) + p_amb;
    EXPECT_NEAR((at.slow_pressure + p_amb) * V, p * V_road, 1e-6 * p * V_road);
    EXPECT_NEAR((at.quick_pressure + p_amb) * std::pow(V, 1.38), p * std::pow(V_road, 1.38), 1e-3);
    EXPECT_LE(at.H - last_H, last_H == 0 ? 1 : 0.00101);
    if (at.H < *end.road) {
      EXPECT_GE(at.quick_pressure, at.slow_pressure);
    }
    if (at.H > *end.road) {
      EXPECT_LE(at.quick_pressure, at.slow_pressure);
    }
    last_H = at.H;
  }
}

TEST(Stroke, NamesWhatMeetsFirst) {
  const Car car(test::demo_build());
  const auto stroke = stroke_through(car.end(End::front), *car.end(End::front).road, 0);
  ASSERT_TRUE(stroke);
  EXPECT_EQ(stroke->order.front().what, BumpEnd::What::bump_stop);
  EXPECT_TRUE(stroke->stop_before_bag);
  for (std::size_t i = 1; i < stroke->order.size(); ++i)
    EXPECT_GE(stroke->order[i - 1].H, stroke->order[i].H);
  const Car late(demo_with([](build::Build& b) {
    b.ends[0].bump_stop_gap.values = {0.200};
    b.variant().fit[0].lower_stack = 0.06;
  }));
  const auto bag_first = stroke_through(late.end(End::front), *late.end(End::front).road, 0);
  ASSERT_TRUE(bag_first);
  EXPECT_FALSE(bag_first->stop_before_bag);
}

TEST(Stroke, ANarrowLineTakesNoPartInAQuickStrokeAWideOneAllOfIt) {
  for (const auto& [bore, share] : {std::pair{0.001, 0.0}, std::pair{0.080, 1.0}}) {
    const Car car(with_volume(3e-3, bore));
    const auto stroke = stroke_through(car.end(End::rear), *car.end(End::rear).road, 0);
    ASSERT_TRUE(stroke);
    EXPECT_NEAR(stroke->ends.bump.added_taking_part, share * 3e-3, 0.15e-3) << bore;
  }
}

// ---- weather

TEST(Weather, KeepsTheMassOfAirAndTheLoad) {
  for (const build::Build& build : {test::demo_build(), pickup()}) {
    const Car car(build);
    for (const End e : build::both_ends) {
      const FittedEnd& end = car.end(e);
      const double mass = end.model.loads[0]->sprung_mass;
      const air::Ambient to{900, 265};
      const auto after = sealed_corner(end, car.reach(e), *end.road, mass, end.model.setting.ambient.temperature, to);
      ASSERT_TRUE(after);
      if (after->rests_on != RestsOn::air) continue;
      const BagOnEnd bag = end.on();
      const auto sealed = [&](double H, double p, const air::Ambient& in) {
        return air::air_mass(p + in.pressure(), bag.place(H)->section.volume + end.model.setting.added_volume,
                             in.temperature);
      };
      EXPECT_NEAR(sealed(*end.road, *bag.pressure(*end.road, mass), end.model.setting.ambient) /
                      sealed(after->H, after->pressure, to),
                  1, 1e-9);
      EXPECT_NEAR(after->pressure, *bag.pressure(after->H, mass), 1) << "it carries the same load";
    }
  }
}

TEST(Weather, NothingChangesNothingColdSinksWarmRises) {
  const Car car(test::demo_build());
  const FittedEnd& end = car.end(End::rear);
  const double mass = end.model.loads[0]->sprung_mass, H = *end.road;
  const auto in = [&](double T, double z = 40) {
    return sealed_corner(end, car.reach(End::rear), H, mass, 293.15, {z, T})->H;
  };
  EXPECT_NEAR(in(293.15), H, 1e-9);
  EXPECT_LT(in(270), H);
  EXPECT_GT(in(310), H);
  EXPECT_GT(in(293.15, 2500), H) << "thin air presses less from outside";
}

TEST(Weather, ComesToRestOnItsStops) {
  const Car car(test::demo_build());
  const FittedEnd& end = car.end(End::rear);
  const Window& reach = car.reach(End::rear);
  const double mass = end.model.loads[0]->sprung_mass;
  const auto frozen = sealed_corner(end, reach, reach.low.height + 0.004, mass, 293.15, {40, 220});
  ASSERT_TRUE(frozen);
  EXPECT_EQ(frozen->rests_on, RestsOn::low_stop);
  EXPECT_NEAR(frozen->H, reach.low.height, 1e-9);
  EXPECT_LT(frozen->pressure, *end.on().pressure(frozen->H, mass)) << "the stop carries the rest";
}

TEST(Weather, UnequalSidesLeanAndJoinedOnesDoNot) {
  auto build = demo_with([](build::Build& b) { b.ends[1].corners[0].mass.values = {390}; });
  const auto lean = [](const build::Build& of) {
    const Car car(of);
    const auto answers = weather(car.build, car.ends, {car.ends[0].road, car.ends[1].road}, 0);
    EXPECT_EQ(answers.size(), 3U);
    return answers.front().ends[1]->lean;
  };
  EXPECT_NE(lean(build), 0);
  build.variant().fit[1].sides = build::Sides::joined;
  EXPECT_EQ(lean(build), 0);
}

// ---- gauge

TEST(Gauge, TheBandHoldsTheHeightAndEveryHeightWithTheSameReading) {
  for (const build::Build& build : {test::demo_build(), pickup()}) {
    const Car car(build);
    for (const End e : build::both_ends) {
      const FittedEnd& end = car.end(e);
      const auto tale = gauge_tale(end, car.reach(e), *end.road, 0, {1e4, 10});
      ASSERT_TRUE(tale);
      const double mass = end.model.loads[0]->sprung_mass, p = *end.on().pressure(*end.road, mass);
      for (const GaugeBand& band : tale->bands) {
        EXPECT_LE(band.low, band.H + 1e-9);
        EXPECT_GE(band.high, band.H - 1e-9);
        if (std::abs(*end.on().pressure(band.H, mass) - p) < 0.9e4) {
          EXPECT_GE(band.H, tale->here.low - 1e-4);
          EXPECT_LE(band.H, tale->here.high + 1e-4);
        }
      }
    }
  }
}

TEST(Gauge, AFinerGaugeAndLessFrictionNarrowIt) {
  auto build = test::demo_build();
  const auto width = [&](double error, double friction) {
    build.ends[0].friction = friction;
    build.variant().brief.load_doubt = 0;
    const Car car(build);
    return gauge_tale(car.end(End::front), car.reach(End::front), 0.34, 0, {error, build.variant().brief.load_doubt})
        ->here.width();
  };
  EXPECT_LT(width(2e3, 140), width(1e4, 140));
  EXPECT_LT(width(1e4, 20), width(1e4, 200));
  EXPECT_LT(width(1, 0), 1e-4);
}

TEST(Gauge, AConstantAreaSleeveTellsNothing) {
  air::BagCard card = test::demo_shelf().find("Fennick R-134")->card;
  for (auto& column : card.loads)
    for (double& load : column)
      load = column.front();
  card.name = "straight";
  shelf::Shelf shelf = test::demo_shelf();
  shelf.bags.push_back({card, air::BagCurve(card), {}, {}});
  auto build = demo_with([](build::Build& b) { b.variant().fit[1].bag = "straight"; });
  const auto loads = case_loads(build);
  const FittedEnd end = fitted_end(build, shelf, End::rear);
  const auto reach = assess(build, shelf).end(End::rear).windows.reach;
  const auto tale = gauge_tale(end, *reach, *end.road, 0, {1e4, 10});
  ASSERT_TRUE(tale);
  EXPECT_EQ(tale->verdict, GaugeVerdict::silent);
  EXPECT_NEAR(tale->slope, 0, 1);
  EXPECT_GT(tale->here.width(), 0.9 * (std::min(reach->high.height, end.on().heights().second) -
                                       std::max(reach->low.height, end.on().heights().first)));
}

// ---- lean

std::array<double, 2> at_road(const Car& car) {
  return {*car.ends[0].road, *car.ends[1].road};
}

TEST(Roll, JoinedSidesCarryNoRollByTheirAir) {
  for (const build::Build& build : {test::demo_build(), pickup()}) {
    const Car car(build);
    const auto answer = roll(car.build, car.ends, at_road(car), 0);
    ASSERT_TRUE(answer);
    for (const AxleRoll& axle : answer->joined.axles)
      EXPECT_EQ(axle.air, 0);
    for (const AxleRoll& axle : answer->separate.axles)
      EXPECT_GT(axle.air, 0);
    EXPECT_GT(answer->joined.bar_wanted, answer->separate.bar_wanted);
  }
}

TEST(Roll, ConstantAreaSleevesJoinedCarryNoRollAtAll) {
  air::BagCard card = test::demo_shelf().find("Fennick R-134")->card;
  for (auto& column : card.loads)
    for (double& load : column)
      load = column.front();
  shelf::Shelf shelf;
  shelf.bags.push_back({card, air::BagCurve(card), {}, {}});
  auto build = demo_with([](build::Build& b) {
    b.variant().fit[0].bag = b.variant().fit[1].bag = "Fennick R-134";
    b.ends[0].bar_rate.reset();
    b.ends[1].bar_rate.reset();
  });
  const auto loads = case_loads(build);
  const std::array<FittedEnd, 2> ends = {fitted_end(build, shelf, End::front), fitted_end(build, shelf, End::rear)};
  const auto answer = roll(build, ends, {*ends[0].road, *ends[1].road}, 0);
  ASSERT_TRUE(answer);
  for (const AxleRoll& axle : answer->joined.axles)
    EXPECT_NEAR(axle.sum(), 0, 1e-6);
  EXPECT_FALSE(answer->joined.angle) << "nothing holds it but its stops, and that is said rather than a number";
}

TEST(Roll, TheBarAskedForGivesTheLeanWanted) {
  auto build = test::demo_build();
  build.variant().fit[0].sides = build.variant().fit[1].sides = build::Sides::joined;
  const Car before(build);
  const double wanted = roll(before.build, before.ends, at_road(before), 0)->fitted.bar_wanted;
  // Shared out as they are: tyres give under each, so that it matters where a bar is.
  const double front = build.ends[0].bar_rate.value_or(0), rear = build.ends[1].bar_rate.value_or(0);
  const double share = front + rear > 0 ? front / (front + rear) : 0.5;
  build.ends[0].bar_rate = wanted * share;
  build.ends[1].bar_rate = wanted * (1 - share);
  const Car after(build);
  EXPECT_NEAR(*roll(after.build, after.ends, at_road(after), 0)->fitted.angle, build.variant().brief.lean_wanted, 1e-9);
}

TEST(Roll, TyresGiveToo) {
  auto build = test::demo_build();
  const auto lean = [&](double rate) {
    build.ends[0].tyre_rate = build.ends[1].tyre_rate = rate;
    const Car car(build);
    return roll(car.build, car.ends, at_road(car), 0)->fitted;
  };
  const Lean soft = lean(1.5e5), hard = lean(3e5), rigid = lean(1e6);
  ASSERT_TRUE(soft.angle && hard.angle && rigid.angle);
  EXPECT_GT(*soft.angle, *hard.angle);
  EXPECT_GT(*hard.angle, *rigid.angle);
  for (const AxleRoll& axle : soft.axles) {
    EXPECT_NEAR(1 / axle.sum(), 1 / axle.suspension() + 1 / axle.tyres, 1e-12) << "in series";
    EXPECT_NEAR(axle.suspension(), axle.air + axle.geometry + axle.bar, 1e-9);
  }
}

TEST(Roll, WithGravityBelowTheAxisItLeansIntoTheBend) {
  const Car car(demo_with([](build::Build& b) { b.ends[0].roll_centre = b.ends[1].roll_centre = 0.7; }));
  const auto answer = roll(car.build, car.ends, at_road(car), 0);
  ASSERT_TRUE(answer && answer->fitted.angle);
  EXPECT_LT(*answer->fitted.angle, 0);
  EXPECT_EQ(answer->fitted.bar_wanted, 0);
}

TEST(Roll, ByHandForSeparateSides) {
  const Car car(test::demo_build());
  const auto answer = roll(car.build, car.ends, at_road(car), 0);
  ASSERT_TRUE(answer);
  const auto posed = posed_end(car.ends[0], *car.ends[0].road, 0);
  air::BagSetting slow = car.ends[0].model.setting;
  const double MR = posed->place.map.motion_ratio;
  const double wheel = air::sealed_rate(posed->place.section, posed->state.pressure, bend_exponent, slow) * MR * MR;
  EXPECT_NEAR(answer->separate.axles[0].air + answer->separate.axles[0].geometry, wheel * 1.52 * 1.52 / 2, 1);
  EXPECT_NEAR(*answer->separate.angle,
              answer->tipping / (answer->separate.axles[0].sum() + answer->separate.axles[1].sum() - answer->gravity),
              1e-12);
}

// ---- ride

TEST(Ride, AgreesWithTheAssessmentInEveryLoadCase) {
  const Car car(test::demo_build());
  const Ride answer = ride(car.build, test::demo_shelf(), 1);
  ASSERT_EQ(answer.cases.size(), 3U);
  for (std::size_t c = 0; c < 3; ++c)
    for (const End e : build::both_ends)
      EXPECT_DOUBLE_EQ(answer.cases[c].ends[build::at(e)]->frequency,
                       *car.assessment.end(e).presets[1]->cases[c]->frequency);
}

TEST(Ride, DampingByHand) {
  const Car car(test::demo_build());
  const Ride answer = ride(car.build, test::demo_shelf(), 0);
  // Between 0.05 m/s (95, 180 N) and 0.13 m/s (205, 390 N), at 0.10 m/s.
  const double force = 0.5 * ((95 + 0.625 * 110) + (180 + 0.625 * 210));
  const RideEnd& front = *answer.cases[0].ends[0];
  const double sprung = car.ends[0].model.loads[0]->sprung_mass;
  EXPECT_NEAR(*front.damping, force / 0.1 * 0.965 * 0.965 / (2 * std::sqrt(front.wheel_rate * sprung)), 1e-9);
}

TEST(Ride, DamperCurveMayBeOnePointUnsortedOrAbsent) {
  EXPECT_FALSE(damper_coefficient({}));
  EXPECT_DOUBLE_EQ(*damper_coefficient({{0.2, 300, 500, {}}}), 2000);
  EXPECT_DOUBLE_EQ(*damper_coefficient({{0.05, 100, 100, {}}}), 2000);
  EXPECT_DOUBLE_EQ(*damper_coefficient({{0.3, 400, 400, {}}, {0.1, 200, 200, {}}}), 2000);
}

TEST(Ride, TheBestReachableIsNeverWorseThanWhatIsThere) {
  for (const build::Build& build : {test::demo_build(), pickup()}) {
    const Car car(build);
    for (std::size_t c = 0; c < car.loads.size(); ++c) {
      const Ride answer = ride(car.build, test::demo_shelf(), c);
      ASSERT_TRUE(answer.settling);
      EXPECT_LE(answer.settling->best.unrest, answer.settling->now.unrest);
      EXPECT_EQ(answer.settling->best_bag.empty(), answer.settling->best.unrest == answer.settling->now.unrest);
    }
  }
}

// ---- findings

TEST(DepthFindings, ANarrowLineAndColdNightsAreSaid) {
  const auto has = [](const build::Build& build, const std::string& code) {
    const auto a = assess(build, test::demo_shelf());
    return std::any_of(a.findings.begin(), a.findings.end(), [&](const Finding& f) { return f.code == code; });
  };
  EXPECT_TRUE(has(with_volume(3e-3, 0.0015), "line_chokes_volume"));
  EXPECT_FALSE(has(with_volume(3e-3, 0.010), "line_chokes_volume"));
  EXPECT_TRUE(has(with_volume(3e-3, 0.010), "caution_tank"));
  EXPECT_TRUE(has(test::demo_build(), "night_drops_it"));
  EXPECT_FALSE(has(demo_with([](build::Build& b) {
                     b.surroundings.night_temperature = 292;
                     b.surroundings.shut_off_above = 0;
                   }),
                   "night_drops_it"));
  EXPECT_TRUE(has(demo_with([](build::Build& b) {
                    b.ends[0].bar_rate.reset();
                    b.variant().fit[0].sides = b.variant().fit[1].sides = build::Sides::joined;
                  }),
                  "leans_too_far"));
}

} // namespace
} // namespace mavrel::assess
