// What is near the wheels, and which heights that forbids.
#include "assess/assess.h"
#include "assess/interference/near_at.h"

#include "motion/wheel.h"

#include "support.h"

#include <random>

namespace mavrel::assess {
namespace {

using build::Build;
using build::ObstacleShape;

const EndAssessment& front_of(const Assessment& a) {
  return a.end(End::front);
}
Assessment assessed(const Build& b) {
  return assess(b, test::demo_shelf());
}

/// A gap taped at the surveyed height of the front.
build::Obstacle taped(double gap, build::GapWay way = build::GapWay::above) {
  build::Obstacle o;
  o.name = "cross tube";
  o.gap = gap;
  o.gap_way = way;
  return o;
}
build::Obstacle box(double x, double y, double z, double size) {
  build::Obstacle o;
  o.name = "box";
  o.shape = ObstacleShape::box;
  o.x = x, o.y = y, o.z = z;
  o.size_x = o.size_y = o.size_z = size;
  return o;
}

TEST(Clearance, OneTapedGapAtOneHeightBecomesALimitOfTheWindow) {
  Build b = test::demo_build();
  const auto before = assessed(b);
  const double H0 = *front_of(before).surveyed_height;
  b.ends[0].obstacles.push_back(taped(0.040));
  const auto after = assessed(b);
  const auto& reach = front_of(after).windows.reach;
  ASSERT_TRUE(reach);
  // Straight above the tyre the gap closes millimetre by millimetre.
  EXPECT_NEAR(reach->low.height, H0 - 0.040, 1e-4);
  ASSERT_TRUE(reach->low.governing);
  EXPECT_EQ(reach->low.governing->limit, &limits::tyre_near);
  EXPECT_EQ(reach->low.governing->near, "cross tube");
  EXPECT_EQ(say(name_of(*reach->low.governing)), "tyre too near: cross tube");
  ASSERT_TRUE(reach->low.height_per_metre);
  EXPECT_NEAR(*reach->low.height_per_metre, 1, 1e-6);
  const auto& road = front_of(after).windows.road;
  ASSERT_TRUE(road);
  EXPECT_NEAR(road->low.height, H0 - 0.040 + b.variant().brief.bump_travel, 1e-4) << "the bump travel is kept above it";
  const GapCurve& gap = front_of(after).gaps.at(0);
  EXPECT_EQ(gap.source, GapSource::taped);
  EXPECT_NEAR(*gap.at(H0, false), 0.040, 1e-9);
  EXPECT_NEAR(*gap.at(H0 + 0.02, false), 0.060, 1e-6);
  EXPECT_NEAR(*gap.taped_at, H0, 1e-12);
}

TEST(Clearance, AGapInboardStaysWhileAWheelGoesStraightUp) {
  Build b = test::demo_build();
  b.ends[0].obstacles.push_back(taped(0.012, build::GapWay::inboard));
  const auto a = assessed(b);
  const GapCurve& gap = front_of(a).gaps.at(0);
  for (const double H : {0.32, 0.36, 0.40})
    EXPECT_NEAR(*gap.at(H, false), 0.012, 1e-9);
}

TEST(Clearance, AGapTapedAtLockSaysNothingOfStraightAhead) {
  Build b = test::demo_build();
  b.ends[0].obstacles.push_back(taped(0.003));
  b.ends[0].obstacles[0].gap_at = build::GapAt::lock;
  const auto a = assessed(b);
  const GapCurve& gap = front_of(a).gaps.at(0);
  EXPECT_FALSE(gap.straight);
  EXPECT_TRUE(gap.least);
  // 3 mm of the 6 mm wanted: no road window below 3 mm higher, but the end may still be let down there.
  for (const Stretch& s : front_of(a).windows.reach_blocked)
    EXPECT_NE(s.limit, &limits::tyre_near);
  bool found = false;
  for (const Stretch& s : front_of(a).windows.road_blocked)
    if (s.limit == &limits::tyre_near) {
      found = true;
      EXPECT_NEAR(s.to, *front_of(a).surveyed_height + 0.003, 1e-4);
    }
  EXPECT_TRUE(found);
}

TEST(Clearance, AGapOfTheCycleSheetIsTheCurveThroughItsReadings) {
  const auto a = assessed(test::demo_whole());
  const auto& gaps = front_of(a).gaps;
  const auto sheet =
      std::find_if(gaps.begin(), gaps.end(), [](const GapCurve& g) { return g.source == GapSource::sheet; });
  ASSERT_NE(sheet, gaps.end());
  EXPECT_EQ(sheet->near.name, "tyre to liner");
  EXPECT_NEAR(*sheet->at(0.30, false), 0.006, 0.002);
  EXPECT_FALSE(sheet->at(0.20, false)) << "far below what was read";
}

TEST(Clearance, ASolidFixedToTheUprightKeepsItsDistance) {
  Build b = test::pickup_with_joints();
  b.ends[0].obstacles.push_back(box(-0.05, 0.60, 0.37, 0.04));
  b.ends[0].obstacles[0].fixed_to = build::Carrier::upright;
  const auto a = assessed(b);
  for (const GapCurve& gap : front_of(a).gaps) {
    if (gap.mover != Mover::tyre || gap.near.name != "box") continue;
    const double here = *gap.at(0.50, false);
    EXPECT_GT(here, 0);
    for (const double H : {0.42, 0.46, 0.54})
      EXPECT_NEAR(*gap.at(H, false), here, 2e-4);
    return;
  }
  FAIL() << "no gap to the box";
}

TEST(Clearance, MoreRoomWantedNeverWidensAWindowAndNeitherDoesAnotherObstacle) {
  std::mt19937 dice(4);
  const auto from = [&](double low, double high) {
    return low + (high - low) * static_cast<double>(dice()) / static_cast<double>(std::mt19937::max());
  };
  for (int i = 0; i < 12; ++i) {
    Build b = i % 2 ? test::pickup_with_joints() : test::demo_with_sheets();
    const std::size_t end = i % 4 < 2 ? 0 : 1;
    const double hub = *b.ends[end].track / 2;
    b.ends[end].obstacles.push_back(box(from(-0.5, 0.5), hub - from(0.1, 0.5), from(0.3, 0.9), from(0.01, 0.1)));
    const auto first = assessed(b);
    Build more = b;
    more.variant().brief.rooms.tyre += from(0, 0.03);
    more.variant().brief.rooms.metal += from(0, 0.03);
    more.variant().brief.bag_clearance += from(0, 0.03);
    const auto roomier = assessed(more);
    more = b;
    more.ends[end].obstacles.push_back(box(from(-0.5, 0.5), hub - from(0.1, 0.5), from(0.3, 0.9), from(0.01, 0.1)));
    const auto another = assessed(more);
    for (const auto* narrow : {&roomier, &another}) {
      const End e = static_cast<End>(end);
      // The chosen window may be another one where an obstacle parts it: what is blocked only grows.
      const auto blocked = [&](const Assessment& a, double H) {
        const auto& all = a.end(e).windows.road_blocked;
        return std::any_of(all.begin(), all.end(),
                           [&](const Stretch& s) { return H > s.from + 1e-6 && H < s.to - 1e-6; });
      };
      for (double H = first.end(e).domain_low; H < first.end(e).domain_high; H += 0.002)
        if (blocked(first, H)) {
          EXPECT_TRUE(blocked(*narrow, H) || blocked(*narrow, H + 3e-5) || blocked(*narrow, H - 3e-5)) << i << " " << H;
        }
    }
  }
}

TEST(Clearance, TheArchsLipIsAsFarAsItsPlaceSays) {
  Build b = test::demo_build();
  b.ends[0].arch.lip_outward = 0.20; // far out: nearest to the shoulder, in the wheel's own plane
  const auto a = assessed(b);
  const GapCurve& gap = front_of(a).gaps.at(0);
  EXPECT_EQ(gap.near.own, OwnPart::lip);
  const auto end = a.ends[0];
  const double H = *front_of(a).surveyed_height;
  const auto near = near_at(end, H, 0);
  ASSERT_FALSE(near.empty());
  EXPECT_NEAR(near[0].gap.apart, *gap.at(H, false), 2e-4);
  EXPECT_NEAR(space::length(near[0].gap.on_first - near[0].gap.on_second), near[0].gap.apart, 1e-9);
  // Tucked by what the lip stands outside of the tyre, which leans as the sheet has it: not at all here.
  const double outer = a.ends[0].given().clearance->wheel->widest / 2 - a.ends[0].given().clearance->wheel->offset;
  EXPECT_NEAR(*poke_at(end, H), outer + 0.003 - 0.20, 1e-6);
  // Rolled out, it is further away.
  b.variant().fit[0].lip_rolled = 0.01;
  EXPECT_NEAR(*poke_at(assessed(b).ends[0], H), outer + 0.003 - 0.21, 1e-6);
}

TEST(Clearance, ThePickupsAxleTubeMeetsTheRailWithoutANotch) {
  const auto a = assessed(test::pickup_whole());
  const auto& reach = a.end(End::rear).windows.reach;
  ASSERT_TRUE(reach && reach->low.governing);
  EXPECT_EQ(reach->low.governing->limit, &limits::axle_near);
  EXPECT_EQ(reach->low.governing->near, "rail");
  // Tube top to the rail's underside: it rises as the axle does.
  Build b = test::pickup_whole();
  b.ends[1].obstacles[0].z += 0.01; // a notch 10 mm deep
  const auto notched = assess(b, test::demo_shelf());
  EXPECT_NEAR(reach->low.height - notched.end(End::rear).windows.reach->low.height, 0.010, 0.0015);
}

TEST(Clearance, TheEstatesTyreMeetsTheLinerAtLockWhenParked) {
  const auto a = assessed(test::demo_whole());
  const auto found = std::find_if(a.findings.begin(), a.findings.end(),
                                  [](const Finding& f) { return f.code == "too_near_at_preset"; });
  ASSERT_NE(found, a.findings.end());
  EXPECT_EQ(found->place, "front.obstacles.1.name");
  EXPECT_EQ(say(found->title), "Front Parked: tyre against liner behind");
}

TEST(Clearance, AGapIsNothingUpToWhereItOpensAndNotBefore) {
  // Read between the heights it was worked out at, it closes at the very edge of the window.
  const auto a = assessed(test::pickup_whole());
  const auto& reach = a.end(End::rear).windows.reach;
  for (const GapCurve& gap : a.end(End::rear).gaps) {
    if (gap.mover != Mover::axle || gap.near.name != "rail") continue;
    EXPECT_NEAR(*gap.at(reach->low.height, false), 0, 1e-4);
    EXPECT_NEAR(*gap.at(reach->low.height + 0.004, false), 0.004, 1e-3);
    EXPECT_EQ(*gap.at(reach->low.height - 0.004, false), 0);
    return;
  }
  FAIL() << "no gap to the rail";
}

TEST(Clearance, TheUndersideOnTheGroundAndTheLawAreLimits) {
  Build b = test::demo_build();
  const double H0 = *front_of(assessed(b)).surveyed_height;
  b.body.underside.push_back({"sump", 0.1, 0.050, {}});
  b.body.underside.push_back({"tank", 2.4, 0.020, {}}); // nearer to the rear: nothing to the front
  auto a = assessed(b);
  const auto& reach = front_of(a).windows.reach;
  ASSERT_TRUE(reach && reach->low.governing);
  EXPECT_EQ(reach->low.governing->limit, &limits::on_the_ground);
  EXPECT_EQ(reach->low.governing->near, "sump");
  EXPECT_NEAR(reach->low.height, H0 - 0.050, 1e-9);
  EXPECT_NEAR(front_of(a).windows.road->low.height, H0 - 0.050 + b.variant().brief.bump_travel, 1e-9);
  EXPECT_EQ(a.end(End::rear).windows.reach->low.governing->near, "tank");
  // Larger tyres lift it.
  b.variant().fit[0].wheel = "215/50R17 7.5 ET42";
  EXPECT_NEAR(front_of(assessed(b)).windows.reach->low.height, H0 - 0.050 - 0.05 * 0.215, 1e-9);
  // The law lets it be parked lower than it may be driven.
  b = test::demo_build();
  b.ends[0].legal_height = H0 - 0.001;
  a = assessed(b);
  EXPECT_EQ(front_of(a).windows.road->low.governing->limit, &limits::legal_height);
  EXPECT_NEAR(front_of(a).windows.road->low.height, H0 - 0.001, 1e-9);
  for (const Stretch& s : front_of(a).windows.reach_blocked)
    EXPECT_NE(s.limit, &limits::legal_height);
}

TEST(Clearance, SolidsThatAreNoneHarmNothing) {
  Build b = test::pickup_with_joints();
  for (const ObstacleShape shape :
       {ObstacleShape::plane, ObstacleShape::box, ObstacleShape::rod, ObstacleShape::edge}) {
    build::Obstacle o;
    o.shape = shape;
    o.name = "none";
    o.to_x = o.x, o.to_y = o.y, o.to_z = o.z;
    o.size_x = o.size_y = o.size_z = o.radius = 0;
    for (auto& end : b.ends)
      end.obstacles.push_back(o);
  }
  const auto a = assessed(b);
  for (const End end : build::both_ends)
    for (const GapCurve& gap : a.end(end).gaps)
      for (double H = 0.40; H < 0.62; H += 0.004)
        for (const bool locked : {false, true})
          if (const auto g = gap.at(H, locked)) {
            EXPECT_TRUE(std::isfinite(*g) && *g >= 0) << gap.near.name;
          }
  EXPECT_TRUE(std::any_of(a.findings.begin(), a.findings.end(),
                          [](const Finding& f) { return f.code == "obstacle_without_size"; }));
}

TEST(Clearance, RoomIsTheLargerOfWhatMovesAndWhatItComesNear) {
  build::Rooms rooms;
  EXPECT_DOUBLE_EQ(room_for(Mover::tyre, build::ObstacleKind::metal, rooms, 0.012), 0.006);
  EXPECT_DOUBLE_EQ(room_for(Mover::bag, build::ObstacleKind::hose, rooms, 0.012), 0.012);
  EXPECT_DOUBLE_EQ(room_for(Mover::tyre, build::ObstacleKind::hose, rooms, 0.012), 0.010);
  EXPECT_DOUBLE_EQ(room_for(Mover::bag, build::ObstacleKind::shielded_exhaust, rooms, 0.012), 0.030);
  EXPECT_DOUBLE_EQ(room_for(Mover::damper, build::ObstacleKind::exhaust, rooms, 0.012), 0.060);
}

TEST(Clearance, AnotherWheelOfTheDesignIsTheOneThatIsKeptClear) {
  Build b = test::demo_whole();
  const auto before = assessed(b);
  b.variant().fit[0].wheel = "225/45R17 9 ET20";
  const auto after = assessed(b);
  const auto poke = [](const Assessment& a) { return *poke_at(a.ends[0], 0.36); };
  // Outer face further out by half the width gained and the offset lost.
  const auto was = motion::wheel_space(*motion::parse_wheel(b.ends[0].wheel)),
             now = motion::wheel_space(*motion::parse_wheel("225/45R17 9 ET20"));
  EXPECT_NEAR(poke(after) - poke(before), now.outer_face - was.outer_face, 0.002);
}

} // namespace
} // namespace mavrel::assess
