// Least distances between simple solids, against dense samples and by what must hold of any distance.
#include "space/near.h"

namespace mavrel::space {
namespace {

constexpr double agreed = 2e-4; // m

/// Distance from a place to a cylinder, in its own two dimensions.
double to_cylinder(const Cylinder& c, const Point& p) {
  const Point d = p - c.centre;
  const double a = dot(d, c.axis), r = length(d - a * c.axis);
  return std::hypot(std::max(0.0, std::abs(a) - c.half), std::max(0.0, r - c.radius));
}
double to_box(const Box& box, const Point& p) {
  const Point d = p - box.centre;
  const double x = std::cos(box.turn) * d.x + std::sin(box.turn) * d.y,
               y = -std::sin(box.turn) * d.x + std::cos(box.turn) * d.y;
  return std::hypot(std::max(0.0, std::abs(x) - box.half.x), std::max(0.0, std::abs(y) - box.half.y),
                    std::max(0.0, std::abs(d.z) - box.half.z));
}

Cylinder cylinder(Dice& dice) {
  return {dice.point(0.5), dice.direction(), dice.from(0.01, 0.3), dice.from(0.01, 0.2)};
}
Box box(Dice& dice) {
  return {dice.point(0.5), {dice.from(0.005, 0.2), dice.from(0.005, 0.2), dice.from(0.005, 0.2)}, dice.from(-3, 3)};
}

/// What holds of every gap: its places lie as far apart as it says.
void sound(const Gap& g) {
  EXPECT_GE(g.apart, 0);
  EXPECT_EQ(g.overlap, g.apart == 0);
  if (g.overlap) return;
  EXPECT_NEAR(length(g.on_first - g.on_second), g.apart, 1e-9);
}

TEST(Solids, RodsAndCylindersToBoxesAgreeWithDenseSamples) {
  Dice dice(3);
  int clear = 0;
  for (int i = 0; i < 60; ++i) {
    const Box b = box(dice);
    const Cylinder c = cylinder(dice);
    double least = 1e9;
    for (const Point& p : surface_of(b, 0.004))
      least = std::min(least, to_cylinder(c, p));
    const Gap g = gap_between(c, b);
    sound(g);
    if (!g.overlap) {
      ++clear;
      EXPECT_LE(g.apart, least + 1e-9) << i;
      EXPECT_NEAR(to_box(b, g.on_second), 0, 1e-7) << i;
      EXPECT_NEAR(to_cylinder(c, g.on_first), 0, 1e-7) << i;
    } else // a face may be cut by it between the samples
      EXPECT_LT(least, 0.25) << i;
    const Rod rod{dice.point(0.6), dice.point(0.6), dice.from(0, 0.03)};
    double near = 1e9;
    for (const Point& p : line_of(rod.from, rod.to, 0.0005))
      near = std::min(near, to_box(b, p));
    const Gap r = gap_between(rod, b);
    sound(r);
    EXPECT_NEAR(r.apart, std::max(0.0, near - rod.radius), agreed) << i;
  }
  EXPECT_GT(clear, 20);
}

TEST(Solids, AnOverlapHasAPlaceInBoth) {
  Dice dice(9);
  for (int i = 0; i < 400; ++i) {
    const Box b = box(dice);
    const Cylinder c = cylinder(dice);
    const Gap g = gap_between(c, b);
    if (g.overlap) { // there is a place in both
      EXPECT_NEAR(to_box(b, g.on_first), 0, 1e-7) << i;
      EXPECT_NEAR(to_cylinder(c, g.on_first), 0, 1e-7) << i;
    }
  }
}

TEST(Solids, TwoCylindersAgreeWithDenseSamples) {
  Dice dice(5);
  for (int i = 0; i < 60; ++i) {
    const Cylinder a = cylinder(dice), b = cylinder(dice);
    double least = 1e9;
    for (const Point& p : surface_of(b, 0.004))
      least = std::min(least, to_cylinder(a, p));
    const Gap g = gap_between(a, b);
    sound(g);
    if (g.overlap) continue;
    EXPECT_LE(g.apart, least + agreed) << i;
    EXPECT_GE(g.apart, least - 0.003) << i << ": samples lie up to 4 mm apart";
    EXPECT_NEAR(gap_between(b, a).apart, g.apart, agreed) << i;
  }
}

TEST(Solids, TwoRodsAreAsFarApartAsTheirLines) {
  EXPECT_NEAR(gap_between(Rod{{0, 0, 0}, {1, 0, 0}, 0.01}, Rod{{0.5, -1, 0.2}, {0.5, 1, 0.2}, 0.02}).apart, 0.17, 1e-9);
  EXPECT_TRUE(gap_between(Rod{{0, 0, 0}, {1, 0, 0}, 0.01}, Rod{{0.5, -1, 0.02}, {0.5, 1, 0.02}, 0.01}).overlap);
  // One that has no length is a ball.
  EXPECT_NEAR(gap_between(Rod{{0, 0, 0}, {0, 0, 0}, 0.01}, Rod{{0, 0, 0.1}, {0, 0, 0.1}, 0}).apart, 0.09, 1e-12);
}

TEST(Solids, APlaneIsReachedByTheEndOfARodAndTheRimOfACylinder) {
  const Plane floor{{0, 0, 0}, {0, 0, 5}};
  EXPECT_NEAR(gap_between(Rod{{0, 0, 0.3}, {1, 0, 0.2}, 0.05}, floor).apart, 0.15, 1e-12);
  const double lean = 0.3;
  const Cylinder c{{0, 0, 1}, {std::sin(lean), 0, std::cos(lean)}, 0.2, 0.1};
  EXPECT_NEAR(gap_between(c, floor).apart, 1 - 0.1 * std::cos(lean) - 0.2 * std::sin(lean), 1e-12);
  EXPECT_TRUE(gap_between(Cylinder{{0, 0, -3}, {0, 0, 1}, 0.1, 0.1}, floor).overlap) << "all of it is beyond";
}

TEST(Solids, ABoxWithoutSizeIsAPlaceAndOneWithAllOfItInsideOverlaps) {
  const Cylinder c{{0, 0, 0}, {0, 0, 1}, 0.1, 0.1};
  EXPECT_NEAR(gap_between(c, Box{{0.3, 0, 0}, {}, 0.4}).apart, 0.2, 1e-9);
  EXPECT_TRUE(gap_between(c, Box{{0, 0, 0}, {1, 1, 1}, 0.4}).overlap);
  EXPECT_TRUE(gap_between(c, Box{{0, 0, 0}, {0.01, 0.01, 0.01}, 0.4}).overlap);
  EXPECT_TRUE(gap_between(c, Box{{0, 0, 1.05}, {1, 1, 1}, 0}).overlap) << "a face cuts it, no edge does";
}

TEST(Solids, MovingBothOrNeitherIsTheSame) {
  Dice dice(11);
  for (int i = 0; i < 50; ++i) {
    const Point axis = dice.direction();
    const auto [u, v] = square_to(axis);
    // The turn whose rows are an orthogonal frame.
    const Placed by{{u.x, u.y, u.z, v.x, v.y, v.z, axis.x, axis.y, axis.z}, dice.point(1)};
    const Rod a{dice.point(0.5), dice.point(0.5), 0.01}, b{dice.point(0.5), dice.point(0.5), 0.02};
    EXPECT_NEAR(gap_between(moved(a, by), moved(b, by)).apart, gap_between(a, b).apart, 1e-7);
    const Point p = dice.point(1);
    EXPECT_NEAR(length(by.back(by.place(p)) - p), 0, 1e-12);
  }
}

} // namespace
} // namespace mavrel::space
