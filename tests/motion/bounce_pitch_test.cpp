#include "motion/bounce_pitch.h"

#include "support.h"

#include <cmath>
#include <numbers>

namespace mavrel::motion {
namespace {

/// A car whose ends do not disturb each other: inertia is mass times the arms' product.
TwoAxleBody uncoupled(double front_hz, double rear_hz, double damping) {
  TwoAxleBody body;
  body.mass = 1200;
  body.front_arm = 1.2;
  body.rear_arm = 1.5;
  body.pitch_inertia = body.mass * body.front_arm * body.rear_arm;
  const double hz[] = {front_hz, rear_hz};
  const double carried[] = {body.mass * body.rear_arm / 2.7, body.mass * body.front_arm / 2.7};
  for (std::size_t e = 0; e < 2; ++e) {
    const double w = 2 * std::numbers::pi * hz[e];
    body.rate[e] = carried[e] * w * w;
    body.damping[e] = 2 * damping * carried[e] * w;
  }
  return body;
}

TEST(BouncePitch, UncoupledEndsSwingAsTheyWouldAlone) {
  // With the centre of percussion at the other axle the front end is one mass on one spring: after a bump it swings on
  // at its own frequency, whatever the rear does.
  const PitchRun soft = run_over_bump(uncoupled(1.2, 1.3, 0), {}, 20, 3),
                 stiff = run_over_bump(uncoupled(1.2, 2.1, 0), {}, 20, 3);
  std::vector<double> crossings;
  for (std::size_t i = 100; i + 1 < soft.pitch.size(); ++i) {
    const auto front = [&](const PitchRun& run, std::size_t k) { return run.bounce[k] + 1.2 * run.pitch[k]; };
    EXPECT_NEAR(front(soft, i), front(stiff, i), 1e-6);
    if (front(soft, i) < 0 && front(soft, i + 1) >= 0) crossings.push_back(static_cast<double>(i) * soft.step);
  }
  ASSERT_GE(crossings.size(), 2U);
  EXPECT_NEAR(1 / (crossings[1] - crossings[0]), 1.2, 0.01);
}

TEST(BouncePitch, WithoutABumpNothingMovesAndEnergyOnlyFalls) {
  const PitchRun still = run_over_bump(uncoupled(1.2, 1.4, 0.3), {0, 0.6}, 20, 1);
  for (const double pitch : still.pitch)
    EXPECT_EQ(pitch, 0);
  const PitchRun run = run_over_bump(uncoupled(1.2, 1.4, 0.3), {}, 20, 4);
  const auto most_after = [&](double t) {
    double most = 0;
    for (auto i = static_cast<std::size_t>(t / run.step); i < run.pitch.size(); ++i)
      most = std::max(most, std::abs(run.pitch[i]));
    return most;
  };
  EXPECT_LT(most_after(3), 0.05 * most_after(0));
}

TEST(BouncePitch, ScalesWithTheBump) {
  EXPECT_TRUE(rc::check("linear in the bump's height", [] {
    const auto body = uncoupled(test::between(0.9, 2), test::between(0.9, 2), test::between(0.1, 0.5));
    const double speed = test::between(5, 40);
    const auto one = run_over_bump(body, {0.02, 0.5}, speed, 2), two = run_over_bump(body, {0.04, 0.5}, speed, 2);
    RC_ASSERT(std::abs(two.unrest - 2 * one.unrest) < 1e-9 + 1e-6 * two.unrest);
  }));
}

TEST(BouncePitch, ARearALittleQuickerSettlesFlatter) {
  const double speed = 25;
  const auto unrest = [&](double rear) { return run_over_bump(uncoupled(1.25, rear, 0.28), {}, speed, 2.5).unrest; };
  EXPECT_LT(unrest(1.25 * 1.15), unrest(1.25 * 0.85));
}

} // namespace
} // namespace mavrel::motion
