// The wheel as a solid: against its own section sampled densely, and by what must hold of any wheel.
#include "space/near.h"

namespace mavrel::space {
namespace {

constexpr double agreed_with_wheel = 2e-4; // m
const WheelSolid wheel{0.32, 0.22, 0.23, 0.04, 0.035, 0};

/// Distance to the wheel through a fine outline of its half section: another way round than the formulas go.
double by_section(const WheelSolid& w, const WheelPlace& place, const Point& p) {
  const Point d = p - place.centre;
  const double out = dot(d, place.outward), r = length(d - out * place.outward);
  std::vector<SectionPoint> line = section_of(w);
  line.push_back(line.front());
  double least = 1e9;
  int crossings = 0;
  for (std::size_t i = 1; i < line.size(); ++i) {
    const double ax = line[i - 1].outboard, ay = line[i - 1].radius, bx = line[i].outboard, by = line[i].radius;
    const double dx = bx - ax, dy = by - ay, l2 = dx * dx + dy * dy;
    const double t = l2 > 0 ? std::clamp(((out - ax) * dx + (r - ay) * dy) / l2, 0.0, 1.0) : 0;
    least = std::min(least, std::hypot(out - ax - t * dx, r - ay - t * dy));
    if ((ay > r) != (by > r) && out < ax + (r - ay) / (by - ay) * dx) ++crossings;
  }
  return crossings % 2 ? 0 : least;
}

WheelPlace place(Dice& dice) {
  return wheel_place(dice.point(0.1), dice.from(-0.1, 0.1), dice.from(-0.05, 0.05), dice.from(-0.6, 0.6));
}

TEST(WheelSolid, DistanceOfAPlaceIsThatOfItsSection) {
  Dice dice(1);
  for (int i = 0; i < 3000; ++i) {
    const WheelSolid w{0.32, 0.22, 0.23, dice.from(-0.15, 0.15), 0.035, i % 2 ? 0.004 : 0.0};
    const WheelPlace at = place(dice);
    const Point p = at.centre + dice.point(0.5);
    // The outline has corners where the wheel is round.
    EXPECT_NEAR(distance_to(w, at, p), by_section(w, at, p), 3e-4) << i;
  }
}

TEST(WheelSolid, GapsToBoxesAndRodsAgreeWithDenseSamples) {
  Dice dice(2);
  int in_barrel = 0, clear = 0;
  for (int i = 0; i < 120; ++i) {
    const WheelPlace at = place(dice);
    // Half of them small ones near the open barrel.
    const bool near = i % 2;
    const Point middle = near ? at.centre - dice.from(0.02, 0.2) * at.outward + dice.point(0.12) : dice.point(0.5);
    const double most = near ? 0.05 : 0.2;
    const Box box{middle, {dice.from(0.005, most), dice.from(0.005, most), dice.from(0.005, most)}, dice.from(-3, 3)};
    double least = 1e9;
    for (const Point& p : surface_of(box, near ? 0.002 : 0.006))
      least = std::min(least, distance_to(wheel, at, p));
    const Gap g = gap_between(wheel, at, box);
    EXPECT_EQ(g.overlap, g.apart == 0);
    EXPECT_LE(g.apart, least + 1e-6) << i;
    if (!g.overlap) {
      ++clear;
      EXPECT_NEAR(length(g.on_first - g.on_second), g.apart, 1e-9) << i;
      EXPECT_NEAR(distance_to(wheel, at, g.on_second), g.apart, 1e-6) << i;
      EXPECT_NEAR(distance_to(wheel, at, g.on_first), 0, 1e-6) << i;
      // And no more than the samples leave open.
      EXPECT_GE(g.apart, least - (near ? 0.0015 : 0.005)) << i;
      const Point d = g.on_second - at.centre;
      const double out = dot(d, at.outward);
      if (length(d - out * at.outward) < wheel.bore && out < 0 && out > -0.15) ++in_barrel;
    }
    const Rod rod{middle, middle + dice.point(0.2), dice.from(0, 0.02)};
    double line = 1e9;
    for (const Point& p : line_of(rod.from, rod.to, 0.0002))
      line = std::min(line, distance_to(wheel, at, p));
    EXPECT_NEAR(gap_between(wheel, at, rod).apart, std::max(0.0, line - rod.radius), agreed_with_wheel) << i;
  }
  EXPECT_GT(clear, 30);
  EXPECT_GT(in_barrel, 5);
}

TEST(WheelSolid, ABodyBesideItAndInItsBarrelAgreesWithDenseSamples) {
  Dice dice(4);
  int clear = 0;
  for (int i = 0; i < 40; ++i) {
    const WheelPlace at = place(dice);
    const bool near = i % 2;
    const Point middle = near ? at.centre - dice.from(0.05, 0.2) * at.outward + dice.point(0.1) : dice.point(0.6);
    const Cylinder body{middle, dice.direction(), dice.from(0.01, near ? 0.03 : 0.08),
                        dice.from(0.01, near ? 0.06 : 0.15)};
    double least = 1e9;
    for (const Point& p : surface_of(body, 0.0015))
      least = std::min(least, distance_to(wheel, at, p));
    const Gap g = gap_between(wheel, at, body);
    if (g.overlap) continue;
    ++clear;
    EXPECT_LE(g.apart, least + agreed_with_wheel) << i;
    EXPECT_GE(g.apart, least - 0.0015) << i;
  }
  EXPECT_GT(clear, 10);
}

TEST(WheelSolid, WhatIsInsideTheOpenBarrelIsApart) {
  const WheelPlace at = wheel_place({}, 0, 0, 0);
  // The ring reaches from 75 mm outboard of the hub face to 155 mm inboard of it.
  const Rod caliper{{0.1, -0.10, 0.1}, {0.1, -0.05, 0.1}, 0.01};
  const Gap g = gap_between(wheel, at, caliper);
  EXPECT_FALSE(g.overlap);
  EXPECT_NEAR(g.apart, std::min(0.05, 0.22 - std::hypot(0.1, 0.1)) - 0.01, 5e-5);
  // The disc closes it from the hub face outward.
  EXPECT_TRUE(gap_between(wheel, at, Rod{{0, 0.03, 0.1}, {0, 0.05, 0.1}, 0}).overlap);
  // With the hub face outboard of everything there is no disc, and what runs through touches nothing.
  const WheelSolid open{0.32, 0.22, 0.23, 0.2, 0.035, 0};
  EXPECT_FALSE(gap_between(open, at, Rod{{0, -1, 0}, {0, 1, 0}, 0.05}).overlap);
}

TEST(WheelSolid, GrowsAlongItsNormalsButNotIntoItsBore) {
  const WheelPlace at = wheel_place({}, 0, 0, 0);
  WheelSolid grown = wheel;
  grown.grow = 0.003;
  const auto change = [&](const Point& p) { return distance_to(wheel, at, p) - distance_to(grown, at, p); };
  EXPECT_NEAR(change({0, -0.04, 0.5}), 0.003, 1e-12); // over the tread
  EXPECT_NEAR(change({0, -0.3, 0.25}), 0.003, 1e-12); // beside it
  EXPECT_NEAR(change({0, -0.3, 0.45}), 0.003, 1e-12); // off the shoulder
  EXPECT_NEAR(change({0, -0.10, 0.15}), 0.0, 1e-12);  // in the barrel
}

TEST(WheelSolid, AMirroredWheelMirrors) {
  Dice dice(6);
  for (int i = 0; i < 60; ++i) {
    const Point centre = dice.point(0.2);
    const double camber = dice.from(-0.1, 0.1), toe = dice.from(-0.05, 0.05), steer = dice.from(-0.6, 0.6);
    const WheelPlace left = wheel_place(centre, camber, toe, steer);
    const WheelPlace right = wheel_place(mirrored(centre), camber, toe, -steer, false);
    EXPECT_NEAR(length(right.outward - mirrored(left.outward)), 0, 1e-12);
    const Rod rod{dice.point(0.5), dice.point(0.5), 0.01};
    const Rod other{mirrored(rod.from), mirrored(rod.to), 0.01};
    EXPECT_NEAR(gap_between(wheel, left, rod).apart, gap_between(wheel, right, other).apart, 7e-5) << i;
  }
}

TEST(WheelSolid, SteersAndLeansAsItsSignsSay) {
  EXPECT_GT(wheel_place({}, 0, 0, 0.3).outward.y, 0);
  EXPECT_LT(wheel_place({}, 0, 0, 0.3).outward.x, 0) << "turned left, its outer face looks back";
  EXPECT_GT(wheel_place({}, 0, 0.1, 0).outward.x, 0) << "toed in, it looks forward";
  EXPECT_LT(wheel_place({}, 0.1, 0, 0).outward.z, 0) << "top outward, it looks down";
}

} // namespace
} // namespace mavrel::space
