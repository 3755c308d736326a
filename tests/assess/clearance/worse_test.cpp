// Worse stays worse: what overlaps, what is bolted to what, the other side, and another tyre.
#include "assess/asked.h"
#include "assess/assess.h"

#include "motion/wheel.h"

#include "support.h"

namespace mavrel::assess {
namespace {

using build::ObstacleShape;

Assessment looked_at(const Build& b) {
  return assess(b, test::demo_shelf());
}
double width(const std::optional<Window>& window) {
  return window ? window->width() : 0;
}
const GapCurve* gap_of(const EndAssessment& end, Mover mover, OwnPart own) {
  for (const GapCurve& gap : end.gaps)
    if (gap.mover == mover && gap.near.own == own) return &gap;
  return nullptr;
}
build::Obstacle rail(double y) {
  build::Obstacle o;
  o.name = "side rail";
  o.shape = ObstacleShape::box;
  o.x = 0, o.y = y, o.z = 0.43;
  o.size_x = 0.6, o.size_y = 0.08, o.size_z = 0.06;
  return o;
}

TEST(Worse, AWheelSetFurtherInNeverGetsAWindowBack) {
  Build b = test::pickup_with_joints();
  b.ends[0].obstacles.clear();
  double before = 1;
  for (const int offset : {-10, 15, 40, 75, 90}) {
    b.variant().fit[0].wheel = "245/60R18 8.5 ET" + std::to_string(offset);
    const double now = width(looked_at(b).end(End::front).windows.road);
    EXPECT_LE(now, before + 1e-4) << "ET" << offset;
    before = now;
  }
  EXPECT_EQ(before, 0) << "at ET90 the wheel stands in its own arms";
}

TEST(Worse, AnExcusedTyreMayOnlyGoDownFromWhatItOverlaps) {
  // A small box that the tyre stands in as surveyed: no wheel gets to a pocket behind it, so no reach is left.
  Build b = test::pickup_with_joints();
  build::Obstacle box;
  box.name = "tab", box.shape = ObstacleShape::box;
  box.x = 0.09, box.y = 0.727, box.z = 0.66;
  box.size_x = 0.1, box.size_y = 0.1, box.size_z = 0.04;
  b.ends[0].obstacles = {};
  b.ends[0].obstacles.push_back(box);
  EXPECT_EQ(width(looked_at(b).end(End::front).windows.reach), 0);
}

TEST(Worse, ARailMovedIntoTheBagNeverGivesAWindowBack) {
  Build b = test::pickup_with_joints();
  b.ends[0].obstacles.clear();
  double before = 1;
  for (const double y : {0.44, 0.48, 0.52, 0.53, 0.54, 0.56, 0.60}) {
    b.ends[0].obstacles = {};
    b.ends[0].obstacles.push_back(rail(y));
    const auto a = looked_at(b);
    const double now = width(a.end(End::front).windows.reach);
    EXPECT_LE(now, before + 1e-4) << y;
    before = now;
    if (y >= 0.54) {
      EXPECT_NE(finding(a, "touches_as_measured"), nullptr) << y;
    }
  }
  EXPECT_EQ(before, 0) << "a bag was never on the car: nothing is excused";
}

TEST(Worse, WhatOverlappedAsSurveyedIsExcusedWhereItStoodAndNotBelow) {
  Build b = test::pickup_with_joints();
  b.ends[0].obstacles.clear();
  build::Obstacle o = rail(0.8);
  o.name = "liner above", o.z = 0.79, o.size_z = 0.1; // over the tyre
  const double H0 = *looked_at(b).end(End::front).surveyed_height;
  double low = 0;
  for (const double z : {0.82, 0.803, 0.795, 0.78}) {
    o.z = z;
    b.ends[0].obstacles = {};
    b.ends[0].obstacles.push_back(o);
    const auto a = looked_at(b);
    const auto& reach = a.end(End::front).windows.reach;
    ASSERT_TRUE(reach) << z;
    EXPECT_GE(reach->low.height, low - 1e-4) << "nearer never frees a height: " << z;
    EXPECT_LE(reach->low.height, H0 + 2e-4) << z;
    low = reach->low.height;
  }
  EXPECT_NEAR(low, H0, 2e-4);
  const auto a = looked_at(b);
  const Finding* told = finding(a, "touches_as_measured");
  ASSERT_NE(told, nullptr);
  ASSERT_TRUE(told->number);
  EXPECT_GT(told->number->value, 0.005) << "with its figure";
  // What came since is not excused.
  b.ends[0].obstacles[0].on_car = build::OnCar::since;
  const auto since = looked_at(b);
  const auto& reach = since.end(End::front).windows.reach;
  EXPECT_TRUE(!reach || reach->low.height > H0 + 0.005);
  // Nor is another wheel.
  b.ends[0].obstacles[0].on_car = build::OnCar::as_surveyed;
  b.variant().fit[0].wheel = "245/60R18 8.5 ET0";
  const auto other = looked_at(b);
  const auto& other_reach = other.end(End::front).windows.reach;
  EXPECT_TRUE(!other_reach || other_reach->low.height > H0 + 0.005);
}

TEST(Worse, TheBagIsLookedAtAgainstWhatItIsNotBoltedTo) {
  const auto a = looked_at(test::pickup_with_joints());
  const EndAssessment &front = a.end(End::front), &rear = a.end(End::rear);
  EXPECT_NE(gap_of(front, Mover::bag, OwnPart::damper), nullptr);
  EXPECT_NE(gap_of(front, Mover::bag, OwnPart::upper_arm), nullptr);
  EXPECT_EQ(gap_of(front, Mover::bag, OwnPart::lower_arm), nullptr) << "it stands on that";
  EXPECT_NE(gap_of(front, Mover::tyre, OwnPart::track_rod), nullptr);
  EXPECT_NE(gap_of(front, Mover::tyre, OwnPart::lower_arm), nullptr);
  EXPECT_EQ(gap_of(rear, Mover::bag, OwnPart::axle), nullptr) << "it stands on that";
  EXPECT_NE(gap_of(rear, Mover::bag, OwnPart::upper_link), nullptr);
  // A damper in the bag leaves nowhere to stand, and says so.
  Build b = test::pickup_with_joints();
  for (build::HardPoint& p : b.ends[0].points.own().left)
    if (p.name.starts_with("damper")) p.x = 0.05;
  const auto in_it = looked_at(b);
  EXPECT_FALSE(in_it.end(End::front).windows.reach);
  EXPECT_NE(finding(in_it, "touches_as_measured"), nullptr);
  // Around its damper it has that inside.
  b.ends[0].spring_place = build::SpringPlace::around_damper;
  EXPECT_EQ(gap_of(looked_at(b).end(End::front), Mover::bag, OwnPart::damper), nullptr);
}

TEST(Worse, WhatIsBoltedToTheDamperMayTouchIt) {
  Build b = test::pickup_whole();
  ASSERT_FALSE(b.ends[1].obstacles.empty());
  ASSERT_EQ(std::as_const(b).ends[1].obstacles[0].name, "rail");
  const auto to_rail = [](const Assessment& a) {
    const auto& blocked = a.end(End::rear).windows.reach_blocked;
    return std::any_of(blocked.begin(), blocked.end(),
                       [](const Stretch& s) { return s.limit == &limits::arm_near && s.near == "rail"; });
  };
  EXPECT_FALSE(to_rail(looked_at(b)));
  b.ends[1].obstacles[0].bolted_to = build::BoltedTo::nothing;
  const auto a = looked_at(b);
  EXPECT_TRUE(to_rail(a));
  EXPECT_NE(finding(a, "touches_as_measured"), nullptr);
}

TEST(Worse, AnObstacleAtTheRightLimitsTheRightSide) {
  Build left = test::pickup_with_joints(), right = left;
  build::Obstacle o = rail(0.56);
  o.size_y = 0.05, o.z = 0.70;
  left.ends[0].obstacles.push_back(o);
  o.y = -o.y;
  right.ends[0].obstacles.push_back(o);
  const auto a = looked_at(left), b = looked_at(right);
  for (const auto window : {&Windows::reach, &Windows::road}) {
    const auto &x = a.end(End::front).windows.*window, &y = b.end(End::front).windows.*window;
    ASSERT_EQ(x.has_value(), y.has_value());
    if (!x) continue;
    EXPECT_NEAR(x->low.height, y->low.height, 1e-6);
    EXPECT_NEAR(x->high.height, y->high.height, 1e-6);
  }
  const auto& gaps = b.end(End::front).gaps;
  EXPECT_TRUE(std::any_of(gaps.begin(), gaps.end(), [](const GapCurve& g) {
    return g.near.right && say(g.near.told()) == "side rail at the right";
  }));
}

TEST(Worse, TheWorseSideHoldsAndNotTheMean) {
  // A strut car jacked through on both sides: the right spring is 12 mm shorter all the way.
  Build b = test::demo_with_sheets();
  const auto alike = looked_at(b);
  for (std::size_t i = 0; i < b.ends[0].cycle.size(); ++i) {
    build::CycleRow row = std::as_const(b).ends[0].cycle[i];
    row.gaps.clear();
    if (row.spring) *row.spring -= 0.012;
    b.ends[0].cycle_right.push_back(row);
  }
  const auto a = looked_at(b);
  const auto collapsed = [](const Assessment& of) {
    double most = 0;
    for (const Stretch& s : of.end(End::front).windows.reach_blocked)
      if (s.limit == &limits::bag_collapsed) most = std::max(most, s.to);
    return most;
  };
  const FittedEnd end = fitted_end(b, test::demo_shelf(), End::front);
  const double ratio = end.model.map->at(*end.model.surveyed_height).motion_ratio;
  ASSERT_TRUE(end.model.sides[1]);
  if (collapsed(alike) > 0) {
    EXPECT_NEAR(collapsed(a) - collapsed(alike), 0.012 / ratio, 0.0015);
  }
  // The window of both is the worse one's.
  const auto& reach = a.end(End::front).windows.reach;
  ASSERT_TRUE(reach);
  for (const auto& side : end.model.sides) {
    const BagOnEnd on(*side, *end.bag, end.stack);
    if (const auto down = on.height_for_bag(on.least_bag_height())) {
      EXPECT_GE(reach->low.height, *down - 1e-6);
    }
    if (const auto full = on.height_for_bag(on.card().max_height)) {
      EXPECT_LE(reach->high.height, *full + 1e-6);
    }
  }
}

TEST(Worse, ALargerTyreClosesATapedGap) {
  Build b = test::demo_build();
  build::Obstacle o;
  o.name = "liner", o.gap = 0.188, o.gap_height = 0.371;
  b.ends[0].obstacles = {};
  b.ends[0].obstacles.push_back(o);
  const auto before = looked_at(b);
  EXPECT_NEAR(*before.end(End::front).gaps.front().at(0.371, false), 0.188, 1e-6) << "what was taped stands";
  const auto was = motion::parse_wheel(b.ends[0].wheel);
  ASSERT_TRUE(was);
  b.variant().fit[0].wheel = "215/55R17 7.5 ET42";
  const auto larger = motion::parse_wheel(b.variant().fit[0].wheel);
  const double grown = (motion::wheel_space(*larger).diameter - motion::wheel_space(*was).diameter) / 2;
  ASSERT_GT(grown, 0.015);
  const auto after = looked_at(b);
  EXPECT_NEAR(*after.end(End::front).gaps.front().at(0.371, false), 0.188 - grown - b.variant().brief.rooms.tyre_growth,
              1e-6);
}

TEST(Worse, AGapTapedAtLockIsTrueAtItsOwnHeight) {
  Build b = test::pickup_with_joints();
  build::Obstacle o;
  o.name = "bumper stay", o.gap = 0.041, o.gap_at = build::GapAt::lock, o.gap_way = build::GapWay::ahead;
  b.ends[0].obstacles = {};
  b.ends[0].obstacles.push_back(o);
  const auto a = looked_at(b);
  const double H0 = *a.end(End::front).surveyed_height;
  for (const GapCurve& gap : a.end(End::front).gaps)
    if (gap.near.name == o.name) {
      EXPECT_NEAR(*gap.at(H0, true), 0.041, 1e-4);
    }
}

TEST(Worse, AGapTapedFromTheBagCounts) {
  Build b = test::demo_build();
  ASSERT_NE(finding(looked_at(b), "tyre_to_bag_unknown"), nullptr);
  build::Obstacle o;
  o.name = "tyre to bag", o.gap = 0.009, o.gap_from = build::GapFrom::tyre_to_bag, o.gap_way = build::GapWay::inboard;
  b.ends[0].obstacles.push_back(o);
  const auto a = looked_at(b);
  EXPECT_EQ(finding(a, "tyre_to_bag_unknown"), nullptr);
  const auto& end = a.end(End::front);
  const auto gap =
      std::find_if(end.gaps.begin(), end.gaps.end(), [&](const GapCurve& g) { return g.near.name == o.name; });
  ASSERT_NE(gap, end.gaps.end());
  EXPECT_EQ(gap->mover, Mover::bag);
  EXPECT_NEAR(*gap->at(*end.surveyed_height, false), 0.009, 1e-5);
  // A bag is thicker further down: there the gap is less.
  EXPECT_LT(*gap->at(*end.surveyed_height - 0.04, false), 0.009);
  EXPECT_TRUE(std::any_of(end.windows.road_blocked.begin(), end.windows.road_blocked.end(),
                          [&](const Stretch& s) { return s.limit == &limits::bag_near && s.near == o.name; }));
}

} // namespace
} // namespace mavrel::assess
