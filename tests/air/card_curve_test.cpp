// Reading a card between its figures.
#include "air/bag.h"
#include "support.h"

#include <cmath>

namespace mavrel::air {
namespace {

TEST(BagCurve, GoesThroughEveryFigureOfItsCard) {
  EXPECT_TRUE(rc::check("loads and volumes at the rows", [] {
    const BagCard card = test::random_card();
    const BagCurve curve(card);
    for (std::size_t i = 0; i < card.heights.size(); ++i) {
      if (!curve.contains(card.heights[i])) continue;
      const BagSection at = curve.section(card.heights[i]);
      RC_ASSERT(std::abs(at.volume - card.volumes[i]) < 1e-12);
      for (std::size_t j = 0; j < card.pressures.size(); ++j)
        RC_ASSERT(std::abs(bag_force(at, card.pressures[j]).force - card.loads[j][i]) < 1e-6 * card.loads[j][i]);
    }
  }));
}

TEST(BagCurve, TheAreaIsLinearBetweenColumnsAndTheEndOnesOutside) {
  EXPECT_TRUE(rc::check("area over pressure", [] {
    const BagCard card = test::random_card();
    const BagCurve curve(card);
    const BagSection at = curve.section(std::lerp(curve.lowest(), curve.highest(), test::between(0, 1)));
    const auto area = [&](double p) { return bag_force(at, p).force / p; };
    RC_ASSERT(std::abs(area(card.pressures.front() * 0.5) - at.area[0]) < 1e-12);
    RC_ASSERT(std::abs(area(card.pressures.back() * 1.5) - at.area[card.pressures.size() - 1]) < 1e-12);
    for (std::size_t j = 0; j + 1 < card.pressures.size(); ++j) {
      const double middle = 0.5 * (card.pressures[j] + card.pressures[j + 1]);
      RC_ASSERT(std::abs(area(middle) - 0.5 * (at.area[j] + at.area[j + 1])) < 1e-12);
    }
  }));
}

TEST(BagCurve, KeepsToTheBagsOwnHeights) {
  BagCard card = test::demo_shelf().find("Osier O-135")->card;
  card.collapsed_height = 0.070;
  card.max_height = 0.200;
  const BagCurve curve(card);
  EXPECT_DOUBLE_EQ(curve.lowest(), 0.070);
  EXPECT_DOUBLE_EQ(curve.highest(), 0.200);
  EXPECT_FALSE(curve.contains(0.065));
  const auto refused = bag_under_load(curve, 0.205, 3000, {});
  ASSERT_FALSE(refused);
  EXPECT_NE(say(refused.error()).find("70"), std::string::npos);
}

TEST(BagCurve, WithoutADiameterColumnTheGreatestHolds) {
  BagCard card = test::demo_shelf().find("Osier O-135")->card;
  EXPECT_LT(BagCurve(card).diameter(0.2), card.max_diameter);
  card.diameters.clear();
  EXPECT_DOUBLE_EQ(BagCurve(card).diameter(0.2), card.max_diameter);
}

TEST(BagUnderLoad, NothingOnItIsNothingInIt) {
  const auto empty = bag_under_load(BagCurve(test::demo_shelf().find("Osier O-135")->card), 0.12, 0, {});
  ASSERT_TRUE(empty);
  EXPECT_EQ(empty->gauge_pressure, 0);
  EXPECT_GT(empty->air_mass, 0) << "the air around is still inside";
}

TEST(BagUnderLoad, ThinAirOutsideChangesTheRateButNotTheGauge) {
  const BagCurve curve(test::demo_shelf().find("Osier O-135")->card);
  BagSetting high;
  high.ambient.altitude = 3000;
  const auto low = bag_under_load(curve, 0.14, 4000, {}), up = bag_under_load(curve, 0.14, 4000, high);
  EXPECT_DOUBLE_EQ(low->gauge_pressure, up->gauge_pressure);
  EXPECT_GT(low->rate_fast, up->rate_fast);
  EXPECT_GT(low->air_mass, up->air_mass);
}

TEST(SealedStroke, ReturnsToWhereItBegan) {
  EXPECT_TRUE(rc::check("there and back", [] {
    const BagCurve curve(test::random_card());
    const auto inside = [&] { return std::lerp(curve.lowest(), curve.highest(), test::between(0.02, 0.98)); };
    const double a = inside(), b = inside(), p = test::between(1e5, 6e5), n = test::between(1, 1.4);
    BagSetting setting;
    setting.added_volume = test::between(0, 4e-3);
    const auto there = sealed_stroke(curve, a, p, b, n, setting);
    RC_ASSERT(there.has_value());
    const auto back = sealed_stroke(curve, b, there->gauge_pressure, a, n, setting);
    RC_ASSERT(std::abs(back->gauge_pressure - p) < 1e-3);
    RC_ASSERT((there->gauge_pressure > p) == (b < a) || std::abs(a - b) < 1e-9);
  }));
}

} // namespace
} // namespace mavrel::air
