// What holds of every linkage whatever its joints are: bars keep their length, the ratio is a slope, and where the car
// stands in the world does not matter.
#include "motion/linkage/geometries.h"

#include <cmath>

namespace mavrel::motion {
namespace {

constexpr double keeps = 1e-6; // m

std::vector<Geometry> all_corners() {
  std::vector<Geometry> out;
  for (const char* name : corners)
    out.push_back(reference(name));
  out.push_back(twin_beam());
  return out;
}

double bar(const CornerLinkage& linkage, const BarRow& row, const CornerPose& pose) {
  return length(linkage.joint(row.to, pose) - linkage.joint(row.from, pose));
}

TEST(Linkage, EveryBarKeepsItsLengthInEveryPoseAndAtEveryLock) {
  for (const Geometry& g : all_corners()) {
    const CornerLinkage linkage(g);
    const auto rest = linkage.solve(0);
    ASSERT_TRUE(rest);
    for (double dh = -0.12; dh <= 0.121; dh += 0.02)
      for (const double rack : linkage.steers() ? std::vector{-0.06, 0.0, 0.06} : std::vector{0.0}) {
        const auto pose = linkage.solve(dh, rack);
        ASSERT_TRUE(pose) << dh << " " << rack;
        for (const BarRow& row : bars_of(g.shape))
          EXPECT_NEAR(bar(linkage, row, *pose), bar(linkage, row, *rest), keeps) << row.name << " at " << dh;
        EXPECT_NEAR(pose->wheel_shift.z, -dh, 1e-9);
      }
  }
}

TEST(Linkage, AStrutsTopStaysOnItsLine) {
  const Geometry g = reference("strut");
  const CornerLinkage linkage(g);
  for (const double dh : {-0.1, -0.03, 0.05, 0.11}) {
    const auto pose = linkage.solve(dh, 0.03);
    ASSERT_TRUE(pose);
    const Point foot = pose->upright.place(*g.at(Joint::strut_lower));
    const Point way = pose->upright.turned(*g.at(Joint::strut_top) - *g.at(Joint::strut_lower));
    const Point to_top = *g.at(Joint::strut_top) - foot;
    EXPECT_NEAR(dot(to_top, way) / length(way), length(to_top), 1e-9) << "along the line, not beside it";
  }
}

TEST(Linkage, TheMotionRatioIsTheSlopeOfTheSpring) {
  for (Geometry g : all_corners())
    for (const Part part : parts_of(g.shape)) {
      g.spring_foot = part;
      const CornerLinkage linkage(g);
      for (const double dh : {-0.08, 0.0, 0.07}) {
        const auto pose = linkage.solve(dh), more = linkage.solve(dh + 1e-5), less = linkage.solve(dh - 1e-5);
        ASSERT_TRUE(pose && more && less);
        EXPECT_NEAR(pose->spring->ratio, (more->spring->length - less->spring->length) / 2e-5, 1e-6)
            << key_of(part) << " at " << dh;
        EXPECT_NEAR(pose->damper->ratio, (more->damper->length - less->damper->length) / 2e-5, 1e-6);
      }
    }
  const AxleLinkage axle(reference("solid-axle"));
  for (const double dh : {-0.08, 0.0, 0.05}) {
    const auto pose = axle.solve_level(dh), more = axle.solve_level(dh + 1e-5), less = axle.solve_level(dh - 1e-5);
    ASSERT_TRUE(pose && more && less);
    EXPECT_NEAR(pose->spring->ratio, (more->spring->length - less->spring->length) / 2e-5, 1e-6);
  }
}

TEST(Linkage, TheWorkOfTheSpringIsTheWheels) {
  // A spring of constant force does F·(its stroke); at the wheel the force is F·MR, summed over the travel.
  for (const Geometry& g : all_corners()) {
    const CornerLinkage linkage(g);
    double work = 0;
    constexpr int steps = 400;
    for (int i = 0; i < steps; ++i) {
      const double dh = -0.06 + 0.12 * (i + 0.5) / steps;
      work += linkage.solve(dh)->spring->ratio * 0.12 / steps;
    }
    EXPECT_NEAR(work, linkage.solve(0.06)->spring->length - linkage.solve(-0.06)->spring->length, 1e-7);
  }
}

TEST(Linkage, WhereTheCarStandsDoesNotMatter) {
  for (const char* name : corners)
    EXPECT_TRUE(rc::check(name, [&] {
      const Geometry g = reference(name);
      Geometry there = g;
      const Point by{*rc::gen::inRange(-500, 500) * 1e-3, *rc::gen::inRange(-50, 50) * 1e-3,
                     *rc::gen::inRange(-100, 300) * 1e-3};
      for (auto& p : there.points)
        if (p) p = *p + by;
      const double dh = *rc::gen::inRange(-100, 100) * 1e-3;
      const auto a = CornerLinkage(g).solve(dh), b = CornerLinkage(there).solve(dh);
      RC_ASSERT(a && b);
      RC_ASSERT(std::abs(a->camber - b->camber) < 1e-9 && std::abs(a->toe - b->toe) < 1e-9);
      RC_ASSERT(std::abs(a->spring->length - b->spring->length) < 1e-9);
      RC_ASSERT(length(a->wheel_shift - b->wheel_shift) < 1e-9);
    }));
}

TEST(Linkage, ARightSideMirrorsTheLeft) {
  Geometry left = reference("solid-axle");
  Geometry right = left;
  for (auto& p : right.points)
    if (p) p = mirrored(*p);
  // The bar lies across and has no other side: without it both sides are one.
  left.at(Joint::bar_body).reset();
  left.at(Joint::bar_axle).reset();
  const AxleLinkage mirror(left), given(left, &right);
  for (const double dh : {-0.07, 0.04}) {
    const auto a = mirror.solve_level(dh), b = given.solve_level(dh);
    ASSERT_TRUE(a && b);
    EXPECT_NEAR(a->springs[0]->length, a->springs[1]->length, 1e-9);
    EXPECT_NEAR(a->springs[0]->length, b->springs[1]->length, 1e-9);
    EXPECT_NEAR(a->shift.y, 0, 1e-9);
    EXPECT_NEAR(a->roll, 0, 1e-12);
  }
}

TEST(Linkage, AWayBackComesHome) {
  for (const Geometry& g : all_corners()) {
    const CornerLinkage linkage(g);
    const auto down = linkage.solve(-0.09);
    ASSERT_TRUE(down);
    const auto home = linkage.solve(0, 0, &*down);
    ASSERT_TRUE(home);
    EXPECT_NEAR(home->spring->length, linkage.solve(0)->spring->length, 1e-10);
    EXPECT_NEAR(home->camber, g.camber, 1e-10);
    EXPECT_NEAR(home->toe, g.toe, 1e-10);
  }
}

TEST(Linkage, TheRackThatTurnsTheWheelDoes) {
  for (const Geometry& g : {reference("strut"), reference("double-wishbone"), twin_beam()}) {
    const CornerLinkage linkage(g);
    for (const double angle : {-0.5, -0.2, 0.3, 0.5}) {
      const auto rack = linkage.rack_for(angle);
      ASSERT_TRUE(rack) << angle;
      EXPECT_NEAR(linkage.solve(0, *rack)->toe, g.toe - angle, 1e-7) << "a left turn takes toe-in off the left wheel";
    }
    EXPECT_FALSE(linkage.rack_for(2.5)) << "no rod turns a wheel that far";
  }
  EXPECT_FALSE(CornerLinkage(reference("trailing-arm")).rack_for(0.1));
}

TEST(Linkage, AGridIsTheSamePoseByPose) {
  const CornerLinkage linkage(reference("double-wishbone"));
  const PoseGrid grid = solve_grid(linkage, {-0.06, -0.03, 0, 0.03}, {-0.04, 0, 0.05});
  for (std::size_t h = 0; h < 4; ++h)
    for (std::size_t r = 0; r < 3; ++r) {
      ASSERT_TRUE(grid.at(h, r));
      const auto alone = linkage.solve(grid.dh[h], grid.rack[r]);
      EXPECT_NEAR(grid.at(h, r)->toe, alone->toe, 1e-9);
      EXPECT_NEAR(grid.at(h, r)->spring->length, alone->spring->length, 1e-9);
    }
}

TEST(Linkage, RolledLinksBindTheMoreTheFurther) {
  const AxleLinkage axle(reference("solid-axle"));
  const auto level = axle.solve_rolled(0, 0), some = axle.solve_rolled(0, 0.05), more = axle.solve_rolled(0, 0.1);
  ASSERT_TRUE(level && some && more);
  EXPECT_EQ(level->misfit, 0);
  EXPECT_NEAR(some->roll, 0.05, 1e-6);
  EXPECT_GT(some->misfit, 1e-4);
  EXPECT_GT(more->misfit, 1.5 * some->misfit);
}

} // namespace
} // namespace mavrel::motion
