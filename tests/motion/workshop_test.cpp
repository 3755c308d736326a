// The bench's sums, each against what it claims, done.
#include "motion/workshop.h"

#include "motion/linkage/geometries.h"

#include <cmath>

namespace mavrel::motion {
namespace {

TEST(Workshop, AShiftedUpperJointGivesTheCasterWanted) {
  for (const char* name : {"double-wishbone", "strut"}) {
    const Geometry g = reference(name);
    const auto s = shift_for_caster(g, 7 * deg);
    ASSERT_TRUE(s);
    Geometry moved = g;
    const Joint upper = g.shape == Shape::strut ? Joint::strut_top : Joint::upper_outer;
    moved.at(upper)->x -= s->upper;
    EXPECT_NEAR(*CornerLinkage(moved).solve(0)->caster / deg, 7, 1e-9);
    EXPECT_GT(s->upper, 0);
    // The wheel's centre lies above the lower joint: it goes the same way, by less.
    EXPECT_GT(s->wheel, 0);
    EXPECT_LT(s->wheel, s->upper);
    const auto none = shift_for_caster(g, *CornerLinkage(g).solve(0)->caster);
    EXPECT_NEAR(none->upper, 0, 1e-12);
    EXPECT_NEAR(none->wheel, 0, 1e-12);
  }
  EXPECT_FALSE(shift_for_caster(reference("trailing-arm"), 0.1));
}

TEST(Workshop, TheShimSplitIsTheNearestThereIs) {
  EXPECT_TRUE(rc::check("shims", [] {
    const int shims = *rc::gen::inRange(0, 12);
    const double t = *rc::gen::inRange(5, 40) * 1e-4, o = *rc::gen::inRange(-100, 100) * 1e-4,
                 s = *rc::gen::inRange(80, 300) * 1e-3, wanted = *rc::gen::inRange(-60, 60) * 1e-3;
    const auto split = split_shims(shims, t, o, s, wanted);
    RC_ASSERT(split.has_value());
    RC_ASSERT(std::abs(split->change - std::atan((o + (split->upper - split->lower) * t) / s)) < 1e-12);
    for (int d = -shims; d <= shims; ++d)
      RC_ASSERT(std::abs(split->left) <= std::abs(wanted - std::atan((o + d * t) / s)) + 1e-12);
    RC_ASSERT(std::min(split->upper, split->lower) == 0); // no shim inside that another inside undoes
  }));
  EXPECT_FALSE(split_shims(-1, 0.001, 0, 0.1, 0));
  EXPECT_FALSE(split_shims(4, 0.001, 0, 0, 0));
  EXPECT_NEAR(wedge_edge(1 * deg, 0.1), 0.1 * std::tan(1 * deg), 1e-12);
}

TEST(Workshop, DiagonalsTellTheYawAndItsShiftUndoesIt) {
  for (const double yaw : {-0.02, 0.0, 0.005, 0.03}) {
    const double frame = 0.9, axle = 1.3, along = 1.1;
    // Left end forward by yaw: the left end comes nearer to a frame point ahead of the axle.
    const double lx = along - axle / 2 * std::sin(yaw), ly = axle / 2 * std::cos(yaw);
    const double rx = along + axle / 2 * std::sin(yaw), ry = -ly;
    const auto s = squareness(std::hypot(rx, ry - frame / 2), std::hypot(lx, ly + frame / 2), frame, axle);
    ASSERT_TRUE(s);
    EXPECT_NEAR(s->yaw, yaw, 1e-9);
    EXPECT_NEAR(s->shift, axle * std::sin(yaw), 1e-9);
  }
  EXPECT_FALSE(squareness(0.5, 0.5, 0.9, 1.3));
  EXPECT_FALSE(squareness(3, 1.2, 0.9, 1.3));
}

TEST(Workshop, ALinkIsCutSoThatItsThreadsHold) {
  const auto cut = cut_link(0.655, 0.048, 0.052, 0.060, 0.016);
  ASSERT_TRUE(cut);
  EXPECT_NEAR(cut->tube, 0.555, 1e-12);
  EXPECT_NEAR(cut->longer, 2 * (0.030 - 0.024), 1e-12);
  EXPECT_NEAR(cut->shorter, 0.060, 1e-12);
  EXPECT_FALSE(cut_link(0.655, 0.048, 0.052, 0.040, 0.016)) << "20 mm of an M16 is too little";
  EXPECT_FALSE(cut_link(0.09, 0.048, 0.052, 0.060, 0.016));
}

TEST(Workshop, ANotchIsAsDeepAsTheTubeRisesIntoTheRail) {
  const Notch n = notch_for(0.085, 0.010, 0.535, 0.417);
  EXPECT_NEAR(n.deep, 0.043, 1e-12);
  EXPECT_NEAR(n.lowest, 0.460, 1e-12);
  EXPECT_EQ(notch_for(0.085, 0.010, 0.535, 0.500).deep, 0);
}

TEST(Workshop, ALevelledBarShiftsLessAndAgainNothingToGain) {
  Geometry g = reference("solid-axle");
  const auto level = level_bar(g, -0.08, 0.04);
  ASSERT_TRUE(level);
  EXPECT_LT(level->after, level->before);
  g.at(Joint::bar_body)->z += level->raise;
  const auto again = level_bar(g, -0.08, 0.04);
  ASSERT_TRUE(again);
  EXPECT_NEAR(again->before, level->after, 1e-6);
  EXPECT_NEAR(again->raise, 0, 0.002);
  g.at(Joint::bar_body).reset(), g.at(Joint::bar_axle).reset();
  EXPECT_FALSE(level_bar(g, -0.08, 0.04));
}

TEST(Workshop, TheRodIsNearestWhereItSays) {
  const Geometry g = reference("strut");
  const auto gap = rod_to_damper(g, -0.08, 0.05, 0.5);
  ASSERT_TRUE(gap);
  EXPECT_GT(gap->gap, 0);
  // A damper moved onto the rod's line is touched.
  Geometry touching = g;
  touching.at(Joint::damper_foot) = 0.5 * (*g.at(Joint::rod_inner) + *g.at(Joint::rod_outer));
  touching.at(Joint::damper_body) = *touching.at(Joint::damper_foot) + Point{0, 0, 0.3};
  EXPECT_LT(rod_to_damper(touching, -0.01, 0.01, 0)->gap, 0.004);
  EXPECT_FALSE(rod_to_damper(reference("solid-axle"), -0.05, 0.05, 0.3));
}

} // namespace
} // namespace mavrel::motion
