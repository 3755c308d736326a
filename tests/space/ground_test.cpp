// A car over the ground: against a brute-force sweep, and in cases that are worked out by hand.
#include "space/ground.h"
#include "space/near.h"

namespace mavrel::space {
namespace {

Underside car() {
  Underside out;
  out.wheelbase = 2.6;
  out.front_radius = 0.30;
  out.rear_radius = 0.31;
  out.points = {{-0.85, 0.16}, {0.1, 0.13}, {1.3, 0.12}, {2.4, 0.15}, {3.3, 0.22}};
  return out;
}

/// The stance by another way: wheel centres from a fine scan of the ground, the rear one by walking back.
double scanned_gap(const Underside& c, const Profile& profile, double x) {
  const auto centre = [&](double radius, double at) {
    double high = -1e9;
    for (double u = -radius; u <= radius; u += 0.0005)
      high = std::max(high, height_at(profile, at + u) + std::sqrt(std::max(0.0, radius * radius - u * u)));
    return high;
  };
  const double hf = c.front_radius - c.front_dh, hr = c.rear_radius - c.rear_dh,
               apart = std::hypot(c.wheelbase, hf - hr);
  const double zf = centre(c.front_radius, x);
  double low = x - apart, high = x - 0.9 * apart;
  for (int i = 0; i < 40; ++i) {
    const double mid = 0.5 * (low + high);
    (std::hypot(x - mid, zf - centre(c.rear_radius, mid)) > apart ? low : high) = mid;
  }
  const double zr = centre(c.rear_radius, low);
  const double pitch = std::atan2(zf - zr, x - low) - std::atan2(hf - hr, c.wheelbase);
  double least = 1e9;
  for (std::size_t i = 1; i < c.points.size(); ++i)
    for (int k = 0; k <= 400; ++k) {
      const double t = k / 400.0;
      const double along = -std::lerp(c.points[i - 1].x, c.points[i].x, t),
                   up = std::lerp(c.points[i - 1].z, c.points[i].z, t) - hf;
      const double px = x + along * std::cos(pitch) - up * std::sin(pitch),
                   pz = zf + along * std::sin(pitch) + up * std::cos(pitch);
      least = std::min(least, pz - height_at(profile, px));
    }
  return least;
}

TEST(Ground, OnFlatGroundTheLowestPointIsTheGap) {
  const auto g = least_gap(car(), {});
  ASSERT_TRUE(g);
  EXPECT_NEAR(g->gap, 0.12, 1e-9);
  EXPECT_EQ(g->point, 2U);
  // Lower by 30 mm all round, 30 mm less.
  Underside low = car();
  low.front_dh = low.rear_dh = -0.03;
  EXPECT_NEAR(least_gap(low, {})->gap, 0.09, 1e-9);
  // The nose alone pitches it about the rear hub.
  low.rear_dh = 0;
  const auto nose = gap_at(low, {}, 0);
  EXPECT_LT(nose->gap, 0.12);
  EXPECT_GT(nose->gap, 0.09);
}

TEST(Ground, AgreesWithABruteForceSweepOnRandomGround) {
  Dice dice(7);
  for (int i = 0; i < 6; ++i) {
    Profile profile;
    double x = 0;
    for (int k = 0; k < 7; ++k) {
      x += dice.from(0.05, 0.9);
      profile.push_back({x, dice.from(-0.05, 0.1)});
    }
    Underside c = car();
    c.front_dh = dice.from(-0.03, 0.05);
    c.rear_dh = dice.from(-0.03, 0.05);
    for (auto& p : c.points)
      p.z += dice.from(-0.03, 0.05);
    const auto least = least_gap(c, profile);
    ASSERT_TRUE(least) << i;
    double swept = 1e9;
    for (double at = -1; at < x + 4; at += 0.02)
      swept = std::min(swept, scanned_gap(c, profile, at));
    EXPECT_LE(least->gap, swept + 5e-4) << i;
    EXPECT_NEAR(least->gap, scanned_gap(c, profile, least->front_at), 5e-4) << i;
  }
}

TEST(Ground, AWheelRollsOverACornerAndNeverSinksIn) {
  const Profile step{{0, 0}, {0.01, 0.1}};
  const double R = 0.3;
  for (double x = -0.6; x < 0.6; x += 0.013) {
    const double z = rolling_height(step, R, x);
    for (double u = -R; u <= R; u += 0.002)
      EXPECT_GE(std::hypot(u, z - height_at(step, x + u)), R - 1e-9) << x;
  }
  EXPECT_DOUBLE_EQ(rolling_height(step, R, -2), R);
  EXPECT_DOUBLE_EQ(rolling_height(step, R, 2), R + 0.1);
  EXPECT_DOUBLE_EQ(rolling_height({}, R, 2), R);
}

TEST(Ground, TheHubsStayAsFarApartAsTheyAre) {
  const Profile ramp{{0, 0}, {2, 0.5}, {4, 0.5}};
  const Underside c = car();
  const double apart = std::hypot(c.wheelbase, c.front_radius - c.rear_radius);
  for (double x = -1; x < 8; x += 0.21) {
    const auto s = stance_at(c, ramp, x);
    ASSERT_TRUE(s);
    EXPECT_NEAR(std::hypot(s->front_hub.x - s->rear_hub.x, s->front_hub.z - s->rear_hub.z), apart, 1e-7);
    const SidePoint hub = s->place({c.wheelbase, c.rear_radius});
    EXPECT_NEAR(hub.x, s->rear_hub.x, 1e-7);
    EXPECT_NEAR(hub.z, s->rear_hub.z, 1e-7);
  }
}

TEST(Ground, ACliffThatNoCarStandsOnIsSaidAndNotReckoned) {
  EXPECT_FALSE(least_gap(car(), {{0, 0}, {0.5, 3}}));
}

TEST(Ground, AnglesAreTangentsOfTheTyres) {
  Underside c = car();
  // Approach: the plane through the nose touches the front tyre's circle.
  const auto angles = ground_angles(c);
  ASSERT_TRUE(angles.approach && angles.departure && angles.breakover);
  const auto stance = stance_at(c, {}, 0);
  const SidePoint nose = stance->place(c.points[0]);
  const double a = *angles.approach;
  const double off = std::abs(-std::sin(a) * (nose.x - stance->front_hub.x) + std::cos(a) * (nose.z - c.front_radius));
  EXPECT_NEAR(off, c.front_radius, 1e-9);
  // A point within the tyre's circle sets no limit, and without any point there is none.
  c.points = {{-0.1, 0.2}};
  EXPECT_FALSE(ground_angles(c).approach);
  c.points = {};
  EXPECT_FALSE(ground_angles(c).breakover);
}

TEST(Ground, RaisingAnEndRaisesEveryAngle) {
  Underside high = car();
  high.front_dh = high.rear_dh = 0.04;
  const auto a = ground_angles(car()), b = ground_angles(high);
  EXPECT_GT(*b.approach, *a.approach);
  EXPECT_GT(*b.departure, *a.departure);
  EXPECT_GT(*b.breakover, *a.breakover);
}

TEST(Ground, BreakoverLooksAtSpansAndNotOnlyAtTheirEnds) {
  Underside c = car();
  c.points = {{0.6, 0.2}, {2.0, 0.12}};
  const double whole = *ground_angles(c).breakover;
  Underside split = c; // the same line, with a point more on it
  split.points = {{0.6, 0.2}, {1.5, 0.2 - 0.08 * 0.9 / 1.4}, {2.0, 0.12}};
  EXPECT_NEAR(*ground_angles(split).breakover, whole, 1e-6);
}

} // namespace
} // namespace mavrel::space
