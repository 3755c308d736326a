// Drives: speeds and bends by profile, events that come and go.
#include "control/trip.h"

#include "support.h"

#include <cmath>

namespace mavrel::control {
namespace {

TEST(Trip, SpeedIsTheSumOfWhatItWasPushedBy) {
  for (const SpeedProfile profile :
       {SpeedProfile::stop_and_go, SpeedProfile::town, SpeedProfile::country, SpeedProfile::motorway}) {
    Trip trip(profile, 0, 900, 11);
    double v = 0, way = 0, fastest = 0, slowest = 1e9;
    const double dt = 0.01;
    for (double t = 0; t < 900; t += dt) {
      const Pace at = trip.at(t);
      EXPECT_NEAR(at.speed, v, 0.06) << t;
      v = std::max(0.0, at.speed + at.forward * dt);
      way += at.speed * dt;
      fastest = std::max(fastest, at.speed);
      if (t > 120) slowest = std::min(slowest, at.speed);
      EXPECT_LE(std::abs(at.left), 3);
    }
    EXPECT_NEAR(way, trip.length(), 0.15 * way) << "the last piece may go on beyond the end";
    switch (profile) {
    case SpeedProfile::stop_and_go:
      EXPECT_LT(fastest, 9);
      EXPECT_EQ(slowest, 0);
      break;
    case SpeedProfile::town:
      EXPECT_LT(fastest, 15);
      EXPECT_EQ(slowest, 0);
      break;
    case SpeedProfile::country:
      EXPECT_GT(slowest, 10);
      EXPECT_LT(fastest, 26);
      break;
    default:
      EXPECT_GT(slowest, 25);
      EXPECT_LT(fastest, 37);
    }
  }
}

TEST(Trip, ASteadyOneIsSteadyAndTheSameSeedIsTheSameDrive) {
  Trip steady(SpeedProfile::steady, 20, 100, 1);
  EXPECT_EQ(steady.length(), 2000);
  EXPECT_EQ(steady.at(99).speed, 20);
  Trip a(SpeedProfile::town, 0, 300, 4), b(SpeedProfile::town, 0, 300, 4), c(SpeedProfile::town, 0, 300, 5);
  EXPECT_EQ(a.length(), b.length());
  EXPECT_NE(a.length(), c.length());
  const double late = b.at(250).speed;
  EXPECT_EQ(a.at(10).speed, b.at(10).speed) << "asked for again from before";
  EXPECT_EQ(a.at(250).speed, late);
}

TEST(TripEvent, ComesOverItsTimeAndGoesBack) {
  const TripEvent e{TripEvent::Kind::load, 100, 20, 300.0, 150, 2, 0, 0};
  EXPECT_EQ(e.share(99), 0);
  EXPECT_DOUBLE_EQ(e.share(110), 0.5);
  EXPECT_EQ(e.share(200), 1);
  EXPECT_DOUBLE_EQ(e.share(315), 0.25);
  EXPECT_EQ(e.share(1000), 0);
  TripEvent stays = e;
  stays.until.reset();
  EXPECT_EQ(stays.share(1e6), 1);
}

} // namespace
} // namespace mavrel::control
