// What must hold of any distance: it is the same both ways and in any frame, it grows as things shrink or part, and
// moving by so much changes it by no more.
#include "space/ground.h"
#include "space/near.h"

namespace mavrel::space {
namespace {

const WheelSolid turned_wheel{0.32, 0.22, 0.23, 0.04, 0.035, 0.002};

Placed frame(Dice& dice) {
  const Point axis = dice.direction();
  const auto [u, v] = square_to(axis);
  return {{u.x, u.y, u.z, v.x, v.y, v.z, axis.x, axis.y, axis.z}, dice.point(2)};
}
WheelPlace moved(const WheelPlace& w, const Placed& by) {
  return {by.place(w.centre), by.turned(w.outward)};
}
Rod rod(Dice& dice, double reach) {
  return {dice.point(reach), dice.point(reach), dice.from(0, 0.03)};
}
Solid solid(Dice& dice, int kind, double reach) {
  if (kind == 0) return Plane{dice.point(reach), dice.direction()};
  if (kind == 1)
    return Box{dice.point(reach), {dice.from(0, 0.1), dice.from(0, 0.1), dice.from(0, 0.1)}, dice.from(-3, 3)};
  return rod(dice, reach);
}

TEST(DistanceIdentities, AWheelAndARodAreAsFarApartInAnyFrame) {
  Dice dice(21);
  for (int i = 0; i < 150; ++i) {
    const WheelPlace at = wheel_place(dice.point(0.1), dice.from(-0.1, 0.1), 0, dice.from(-0.6, 0.6));
    const Rod near = rod(dice, 0.5);
    const Placed by = frame(dice);
    EXPECT_NEAR(gap_between(turned_wheel, moved(at, by), moved(near, by)).apart,
                gap_between(turned_wheel, at, near).apart, 8e-5)
        << i;
    EXPECT_NEAR(gap_between(turned_wheel, moved_back(at, by), moved_back(near, by)).apart,
                gap_between(turned_wheel, at, near).apart, 8e-5)
        << i;
  }
}

TEST(DistanceIdentities, AStepChangesItByNoMoreThanTheStep) {
  Dice dice(22);
  for (int i = 0; i < 300; ++i) {
    const WheelPlace at = wheel_place(dice.point(0.1), dice.from(-0.1, 0.1), 0, dice.from(-0.6, 0.6));
    const Solid near = solid(dice, i % 3, 0.5);
    WheelPlace stepped = at;
    const Point step = dice.point(0.01);
    stepped.centre = stepped.centre + step;
    const double before = gap_between(turned_wheel, at, near).apart,
                 after = gap_between(turned_wheel, stepped, near).apart;
    EXPECT_LE(std::abs(after - before), length(step) + 8e-5) << i;
  }
}

TEST(DistanceIdentities, ABiggerWheelOrAThickerRodIsNeverFurther) {
  Dice dice(23);
  for (int i = 0; i < 200; ++i) {
    const WheelPlace at = wheel_place(dice.point(0.1), dice.from(-0.1, 0.1), 0, dice.from(-0.6, 0.6));
    const Rod near = rod(dice, 0.5);
    const double here = gap_between(turned_wheel, at, near).apart;
    WheelSolid grown = turned_wheel;
    grown.grow += 0.004;
    EXPECT_LE(gap_between(grown, at, near).apart, here + 8e-5) << i;
    EXPECT_GE(gap_between(grown, at, near).apart, here - 0.004 - 8e-5) << i << ": by no more than it grew";
    Rod thick = near;
    thick.radius += 0.01;
    EXPECT_NEAR(gap_between(turned_wheel, at, thick).apart, std::max(0.0, here - 0.01), 8e-5) << i;
  }
}

TEST(DistanceIdentities, BothWaysRoundIsTheSame) {
  Dice dice(24);
  for (int i = 0; i < 200; ++i) {
    const Rod a = rod(dice, 0.4), b = rod(dice, 0.4);
    const Gap one = gap_between(a, b), other = gap_between(b, a);
    EXPECT_NEAR(one.apart, other.apart, 1e-6) << i;
    EXPECT_EQ(one.overlap, other.overlap) << i;
  }
}

TEST(DistanceIdentities, APlaceOnTheWheelsOwnSurfaceIsNoDistanceFromIt) {
  Dice dice(25);
  const WheelPlace at = wheel_place({0.1, 0.7, 0.3}, -0.03, 0.01, 0.3);
  const auto [u, v] = square_to(at.outward);
  for (const SectionPoint& p : section_of(turned_wheel)) {
    const double turn = dice.from(0, 6.28);
    const Point on = at.centre + p.outboard * at.outward + p.radius * (std::cos(turn) * u + std::sin(turn) * v);
    EXPECT_NEAR(distance_to(turned_wheel, at, on), 0, 1e-9);
  }
}

TEST(DistanceIdentities, APartThatCarriesBothChangesNothingBetweenThem) {
  Dice dice(26);
  for (int i = 0; i < 100; ++i) {
    const Cylinder bag{dice.point(0.4), dice.direction(), dice.from(0.03, 0.1), dice.from(0.02, 0.1)};
    const Rod near = rod(dice, 0.4);
    const Placed by = frame(dice);
    const Gap still = gap_between(bag, near);
    const Gap carried = moved(gap_between(moved_back(bag, by), Solid(moved_back(near, by))), by);
    EXPECT_NEAR(carried.apart, still.apart, 1e-6) << i;
    if (still.overlap) continue;
    EXPECT_NEAR(length(carried.on_first - carried.on_second), still.apart, 1e-6) << i;
  }
}

TEST(GroundIdentities, DrivingFurtherAlongAProfileMovedAlongIsTheSame) {
  Underside car;
  car.wheelbase = 2.6;
  car.front_radius = car.rear_radius = 0.31;
  car.points = {{-0.8, 0.15}, {1.2, 0.12}, {3.2, 0.2}};
  const Profile here{{0, 0}, {0.3, 0.06}, {0.9, 0.05}, {1.1, 0}};
  Profile there = here;
  for (SidePoint& p : there)
    p.x += 17, p.z += 2;
  const auto a = least_gap(car, here), b = least_gap(car, there);
  ASSERT_TRUE(a && b);
  EXPECT_NEAR(a->gap, b->gap, 1e-6);
  EXPECT_NEAR(a->front_at + 17, b->front_at, 0.03);
  EXPECT_EQ(a->point, b->point);
}

TEST(GroundIdentities, ALowerGroundIsNoNearerAndALowerPointIsNoFurther) {
  Dice dice(27);
  Underside car;
  car.wheelbase = 2.6;
  car.front_radius = car.rear_radius = 0.31;
  for (int i = 0; i < 30; ++i) {
    car.points = {{-0.8, dice.from(0.12, 0.2)}, {1.2, dice.from(0.1, 0.16)}, {3.2, dice.from(0.15, 0.25)}};
    const Profile bump{{0, 0}, {0.4, dice.from(0.02, 0.08)}, {0.8, 0}};
    const double here = least_gap(car, bump)->gap;
    Underside low = car;
    low.points[1].z -= 0.02;
    EXPECT_LE(least_gap(low, bump)->gap, here + 1e-6);
    EXPECT_GE(least_gap(low, bump)->gap, here - 0.02 - 1e-3);
  }
}

} // namespace
} // namespace mavrel::space
