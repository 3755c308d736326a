// Where the parts of an end stand: against the linkage they are read from, between its poses, and without joints.
#include "assess/clearance/end_space.h"
#include "assess/end/end_model.h"

#include "support.h"

namespace mavrel::assess {
namespace {

using build::Build;

Answered<MotionQuestion> motion_of(const Build& b, End end) {
  return Answered<MotionQuestion>(motion_given(b, Answered<SurveyQuestion>(survey_given(b, end))));
}
EndSpace space_of(const Build& b, End end) {
  return EndSpace::of(motion_of(b, end), 0.31).value();
}

TEST(EndSpace, StandsWhereTheLinkageSaysItDoes) {
  const auto motion = motion_of(test::pickup_with_joints(), End::front);
  const EndSpace space = EndSpace::of(motion, 0.31).value();
  const auto& linkage = *motion->corner;
  const auto hub = *linkage.geometry().at(motion::Joint::wheel_centre);
  for (double dh = -0.12; dh < 0.06; dh += 0.013) {
    const auto pose = linkage.solve(dh).value();
    const Stand stand = space.at(motion->surveyed_height + dh);
    // Between solved poses it is a straight line: they lie a centimetre apart.
    EXPECT_NEAR(space::length(stand.wheel.centre - pose.upright.place(hub)), 0, 3e-4) << dh;
    EXPECT_NEAR(-std::asin(stand.wheel.outward.z), pose.camber, 3e-4) << dh;
    EXPECT_NEAR(std::atan2(stand.wheel.outward.x, stand.wheel.outward.y), pose.toe, 3e-4) << dh;
    ASSERT_TRUE(stand.damper && stand.seats);
    EXPECT_NEAR(space::length(stand.damper->to - stand.damper->from), pose.damper->length, 4e-4) << dh;
    EXPECT_NEAR(space::length((*stand.seats)[0] - (*stand.seats)[1]), pose.spring->length, 4e-4) << dh;
    EXPECT_EQ(stand.arms.size(), motion::bars_of(linkage.geometry().shape).size());
  }
}

TEST(EndSpace, TurnsToEitherLockByAsMuchAsItIsSaidTo) {
  const EndSpace space = space_of(test::pickup_with_joints(), End::front);
  ASSERT_TRUE(space.steers());
  const auto heading = [](const Stand& s) { return std::atan2(-s.wheel.outward.x, s.wheel.outward.y); };
  const double H0 = space.surveyed_height();
  const double straight = heading(space.at(H0));
  EXPECT_NEAR(heading(space.at(H0, Lock::left)) - straight, space.lock(), 2e-3);
  EXPECT_NEAR(heading(space.at(H0, Lock::right)) - straight, -space.lock(), 2e-3);
  // Any angle between is solved by itself.
  for (const double share : {-0.8, -0.3, 0.4, 1.0}) {
    const auto stand = space.steered(H0, share * space.lock());
    ASSERT_TRUE(stand);
    EXPECT_NEAR(heading(*stand) - straight, share * space.lock(), 2e-3) << share;
  }
}

TEST(EndSpace, ASolidAxleTurnsWithItsTwoWheelsAndOthersDoNot) {
  const EndSpace rear = space_of(test::pickup_with_joints(), End::rear);
  const double H0 = rear.surveyed_height();
  const Stand level = rear.at(H0), even = rear.uneven(H0, H0).value();
  EXPECT_NEAR(space::length(level.wheel.centre - even.wheel.centre), 0, 1e-9);
  const Stand up = rear.uneven(H0 - 0.03, H0 + 0.03).value(), down = rear.uneven(H0 + 0.03, H0 - 0.03).value();
  EXPECT_NEAR(up.wheel.centre.z - down.wheel.centre.z, 0.06, 1e-3) << "each as its own height says";
  EXPECT_NEAR(up.wheel.centre.z, level.wheel.centre.z + 0.03, 1e-3);
  const double turned = std::atan2(0.06, 2 * rear.hub().y);
  EXPECT_NEAR(std::asin(up.wheel.outward.z) - std::asin(level.wheel.outward.z), turned, 2e-3);
  ASSERT_TRUE(up.axle);
  EXPECT_GT(up.axle->from.z, up.axle->to.z) << "the axle lies as its wheels do";
  EXPECT_FALSE(rear.uneven(H0, H0 + 0.8));
  // Without joints it turns about its middle as much.
  Build taped = test::pickup_with_joints();
  taped.ends[1].points.own().left.clear();
  const EndSpace straight = space_of(taped, End::rear);
  const Stand tilted = straight.uneven(H0 - 0.03, H0 + 0.03).value();
  EXPECT_NEAR(tilted.wheel.centre.z, straight.at(H0).wheel.centre.z + 0.03, 1e-3);
  EXPECT_NEAR(std::asin(tilted.wheel.outward.z), turned, 1e-3);
  // A wheel of its own asks nobody.
  const EndSpace front = space_of(test::pickup_with_joints(), End::front);
  const double at = front.surveyed_height() - 0.02;
  EXPECT_EQ(front.uneven(at, at + 0.05)->wheel.centre, front.at(at).wheel.centre);
}

TEST(EndSpace, AllAtOnceIsTheSameAsOneByOne) {
  for (const Build* b : {&test::pickup_with_joints(), &test::demo_whole()}) {
    const EndSpace space = space_of(*b, End::front);
    const double lock = space.lock();
    const std::vector<double> heights = {space.surveyed_height() - 0.05, space.surveyed_height(),
                                         space.surveyed_height() + 0.03};
    const std::vector<double> angles = {-lock, -0.4 * lock, 0, 0.7 * lock};
    const auto all = space.grid(heights, angles);
    ASSERT_EQ(all.size(), 12U);
    for (std::size_t i = 0; i < 3; ++i)
      for (std::size_t k = 0; k < 4; ++k) {
        const auto one = space.steered(heights[i], angles[k]);
        ASSERT_TRUE(one && all[i * 4 + k]);
        EXPECT_NEAR(space::length(one->wheel.centre - all[i * 4 + k]->wheel.centre), 0, 3e-4);
        EXPECT_NEAR(space::length(one->wheel.outward - all[i * 4 + k]->wheel.outward), 0, 1e-3);
      }
  }
}

TEST(EndSpace, StandsLieEvenlyOverHeightSoThatCurvesCanBeReadFromThem) {
  for (const Build* b : {&test::pickup_whole(), &test::demo_whole()})
    for (const End end : build::both_ends) {
      const EndSpace space = space_of(*b, end);
      for (const Lock lock : all_locks) {
        const auto& stands = space.stands(lock);
        ASSERT_GE(stands.size(), 2U);
        const double step = stands[1].H - stands[0].H;
        EXPECT_GT(step, 0);
        for (std::size_t i = 1; i < stands.size(); ++i)
          EXPECT_NEAR(stands[i].H - stands[i - 1].H, step, 1e-9);
      }
      EXPECT_FALSE(space.steers() && end == End::rear);
    }
}

TEST(EndSpace, WithoutJointsTheWheelGoesStraightUpAndDownLeaningAsTheSheetHasIt) {
  const EndSpace space = space_of(test::demo_whole(), End::front);
  EXPECT_FALSE(space.solved());
  const Stand low = space.at(0.32), high = space.at(0.40);
  EXPECT_NEAR(low.wheel.centre.z - high.wheel.centre.z, 0.08, 1e-9);
  EXPECT_NEAR(low.wheel.centre.y, *test::demo_whole().ends[0].track / 2, 1e-12);
  EXPECT_LT(-std::asin(low.wheel.outward.z), -std::asin(high.wheel.outward.z)) << "more negative camber lower down";
  EXPECT_FALSE(low.damper);
  EXPECT_FALSE(low.seats);
}

TEST(EndSpace, ThereIsNoneWithoutAHeightOrATrack) {
  Build b = test::demo_build();
  b.ends[0].track.reset();
  EXPECT_FALSE(EndSpace::of(motion_of(b, End::front), 0.31));
  b = test::demo_build();
  EXPECT_FALSE(EndSpace::of(motion_of(b, End::front), std::nullopt)) << "no tyre";
  for (auto& corner : b.ends[0].corners)
    corner.height.values.clear();
  EXPECT_FALSE(EndSpace::of(motion_of(b, End::front), 0.31));
}

TEST(EndSpace, NothingIsSaidBeyondWhereItIsKnown) {
  const EndSpace space = space_of(test::demo_whole(), End::front);
  EXPECT_FALSE(space.steered(space.highest() + 0.02, 0));
  EXPECT_FALSE(space.steered(space.lowest() - 0.02, 0.1));
  EXPECT_TRUE(space.steered(space.highest(), 0));
}

TEST(EndSpace, ADropSpindleCarriesTheHubHigherAtTheSameArms) {
  Build b = test::pickup_with_joints();
  const EndSpace before = space_of(b, End::front);
  b.variant().fit[0].mounting.drop_spindle = 0.05;
  const EndSpace after = space_of(b, End::front);
  // The same place of the arms is a height lower by the spindle, and the hub stands so much higher in the body.
  EXPECT_NEAR(after.surveyed_height(), before.surveyed_height() - 0.05, 1e-12);
  const Stand a = before.at(before.surveyed_height()), c = after.at(after.surveyed_height());
  EXPECT_NEAR(c.wheel.centre.z - a.wheel.centre.z, 0.05, 1e-9);
  EXPECT_NEAR(space::length(c.damper->from - a.damper->from), 0, 1e-9);
}

TEST(EndSpace, ASolidAxlesTubeReachesFromWheelToWheel) {
  const EndSpace space = space_of(test::pickup_with_joints(), End::rear);
  const Stand stand = space.at(space.surveyed_height());
  ASSERT_TRUE(stand.axle);
  EXPECT_NEAR(stand.axle->from.y, -stand.axle->to.y, 1e-6);
  EXPECT_NEAR(space::length(stand.axle->from - stand.wheel.centre), 0, 1e-6);
  EXPECT_DOUBLE_EQ(stand.axle->radius, 0.038);
  EXPECT_FALSE(space_of(test::pickup_with_joints(), End::front).at(0.5).axle);
}

TEST(EndSpace, OnlyHeightsWorthLookingAtAreKept) {
  const auto motion = motion_of(test::pickup_with_joints(), End::front);
  const EndSpace all = EndSpace::of(motion, 0.31).value();
  const EndSpace some = EndSpace::of(motion, 0.31, 0.45, 0.55).value();
  EXPECT_LT(some.stands(Lock::straight).size(), all.stands(Lock::straight).size());
  EXPECT_LE(some.lowest(), 0.45);
  EXPECT_GT(some.lowest(), 0.42);
  EXPECT_GE(some.highest(), 0.55);
  EXPECT_LT(some.highest(), 0.58);
  EXPECT_NEAR(space::length(some.at(0.50).wheel.centre - all.at(0.50).wheel.centre), 0, 1e-12);
}

} // namespace
} // namespace mavrel::assess
