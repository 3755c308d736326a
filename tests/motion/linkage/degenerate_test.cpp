// Joints that are no linkage, and heights that no joints reach: said with the joint's name, never a number that is
// none.
#include "motion/linkage/geometries.h"

#include <cmath>

namespace mavrel::motion {
namespace {

Joint troubled(const Geometry& g) {
  const auto mistake = mistake_in(g);
  EXPECT_TRUE(mistake);
  EXPECT_FALSE(mistake && say(mistake->what).empty());
  return mistake && mistake->joint ? *mistake->joint : Joint::damper_foot;
}

TEST(Joints, WhatIsMissingOrLiesOnAnotherIsNamed) {
  const Geometry good = reference("double-wishbone");
  EXPECT_FALSE(mistake_in(good));
  for (const JointRow& row : joints_of(Shape::double_arm)) {
    if (!row.needed) continue;
    Geometry g = good;
    g.at(row.joint).reset();
    EXPECT_EQ(troubled(g), row.joint) << row.name;
    g.at(row.joint) = Point{0, NAN, 0.2};
    EXPECT_EQ(troubled(g), row.joint) << row.name;
  }
  Geometry g = good;
  g.at(Joint::lower_outer) = g.at(Joint::lower_front);
  EXPECT_EQ(troubled(g), Joint::lower_outer);
  g = good;
  g.at(Joint::upper_rear) = *g.at(Joint::upper_front) + Point{0.001, 0, 0};
  EXPECT_EQ(troubled(g), Joint::upper_rear);
  g = good; // a ball joint on the axis its arm turns about
  g.at(Joint::lower_outer) = 0.5 * (*g.at(Joint::lower_front) + *g.at(Joint::lower_rear));
  EXPECT_EQ(troubled(g), Joint::lower_outer);
  g = good;
  g.at(Joint::spring_body).reset();
  EXPECT_EQ(troubled(g), Joint::spring_body) << "a spring has two ends or none";
  g.at(Joint::spring_foot).reset();
  EXPECT_FALSE(mistake_in(g));
  g.spring_foot = Part::axle;
  EXPECT_TRUE(mistake_in(g)) << "a wishbone has no axle to carry it";
}

TEST(Joints, NoPoseIsEverMadeOfNumbersThatAreNone) {
  // Any joint moved anywhere: an answer that is sound, or the joint that stops it.
  for (const char* name : corners)
    EXPECT_TRUE(rc::check(name, [&] {
      Geometry g = reference(name);
      const auto rows = joints_of(g.shape);
      const auto& row = rows[*rc::gen::inRange<std::size_t>(0, rows.size())];
      if (g.at(row.joint))
        g.at(row.joint) = Point{*rc::gen::inRange(-400, 400) * 1e-3, *rc::gen::inRange(-200, 900) * 1e-3,
                                *rc::gen::inRange(-100, 900) * 1e-3};
      if (mistake_in(g)) return;
      const CornerLinkage linkage(g);
      for (const double dh : {-0.15, -0.02, 0.0, 0.1, 0.6}) {
        const auto pose = linkage.solve(dh);
        if (!pose) {
          RC_ASSERT(std::isfinite(pose.error().reached));
          RC_ASSERT(std::abs(pose.error().reached) <= std::abs(dh) + 1e-9);
          continue;
        }
        RC_ASSERT(std::isfinite(pose->camber) && std::isfinite(pose->toe));
        RC_ASSERT(std::isfinite(length(pose->wheel_shift)));
        if (pose->spring) RC_ASSERT(std::isfinite(pose->spring->length) && std::isfinite(pose->spring->ratio));
        for (const BarRow& bar : bars_of(g.shape))
          RC_ASSERT(std::abs(length(linkage.joint(bar.to, *pose) - linkage.joint(bar.from, *pose)) -
                             length(*g.at(bar.to) - *g.at(bar.from))) < 1e-6);
      }
    }));
}

TEST(Joints, AHeightOutOfReachNamesTheJointThatStopsIt) {
  const CornerLinkage wishbones(reference("double-wishbone"));
  const auto high = wishbones.solve(0.6);
  ASSERT_FALSE(high);
  EXPECT_EQ(high.error().joint, Joint::upper_outer) << "the short upper arm stands up first";
  EXPECT_GT(high.error().reached, 0.15);
  ASSERT_TRUE(wishbones.solve(high.error().reached - 0.002)) << "up to there it goes";
  EXPECT_FALSE(wishbones.solve(high.error().reached + 0.002));

  // A trailing arm's wheel goes no higher than the arm is long.
  const Geometry g = reference("trailing-arm");
  const auto arm = CornerLinkage(g).solve(0.9);
  ASSERT_FALSE(arm);
  EXPECT_EQ(arm.error().joint, Joint::hinge_outer);

  const auto axle = AxleLinkage(reference("solid-axle")).solve_level(0.9);
  ASSERT_FALSE(axle);
  EXPECT_TRUE(std::isfinite(axle.error().reached));
}

TEST(Joints, AnArmThatStandsOnItsEndSaysSoAtOnce) {
  Geometry g = reference("trailing-arm"); // the wheel straight below the hinge
  g.at(Joint::hinge_inner) = Point{0, 0.2, 0.8};
  g.at(Joint::hinge_outer) = Point{0, 0.9, 0.8};
  EXPECT_FALSE(mistake_in(g));
  EXPECT_FALSE(CornerLinkage(g).solve(0.01));
}

TEST(Joints, ParallelLinksLeaveTheAxleLevel) {
  Geometry g = reference("solid-axle"); // links of one direction hold no roll: it stays as it is
  g.at(Joint::lower_body) = *g.at(Joint::lower_axle) + Point{0.6, 0, 0};
  g.at(Joint::upper_body) = *g.at(Joint::upper_axle) + Point{0.6, 0, 0};
  const AxleLinkage axle(g);
  for (const double dh : {-0.05, -0.01, 0.03}) {
    const auto pose = axle.solve_level(dh);
    ASSERT_TRUE(pose);
    EXPECT_NEAR(pose->roll, 0, 1e-9);
    EXPECT_TRUE(std::isfinite(pose->spring->ratio));
  }
}

} // namespace
} // namespace mavrel::motion
