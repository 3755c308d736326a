// A map ends where its curves turn: beyond a turn one length would stand for two heights, and nothing may be said to
// limit nothing there.
#include "motion/travel_map.h"
#include "motion/wheel.h"

#include "support.h"

#include <cmath>

namespace mavrel::motion {
namespace {

// L(H) = 0.2 + 0.6·d − 3·d²: turns at d = 0.1.
const curve::Polynomial turning{0.35, {0.2, 0.6, -3}};

TEST(TravelMap, EndsWhereTheSpringNoLongerFollowsTheWheel) {
  const TravelMap map = TravelMap::from_curves(turning, {}, 0.35, 0.15, 0.6);
  EXPECT_DOUBLE_EQ(map.lowest(), 0.15);
  EXPECT_NEAR(map.highest(), 0.35 + (0.6 - 0.05) / 6, 1e-9) << "where the ratio is down to 0.05";
  for (double H = map.lowest(); H <= map.highest(); H += 0.005)
    EXPECT_GE(map.at(H).motion_ratio, 0.05 - 1e-9) << "nothing is ever divided by a ratio near 0";
}

TEST(TravelMap, EveryLengthOfItStandsForOneHeight) {
  const TravelMap map = TravelMap::from_curves(turning, {}, 0.35, 0.15, 0.6);
  EXPECT_TRUE(rc::check("there and back", [&] {
    const double H = test::between(map.lowest(), map.highest());
    const auto back = map.height_for_spring(map.at(H).spring_length);
    RC_ASSERT(back && std::abs(*back - H) < 1e-9);
  }));
  EXPECT_FALSE(map.height_for_spring(0.5)) << "longer than it gets";
}

TEST(TravelMap, EndsWhereTheDamperTurnsToo) {
  const TravelMap map = TravelMap::from_curves({0.35, {0.2, 0.6}}, turning, 0.35, 0.15, 0.6);
  EXPECT_NEAR(map.highest(), 0.35 + (0.6 - 0.05) / 6, 1e-9);
  ASSERT_TRUE(map.has_damper());
  EXPECT_TRUE(map.height_for_damper(map.damper(0.30).value));
}

TEST(TravelMap, ACurveThatDoesNotFollowAtAllLeavesNoMap) {
  const TravelMap map = TravelMap::from_curves({0.35, {0.2, -0.6}}, {}, 0.35, 0.15, 0.6);
  EXPECT_EQ(map.lowest(), map.highest());
}

TEST(Wheel, IsReadAlikeWithPointAndComma) {
  const auto point = parse_wheel("205/45R17 7.5 ET35.5"), comma = parse_wheel("205/45R17 7,5 ET35,5");
  ASSERT_TRUE(point && comma);
  EXPECT_NEAR(point->rim_width, 7.5 * 0.0254, 1e-12);
  EXPECT_NEAR(point->offset, 0.0355, 1e-12);
  EXPECT_DOUBLE_EQ(point->rim_width, comma->rim_width);
  EXPECT_NEAR(parse_wheel("205/45R17 7.5 ET-12")->offset, -0.012, 1e-12);
  EXPECT_NEAR(parse_wheel("205/45R17 7.5 ET+12")->offset, 0.012, 1e-12);
}

} // namespace
} // namespace mavrel::motion
