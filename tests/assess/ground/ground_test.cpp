// The car over what lies on the ground: what touches, and at which heights it does not.
#include "assess/assess.h"
#include "assess/ground/ground.h"

#include "support.h"

namespace mavrel::assess {
namespace {

using build::Build;

GroundGiven given_of(const Build& b) {
  return assess(b, test::demo_shelf()).ground.given();
}
const build::Ground& ramp() {
  return test::demo_whole().variant().brief.grounds[0];
}

TEST(GroundOfACar, TheEstatesLipMeetsTheHarbourRamp) {
  const auto a = assess(test::demo_whole(), test::demo_shelf());
  ASSERT_TRUE(a.ground->known);
  const auto over = std::find_if(a.ground->crossings.begin(), a.ground->crossings.end(), [&](const Crossing& one) {
    return a.ground.given().grounds[one.ground].name == "harbour ramp";
  });
  ASSERT_NE(over, a.ground->crossings.end());
  const Crossing& c = *over;
  ASSERT_TRUE(c.gap);
  EXPECT_LT(c.gap->gap, 0);
  EXPECT_EQ(c.point, "lip");
  EXPECT_TRUE(std::any_of(a.findings.begin(), a.findings.end(), [](const Finding& f) {
    return f.code == "meets_ground" && f.severity == Severity::stop &&
           say(f.title) == "Ramp: the lip meets the harbour ramp";
  }));
}

TEST(GroundOfACar, TheLeastHeightsJustClear) {
  const GroundGiven given = given_of(test::demo_whole());
  const double front = 0.424, rear = 0.412;
  const LeastHeights least = least_heights(given, ramp(), front, rear, {0.50, 0.50});
  const auto gap = [&](double f, double r) {
    return space::least_gap(*underside_at(given, f, r), *profile_of(ramp()))->gap;
  };
  ASSERT_TRUE(least.front_alone && least.both);
  EXPECT_NEAR(gap(*least.front_alone, rear), ramp().margin, 1e-3);
  EXPECT_GE(gap(*least.front_alone, rear), ramp().margin);
  EXPECT_NEAR(gap(front + *least.both, rear + *least.both), ramp().margin, 1e-3);
  EXPECT_GT(*least.front_alone, front);
  // What clears already is left where it is.
  EXPECT_DOUBLE_EQ(*least_heights(given, ramp(), 0.50, 0.50, {0.6, 0.6}).front_alone, 0.50);
  // And what no height gets over is said so.
  build::Ground wall = ramp();
  wall.margin = 0.2;
  EXPECT_FALSE(least_heights(given, wall, front, rear, {0.45, 0.45}).rear_alone);
}

TEST(GroundOfACar, StandsOnWhatItIsDrivenOverAtItsWorst) {
  const GroundGiven given = given_of(test::demo_whole());
  const double front = 0.424, rear = 0.412;
  const auto first = stand_on(given, 0, front, rear, 0);
  ASSERT_TRUE(first && !first->profile.empty());
  const double worst = worst_place(*first);
  const auto there = stand_on(given, 0, front, rear, worst);
  ASSERT_TRUE(there && there->stance && there->here);
  for (const double by : {-0.3, -0.05, 0.05, 0.3})
    EXPECT_GE(stand_on(given, 0, front, rear, worst + by)->here->gap, there->here->gap) << by;
  // On the floor nothing is worse than anything else.
  const auto floor = stand_on(given, std::nullopt, front, rear, 3);
  ASSERT_TRUE(floor && floor->here);
  EXPECT_TRUE(floor->profile.empty());
  EXPECT_EQ(worst_place(*floor), 0);
  EXPECT_TRUE(stand_on(given, 99, front, rear, 3)->profile.empty()) << "one that went meanwhile";
  EXPECT_FALSE(stand_on({}, 0, front, rear, 0)) << "a car nobody knows";
}

TEST(GroundOfACar, ThePlaneIsTheGapAtEveryPairOfHeights) {
  const GroundGiven given = given_of(test::demo_whole());
  const auto plane = ground_plane(given, ramp(), {0.30, 0.32}, {0.46, 0.44}, 4);
  ASSERT_TRUE(plane);
  for (std::size_t f = 0; f < 4; ++f)
    for (std::size_t r = 0; r < 4; ++r) {
      const auto gap = space::least_gap(*underside_at(given, plane->front[f], plane->rear[r]), *profile_of(ramp()));
      EXPECT_NEAR(plane->at(f, r), gap->gap - ramp().margin, 1e-12);
      if (f == 0) continue;
      EXPECT_GE(plane->at(f, r), plane->at(f - 1, r) - 0.02) << "a higher nose does not get nearer";
    }
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(ground_plane(given, ramp(), {0.3, 0.3}, {0.4, 0.4}, 4, stop));
}

TEST(GroundOfACar, TheWayCounts) {
  const GroundGiven given = given_of(test::demo_whole());
  const std::array<double, 2> low{0.307, 0.323}, high{0.424, 0.412};
  const auto together = least_on_the_way(given, {}, 0, low, high, Order::together);
  const auto front = least_on_the_way(given, {}, 0, low, high, Order::front_first);
  const auto rear = least_on_the_way(given, {}, 0, low, high, Order::rear_first);
  ASSERT_TRUE(together && front && rear);
  // Parked is the lowest of all ways up; raising the rear first tips the nose down before it comes up.
  EXPECT_LT(rear->gap, together->gap);
  EXPECT_GE(front->gap, rear->gap);
}

TEST(GroundOfACar, OtherTyresLiftItByWhatTheirRadiiGain) {
  Build b = test::demo_whole();
  const double before = space::least_gap(*underside_at(given_of(b), 0.36, 0.37), {})->gap;
  for (auto& fit : b.variant().fit)
    fit.wheel = "215/55R17 7.5 ET42";
  const GroundGiven given = given_of(b);
  EXPECT_NEAR(space::least_gap(*underside_at(given, 0.36, 0.37), {})->gap - before, 0.1 * 0.215, 1e-6);
}

TEST(GroundOfACar, ProfilesThatAreNoneAreSaid) {
  build::Ground g;
  EXPECT_FALSE(profile_of(g));
  g.points = {{0, 0, {}}, {0, 0.1, {}}};
  EXPECT_FALSE(profile_of(g));
  g.points = {{0, 0, {}}, {0.1, 0.1, {}}};
  EXPECT_TRUE(profile_of(g));
  for (const build::Ground& usual : usual_grounds())
    EXPECT_TRUE(profile_of(usual)) << usual.name;
}

TEST(GroundOfACar, NothingIsKnownWithoutAnUndersideOrAWheelbase) {
  Build b = test::demo_whole();
  b.body.underside = {};
  EXPECT_FALSE(assess(b, test::demo_shelf()).ground->known);
  b = test::demo_whole();
  b.body.wheelbase.reset();
  EXPECT_FALSE(assess(b, test::demo_shelf()).ground->known);
}

} // namespace
} // namespace mavrel::assess
