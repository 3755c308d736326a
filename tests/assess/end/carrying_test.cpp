// How a corner carries its load: sides, tees, springs beside the bag, gas, roll, weather, the gauge, and what is said
// of it.
#include "assess/asked.h"
#include "assess/bags/gauge.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/weather.h"

#include <cmath>
#include <numbers>

namespace mavrel::assess {
namespace {

// ---- sides

TEST(Sides, ASolidAxlesSideLoadsReachItsSpringsByTrackOverBase) {
  const Build build = pickup();
  const auto end = ends_of(build)[1];
  for (const auto& load : end.model.loads) {
    const auto bags = end.model.bag_masses(*load);
    EXPECT_NEAR(bags[0] - bags[1], (load->side_mass[0] - load->side_mass[1]) * 1.66 / 1.04, 1e-9);
    EXPECT_NEAR(bags[0] + bags[1], load->side_mass[0] + load->side_mass[1], 1e-9);
  }
  const auto front = ends_of(build)[0];
  EXPECT_NEAR(front.model.bag_masses(*front.model.loads[0])[0], front.model.loads[0]->side_mass[0], 1e-9)
      << "independent ends see their own wheel";
  const auto state = posed_end(end, *end.road, 0)->state;
  EXPECT_NE(state.side_pressure[0], state.side_pressure[1]);
}

TEST(Sides, AnUnmeasuredSpringBaseIsAnEstimateAndSaysSo) {
  const Build build = with(pickup(), [](Build& b) { b.ends[1].spring_base.reset(); });
  const Assessment a = assess(build, test::demo_shelf());
  const Finding* f = finding(a, "spring_base_estimated");
  ASSERT_NE(f, nullptr);
  EXPECT_EQ(f->place, "rear.spring_base_m");
  EXPECT_EQ(finding(assess(pickup(), test::demo_shelf()), "spring_base_estimated"), nullptr);
  EXPECT_NEAR(*spring_base(build.ends[1]), 0.68 * 1.66, 1e-12);
  const auto ends = ends_of(build), measured = ends_of(pickup());
  const auto answer = roll(build, ends, {*ends[0].road, *ends[1].road}, 0),
             exact = roll(pickup(), measured, {*measured[0].road, *measured[1].road}, 0);
  EXPECT_TRUE(answer->base_estimated);
  EXPECT_FALSE(exact->base_estimated);
  EXPECT_NEAR(answer->separate.axles[1].air / exact->separate.axles[1].air, std::pow(0.68 * 1.66 / 1.04, 2), 1e-9);
}

TEST(Sides, ATeeHasOnePressureAndTheOtherEndCarriesWhatIsUneven) {
  const auto ladders = [](Build& b) { b.load_cases[0].masses.push_back({"ladders", 160, 2.9, 0.8, {}}); };
  const Build apart = with(pickup(), ladders), tee = with(pickup(), [&](Build&b) {
                                                 ladders(b);
                                                 b.variant().fit[1].sides = build::Sides::joined;
                                               });
  const Assessment a = assess(tee, test::demo_shelf());
  for (const auto& state : a.end(End::rear).presets[1]->cases)
    EXPECT_EQ(state->side_pressure[0], state->side_pressure[1]);
  EXPECT_EQ(a.end(End::rear).find(tracks::pressure_left, 0), nullptr) << "one pressure, one line";
  // The front's sides hold it level: the heavier one carries the rear's difference over the tracks.
  const auto by = ends_of(apart), with_tee = ends_of(tee);
  const EndLoad &front = *by[0].model.loads[0], &rear = *by[1].model.loads[0], &now = *with_tee[0].model.loads[0];
  const double over = *tee.ends[1].track / *tee.ends[0].track;
  EXPECT_NEAR((now.side_mass[0] - now.side_mass[1]) - (front.side_mass[0] - front.side_mass[1]),
              (rear.side_mass[0] - rear.side_mass[1]) * over, 1e-9);
  EXPECT_NEAR(now.side_mass[0] + now.side_mass[1], front.side_mass[0] + front.side_mass[1], 1e-9);
  EXPECT_GT(a.end(End::front).presets[1]->cases[0]->side_pressure[0],
            assess(apart, test::demo_shelf()).end(End::front).presets[1]->cases[0]->side_pressure[0]);
  EXPECT_FALSE(a.loads[0].standing_lean) << "it stands level";
}

TEST(Sides, WithATeeAtBothEndsItLeansByWhatIsUneven) {
  const Build joined = with(pickup(), [](Build& b) {
    b.variant().fit[0].sides = b.variant().fit[1].sides = build::Sides::joined;
    b.load_cases[0].masses.push_back({"ladders", 160, 2.9, 0.8, {}});
    b.ends[0].bar_rate = b.ends[1].bar_rate = 60e3; // else nothing holds it but its stops
  });
  const Assessment a = assess(joined, test::demo_shelf());
  ASSERT_TRUE(a.loads[0].standing_lean);
  EXPECT_GT(*a.loads[0].standing_lean, 0) << "the left is heavier, so it is lower";
  const auto ends = ends_of(joined);
  const auto answer = roll(joined, ends, {*ends[0].road, *ends[1].road}, 0);
  double moment = 0;
  for (std::size_t e = 0; e < 2; ++e) {
    const EndLoad& load = *ends[e].model.loads[0];
    moment += (load.side_mass[0] - load.side_mass[1]) * standard_gravity * *joined.ends[e].track / 2;
  }
  const double held = answer->fitted.axles[0].sum() + answer->fitted.axles[1].sum() - answer->gravity;
  EXPECT_NEAR(*a.loads[0].standing_lean, moment / held, 1e-9);
  const Finding* f = finding(a, "joined_sides_lean");
  ASSERT_NE(f, nullptr);
  EXPECT_NE(say(f->title).find("left"), std::string::npos);
  EXPECT_FALSE(assess(pickup(), test::demo_shelf()).loads[0].standing_lean) << "separate sides stand level";
}

// ---- what else carries, and what is felt

TEST(Carrying, ADampersGasTakesItsShareOffTheBag) {
  const auto pressure = [](double gas) {
    const Build build = with(test::demo_build(), [&](Build& b) { b.variant().fit[1].damper_gas = gas; });
    const auto end = ends_of(build)[1];
    return std::pair{posed_end(end, *end.road, 0)->force, end};
  };
  const auto [bare, end] = pressure(0);
  const auto [with_gas, same] = pressure(250);
  const double ratio = end.model.map->damper(*end.road).slope, MR = end.model.map->at(*end.road).motion_ratio;
  EXPECT_NEAR(bare - with_gas, 250 * ratio / MR, 1e-9);
}

TEST(Carrying, TheTyreInSeriesIsWhatIsFelt) {
  for (const Build& build : {test::demo_build(), pickup()})
    for (const FittedEnd& end : ends_of(build)) {
      const auto posed = posed_end(end, *end.road, 1);
      ASSERT_TRUE(posed && posed->state.frequency && posed->state.ride_frequency);
      EXPECT_LT(*posed->state.ride_frequency, *posed->state.frequency);
      if (end.model.setting.added_volume > 0) continue; // there the rate depends on how quickly it moves
      const double k = posed->state.wheel_rate, kt = end.model.tyre_rate;
      EXPECT_NEAR(*posed->state.ride_frequency,
                  std::sqrt(k * kt / (k + kt) / posed->load.sprung_mass) / 2 / std::numbers::pi, 1e-9);
    }
  // And it is what the brief's comfort is judged by.
  const auto end = ends_of(test::demo_build())[1];
  const auto state = posed_end(end, *end.road, 0)->state;
  const Build between = with(test::demo_build(), [&](Build& b) {
    b.variant().brief.frequency_low = 0.5;
    b.variant().brief.frequency_high = 0.5 * (*state.frequency + *state.ride_frequency);
  });
  const Assessment a = assess(between, test::demo_shelf());
  EXPECT_TRUE(std::none_of(a.findings.begin(), a.findings.end(),
                           [](const Finding& f) { return f.code == "frequency_outside" && f.end == End::rear; }));
}

TEST(Roll, ALoadOnTheRoofRaisesGravityAndLeans) {
  const auto answer = [](std::optional<double> z) {
    const Build build = with(test::demo_build(), [&](Build& b) {
      for (auto& mass : b.load_cases[2].masses)
        if (mass.name == "roof rail") mass.z = z, mass.mass = 80;
    });
    const auto ends = ends_of(build);
    return roll(build, ends, {*ends[0].road, *ends[1].road}, 2).value();
  };
  const Roll high = answer(1.6), unknown = answer(std::nullopt);
  EXPECT_GT(high.gravity_height, unknown.gravity_height + 0.02);
  EXPECT_GT(*high.fitted.angle, *unknown.fitted.angle);
}

TEST(Roll, RollCentresAreThoseOfTheLayoutAndAStrutsFallsTwiceAsFast) {
  using build::Layout;
  EXPECT_EQ(estimated_roll_centre(Layout::strut), 0.06);
  EXPECT_EQ(estimated_roll_centre(Layout::torsion_beam), 0.15);
  EXPECT_EQ(estimated_roll_centre(Layout::twin_beam), 0.15);
  EXPECT_EQ(estimated_roll_centre(Layout::semi_trailing_arm), 0.10);
  EXPECT_EQ(estimated_roll_centre(Layout::axle_was_leaves), 0.30);
  const Build build = with(test::demo_build(), [](Build& b) { b.ends[0].layout = Layout::strut; });
  const auto ends = ends_of(build);
  const auto at = [&](double front) { return roll(build, ends, {front, *ends[1].road}, 0)->roll_height; };
  const double share =
      ends[0].model.loads[0]->sprung_mass / (ends[0].model.loads[0]->sprung_mass + ends[1].model.loads[0]->sprung_mass);
  EXPECT_NEAR(at(0.36) - at(0.34), 2 * 0.02 * share, 1e-9);
}

// ---- weather and gauges

TEST(Weather, BagsShutOffWarmSinkFurtherOvernight) {
  const auto sinks = [](double above) {
    const Build build = with(test::demo_build(), [&](Build& b) { b.surroundings.shut_off_above = above; });
    const auto ends = ends_of(build);
    const Assessment a = assess(build, test::demo_shelf());
    const auto all = weather(build, ends, {ends[0].road, ends[1].road}, 0);
    return std::pair{all[0].ends[1]->from - all[0].ends[1]->to, all[1].ends[1]->to};
  };
  EXPECT_GT(sinks(15).first, sinks(0).first + 0.002);
  EXPECT_EQ(sinks(15).second, sinks(0).second) << "a pass is met with the valves just shut";
}

TEST(Weather, APressureLimitHoldsNoWarmingCar) {
  shelf::Shelf weak = test::demo_shelf();
  const Build build = test::demo_build();
  const auto end = ends_of(build)[1];
  const double p = posed_end(end, *end.road, 0)->state.pressure;
  const double mass = end.model.loads[0]->sprung_mass;
  for (auto& bag : weak.bags)
    if (bag.card.name == build.variant().fit[1].bag) bag.card.max_pressure = p * 1.02;
  const auto reach = assess(build, test::demo_shelf()).end(End::rear).windows.reach;
  const auto limited = ends_of(build, weak)[1];
  const air::Ambient hot{40, 350};
  const auto strong = sealed_corner(end, *reach, *end.road, mass, 293.15, hot),
             rises = sealed_corner(limited, *reach, *end.road, mass, 293.15, hot);
  ASSERT_TRUE(strong && rises);
  EXPECT_EQ(rises->H, strong->H);
  EXPECT_GT(rises->pressure, p * 1.02) << "past the limit";
}

TEST(Tracks, AreNotReadAcrossASpringsSlack) {
  // Below the slack a helper spring holds on, above it nothing: on either side the track is that side's.
  for (const double volume : {0.0, 0.003}) {
    build::Build b = test::demo_build();
    b.ends[1].other_spring_rate = 9000;
    b.ends[1].other_spring_slack = 0.3604; // between two samples
    b.variant().fit[1].added_volume = volume;
    const Assessment a = assess(b, test::demo_shelf());
    const FittedEnd end = fitted_end(b, test::demo_shelf(), End::rear);
    const Track* frequency = a.end(End::rear).find(tracks::frequency, 0);
    ASSERT_TRUE(frequency);
    for (const double off : {-3e-3, -1e-3, -2e-4, 2e-4, 1e-3, 3e-3}) {
      const double H = *b.ends[1].other_spring_slack + off;
      const auto posed = posed_end(end, H, 0);
      ASSERT_TRUE(posed);
      EXPECT_NEAR(*frequency->at(H), *posed->state.frequency, 0.01 * *posed->state.frequency) << volume << " " << off;
    }
  }
}

TEST(Gauge, OutsideReachThereIsNoAnswer) {
  const auto end = ends_of(test::demo_build())[1];
  const auto reach = assess(test::demo_build(), test::demo_shelf()).end(End::rear).windows.reach;
  for (const double H : {reach->low.height - 0.003, reach->high.height + 0.003}) {
    const auto tale = gauge_tale(end, *reach, H, 0, {1e4, 10});
    EXPECT_FALSE(tale);
    EXPECT_FALSE(gauge_at(end, *reach, H, 0, {1e4, 10}));
    const auto sealed = sealed_corner(end, *reach, H, end.model.loads[0]->sprung_mass, 293.15, {40, 270});
    EXPECT_FALSE(sealed) << "as the weather refuses it";
  }
}

TEST(Gauge, ALoadKnownLessWellWidensTheBand) {
  const auto width = [](double doubt) {
    const Build build = with(test::demo_build(), [&](Build& b) { b.variant().brief.load_doubt = doubt; });
    const auto reach = assess(build, test::demo_shelf()).end(End::front).windows.reach;
    const auto end = ends_of(build)[0];
    return gauge_at(end, *reach, *end.road, 0, {1e3, doubt})->width();
  };
  EXPECT_GT(width(20), width(10));
  EXPECT_GT(width(10), width(0));
}

// ---- findings that once said something else

TEST(Findings, AWishedHeightDoesNotTurnIntoADropForWantOfASpring) {
  const Build build = with(test::demo_build(), [](Build& b) { b.ends[0].spring_length.values.clear(); });
  const Assessment a = assess(build, test::demo_shelf());
  EXPECT_EQ(finding(a, "wish_without_reference"), nullptr) << "heights and gaps need no spring";
  EXPECT_NE(finding(a, "reading_missing"), nullptr);
}

TEST(Findings, OneSideStandingInForTheOtherIsSaid) {
  const Build build = with(test::demo_build(), [](Build& b) {
    b.ends[0].corners[1].mass.values.clear();
    b.ends[1].corners[0].height.values.clear();
  });
  const Assessment a = assess(build, test::demo_shelf());
  ASSERT_NE(finding(a, "weight_one_side"), nullptr);
  EXPECT_EQ(finding(a, "weight_one_side")->place, "front.right.mass_kg");
  ASSERT_NE(finding(a, "height_one_side"), nullptr);
  EXPECT_EQ(finding(a, "height_one_side")->place, "rear.left.height_m");
  EXPECT_EQ(finding(assess(test::demo_build(), test::demo_shelf()), "weight_one_side"), nullptr);
}

TEST(Findings, AMassOffTheMiddleNeedsATrack) {
  const Build build = with(test::demo_build(), [](Build& b) { b.ends[1].track.reset(); });
  const Assessment a = assess(build, test::demo_shelf());
  ASSERT_NE(finding(a, "track_missing"), nullptr);
  EXPECT_EQ(finding(a, "track_missing")->place, "rear.track_m");
  const Build in_the_middle = with(build, [](Build& b) {
    for (auto& load : b.load_cases)
      for (auto& mass : load.masses)
        mass.y = 0;
  });
  EXPECT_EQ(finding(assess(in_the_middle, test::demo_shelf()), "track_missing"), nullptr);
}

TEST(Findings, GoByPlacesAndNotByNames) {
  const auto outside = [](const char* name, double x) {
    const Build build = with(test::demo_build(), [&](Build& b) {
      b.load_cases[1].masses.push_back({name, 60, x, 0, {}});
    });
    return finding(assess(build, test::demo_shelf()), "load_outside_car") != nullptr;
  };
  const auto& body = test::demo_build().body;
  const double bumper = *body.wheelbase + *body.rear_overhang;
  for (const char* name : {"on the hitch", "anything"}) {
    EXPECT_FALSE(outside(name, bumper + 0.3)) << "as far as a hitch stands out";
    EXPECT_TRUE(outside(name, bumper + 0.8));
  }
}

TEST(Findings, NameTheLoadCaseTheyAreFor) {
  const Build laden = with(test::demo_build(), [](Build& b) {
    std::swap(b.load_cases[0], b.load_cases[2]);
    b.variant().brief.lean_wanted = 0.003;
  });
  const Assessment a = assess(laden, test::demo_shelf());
  ASSERT_NE(finding(a, "leans_too_far"), nullptr);
  EXPECT_NE(say(finding(a, "leans_too_far")->reason).find("Market day"), std::string::npos);
  for (const Finding& f : a.findings)
    EXPECT_EQ(say(f.reason).find("empty."), std::string::npos) << say(f.reason);
}

} // namespace
} // namespace mavrel::assess
