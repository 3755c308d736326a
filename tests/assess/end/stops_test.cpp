// Stops that give, the end of what was measured, presets each by itself, and a tank too low.
#include "assess/asked.h"
#include "assess/assess.h"
#include "assess/end/travel.h"
#include "assess/kit/kit_parts.h"

#include "support.h"

namespace mavrel::assess {
namespace {

Assessment assessed(const Build& b, const shelf::Shelf& shelf = test::demo_shelf()) {
  return assess(b, shelf);
}

TEST(Stops, TheBagIsJudgedWhereTheStopGivesNoMore) {
  Build b = test::demo_build();
  ASSERT_EQ(finding(assessed(b), "bag_before_stop"), nullptr);
  // The bag's margin lies between where the stop is first met and where it gives no more.
  const FittedEnd end = fitted_end(b, test::demo_shelf(), End::front);
  const double margin = *height_of_bag_margin(end.on()), met = *end.model.stop_height;
  ASSERT_LT(margin, met);
  b.ends[0].bump_stop_give = met - margin - 0.002;
  EXPECT_EQ(finding(assessed(b), "bag_before_stop"), nullptr);
  b.ends[0].bump_stop_give = met - margin + 0.002;
  const auto a = assessed(b);
  const Finding* told = finding(a, "bag_before_stop");
  ASSERT_NE(told, nullptr);
  EXPECT_EQ(told->severity, Severity::stop);
}

TEST(Stops, ADamperIsNoBumpStopEither) {
  Build b = test::demo_build();
  ASSERT_EQ(finding(assessed(b), "damper_before_stop"), nullptr);
  const FittedEnd end = fitted_end(b, test::demo_shelf(), End::front);
  const double squeezed = *end.model.stop_height - end.model.stop_give;
  b.variant().fit[0].damper_shut = end.model.map->damper(squeezed).value + 0.004;
  const auto a = assessed(b);
  const Finding* told = finding(a, "damper_before_stop");
  ASSERT_NE(told, nullptr);
  EXPECT_EQ(told->severity, Severity::stop);
  // A usual length that stands in for it judges nothing.
  b.variant().fit[0].damper_shut.reset();
  b.ends[0].damper_shut.values.clear();
  b.ends[0].bump_stop_give = 0.09;
  EXPECT_EQ(finding(assessed(b), "damper_before_stop"), nullptr);
}

TEST(Stops, AParkedCarRestsWhereItsStopCarriesIt) {
  const FittedEnd end = fitted_end(test::demo_build(), test::demo_shelf(), End::rear);
  const auto travel = standing_travel(end.on());
  ASSERT_TRUE(travel);
  EXPECT_NEAR(travel->first, *end.model.stop_height - parked_squeeze * end.model.stop_give, 1e-9);
}

TEST(Stops, ABagAtFullHeightBeforeTheDamperIsOpenHangsOnItsBeads) {
  Build b = test::demo_build();
  ASSERT_NE(finding(assessed(b), "hangs_on_beads"), nullptr) << "the estate's front";
  const FittedEnd end = fitted_end(b, test::demo_shelf(), End::front);
  b.variant().fit[0].damper_open =
      end.model.map->damper(*end.on().height_for_bag(end.on().card().max_height)).value - 0.003;
  for (const Finding& f : assessed(b).findings)
    EXPECT_FALSE(f.code == "hangs_on_beads" && f.end == End::front);
}

TEST(Known, AReachThatNothingEndsGoesAsFarAsWasMeasuredAndNoWishMovesIt) {
  Build b = test::demo_with_sheets();
  b.variant().fit[1].bag.clear();
  b.ends[1].damper_open.values.clear();
  for (std::size_t i = 0; i < b.ends[1].cycle.size(); ++i)
    b.ends[1].cycle[i].damper.reset();
  std::optional<double> high;
  for (const double wish : {0.40, 0.412, 0.43}) {
    b.variant().brief.presets[2].wish[1] = build::HeightWish{build::HeightWish::As::height, wish, {}};
    const auto a = assessed(b);
    const auto& reach = a.end(End::rear).windows.reach;
    ASSERT_TRUE(reach);
    if (high) {
      EXPECT_NEAR(reach->high.height, *high, 1e-9) << wish;
    }
    high = reach->high.height;
  }
}

TEST(Known, AStrokeThatEndsWithTheSheetSaysSo) {
  Build b = test::demo_with_sheets();
  // Only the upper half was jacked through.
  const double H0 = *assessed(b).end(End::rear).surveyed_height;
  for (std::size_t i = b.ends[1].cycle.size(); i-- > 0;)
    if (std::as_const(b).ends[1].cycle[i].height < H0 - 0.045)
      b.ends[1].cycle.erase(b.ends[1].cycle.begin() + static_cast<std::ptrdiff_t>(i));
  const auto a = assessed(b);
  const auto& reach = a.end(End::rear).windows.reach;
  ASSERT_TRUE(reach);
  ASSERT_TRUE(reach->low.governing);
  EXPECT_EQ(reach->low.governing->limit, &limits::map_end);
  const Finding* told = finding(a, "travel_not_measured");
  ASSERT_NE(told, nullptr);
  EXPECT_NE(say(told->reason).find("15 mm"), std::string::npos) << "how far beyond the last reading";
  const FittedEnd end = fitted_end(b, test::demo_shelf(), End::rear);
  EXPECT_EQ(free_travel(end.on(), Meeting::hit)->low_by, &limits::map_end);
}

TEST(Presets, EveryRoadPresetHasItsStroke) {
  Build b = test::demo_build();
  build::Preset low = b.variant().brief.presets[1];
  low.name = "Motorway";
  for (auto& wish : low.wish)
    if (wish) wish->value += wish->as == build::HeightWish::As::drop ? -0.006 : 0.006;
  b.variant().brief.presets.push_back(low);
  const auto a = assessed(b);
  const EndAssessment& front = a.end(End::front);
  ASSERT_EQ(front.preset_strokes.size(), 4U);
  EXPECT_TRUE(front.preset_strokes[0].empty()) << "parked is not driven";
  ASSERT_FALSE(front.preset_strokes[1].empty());
  ASSERT_FALSE(front.preset_strokes[3].empty());
  EXPECT_NE(*front.preset_strokes[1][0]->bump.pressure, *front.preset_strokes[3][0]->bump.pressure);
  // And what it rides like is told for each.
  std::size_t settle = 0;
  for (const Finding& f : a.findings)
    settle += f.code == "ends_do_not_settle";
  EXPECT_EQ(settle, 2U);
}

TEST(Presets, OrderChangesNothing) {
  Build b = test::demo_build(), turned = b;
  std::reverse(turned.variant().brief.presets.begin(), turned.variant().brief.presets.end());
  const auto x = assessed(b), y = assessed(turned);
  for (const End end : build::both_ends) {
    const auto &p = x.end(end).windows, &q = y.end(end).windows;
    ASSERT_EQ(p.road.has_value(), q.road.has_value());
    EXPECT_EQ(p.reach->low.height, q.reach->low.height);
    EXPECT_EQ(p.road->high.height, q.road->high.height);
  }
}

TEST(Tank, WhatItCannotGiveIsNoHeight) {
  Build b = test::demo_whole();
  const auto before = assessed(b);
  shelf::Shelf shelf = test::demo_shelf();
  for (std::size_t i = 0; i < shelf.parts.size(); ++i)
    if (auto& part = shelf.parts[i].part; part.kind == shelf::PartKind::pressure_switch)
      part.cut_in = 2.0e5, part.cut_out = 3.2e5;
  const auto a = assessed(b, shelf);
  const auto& windows = a.end(End::front).windows;
  EXPECT_TRUE(std::any_of(windows.reach_blocked.begin(), windows.reach_blocked.end(),
                          [](const Stretch& s) { return s.limit == &limits::tank_pressure; }));
  const auto width = [](const std::optional<Window>& w) { return w ? w->width() : 0; };
  EXPECT_LT(width(windows.reach), width(before.end(End::front).windows.reach));
}

TEST(Tank, AReliefValveThatOpensFirstIsWhereItStops) {
  const Build& b = test::demo_whole();
  shelf::Shelf shelf = test::demo_shelf();
  const auto full = full_tank(b.variant().air, shelf);
  ASSERT_TRUE(full);
  for (std::size_t i = 0; i < shelf.parts.size(); ++i)
    if (auto& part = shelf.parts[i].part; part.kind == shelf::PartKind::relief_valve) part.opens_at = *full - 1e5;
  EXPECT_NEAR(*full_tank(b.variant().air, shelf), *full - 1e5, 1);
}

TEST(Corner, LighterThanItsWheelIsTold) {
  Build b = test::demo_build();
  ASSERT_EQ(finding(assessed(b), "corner_lighter_than_wheel"), nullptr);
  b.ends[0].corners[0].mass.values = {31};
  EXPECT_NE(finding(assessed(b), "corner_lighter_than_wheel"), nullptr);
}

TEST(Brakes, TheFrontDivesByWhatTheRearGives) {
  Build b = test::demo_build();
  const auto dive_of = [](const Build& build) {
    const auto ends = ends_of(build);
    return roll(build, ends, {*ends[0].road, *ends[1].road}, 0)->dive;
  };
  const auto half = dive_of(b);
  ASSERT_TRUE(half);
  EXPECT_GT(half->sinks, 0.010);
  EXPECT_LT(half->sinks, 0.050);
  b.variant().brief.braking = 1;
  const auto whole = dive_of(b);
  EXPECT_NEAR(whole->sinks, 2 * half->sinks, 1e-9);
  EXPECT_NEAR(whole->rises, 2 * half->rises, 1e-9);
  // So hard that the front has no bump left: told.
  EXPECT_EQ(finding(assessed(test::demo_build()), "dives_onto_stop"), nullptr);
  b.variant().brief.braking = 1.5;
  b.body.gravity_height = 0.9;
  EXPECT_NE(finding(assessed(b), "dives_onto_stop"), nullptr);
  b.body.wheelbase.reset();
  EXPECT_FALSE(dive_of(b));
}

TEST(Brakes, JointsTakeWhatTheirContactsMoveForward) {
  const auto dive_of = [](const Build& build) {
    const auto ends = ends_of(build);
    return roll(build, ends, {*ends[0].road, *ends[1].road}, 0)->dive.value();
  };
  const Dive bare = dive_of(test::read_once(test::pickup_with_joints()));
  EXPECT_FALSE(bare.by_joints[0] || bare.by_joints[1]) << "nobody knows";
  Build b = test::pickup_with_joints();
  const Dive solved = dive_of(b);
  ASSERT_TRUE(solved.by_joints[0] && solved.by_joints[1]);
  EXPECT_LT(std::abs(*solved.by_joints[0]), 1);
  // Its upper arm's rear joint lower, the front's contact moves forward more as it goes up: it dives less.
  for (build::HardPoint& p : b.ends[0].points.own().left)
    if (p.name == "upper_rear") p.z -= 0.02;
  const Dive against = dive_of(b);
  EXPECT_GT(*against.by_joints[0], *solved.by_joints[0]);
  EXPECT_LT(against.sinks, solved.sinks);
}

} // namespace
} // namespace mavrel::assess
