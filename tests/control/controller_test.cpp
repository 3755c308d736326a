// The controller by itself: what its averages make of a road, when it opens, for how long, and when it holds still.
#include "control/controller.h"

#include "support.h"

#include <cmath>
#include <numbers>

namespace mavrel::control {
namespace {

std::vector<CircuitCorners> four(Gain gain = {8, 8, 8e-6, 8e-6}) {
  return {{{0}, gain}, {{1}, gain}, {{2}, gain}, {{3}, gain}};
}
std::array<double, 4> all(double v) {
  return {v, v, v, v};
}
Controller made(const Rules& rules, std::vector<CircuitCorners> circuits = four()) {
  return {rules, std::move(circuits), all(0.36), all(4e5), 1e4, 1};
}
/// Reads the same heights for a while. @returns s of open valve at a circuit
double hold(Controller& c, const ControlReadings& now, double from, double until, std::size_t circuit = 0) {
  double open = 0;
  for (double t = from; t < until; t += 0.02) {
    c.read(t, now);
    for (int i = 0; i < 20; ++i)
      open += c.order(circuit, t + 0.001 * i) == ValveOrder::shut ? 0 : 0.001;
  }
  return open;
}
ControlReadings at(double H) {
  ControlReadings out;
  out.height = all(H), out.pressure = all(4e5);
  return out;
}

TEST(Average, OfASineFallsAsItsClosedForm) {
  // The mean over T of a sine of frequency f is as large as |sin(π·f·T)/(π·f·T)| of it; of N samples, the sampled form.
  for (const double f : {0.1, 0.37, 1.2, 3.0}) {
    const int N = 200;
    const double dt = 0.02;
    Average mean(N);
    double most = 0;
    for (int i = 0; i < 20000; ++i) {
      mean.keep(std::sin(2 * std::numbers::pi * f * i * dt));
      if (mean.is_full()) most = std::max(most, std::abs(mean.mean()));
    }
    const double x = std::numbers::pi * f * dt;
    const double wanted = std::abs(std::sin(N * x) / (N * std::sin(x)));
    EXPECT_NEAR(most, wanted, 2e-3) << f;
  }
}

TEST(Average, OfWhiteNoiseScattersByTheRootOfItsCountAndOfAFlatRoadNotAtAll) {
  Chance chance(5);
  for (const std::size_t N : {25U, 100U, 400U}) {
    Average mean(N);
    double squares = 0;
    int count = 0;
    for (int i = 0; i < 400000; ++i) {
      mean.keep(0.36 + 0.004 * chance.normal());
      if (mean.is_full() && i % static_cast<int>(N) == 0) squares += std::pow(mean.mean() - 0.36, 2), ++count;
    }
    EXPECT_NEAR(std::sqrt(squares / count), 0.004 / std::sqrt(static_cast<double>(N)), 0.08 * 0.004 / std::sqrt(N));
  }
  Average flat(7);
  for (int i = 0; i < 1000000; ++i)
    flat.keep(0.1);
  EXPECT_NEAR(flat.mean(), 0.1, 1e-15) << "hours of adding and taking away leave nothing";
}

TEST(Controller, DoesNothingInsideTheBandAndNothingBeforeItsAverageIsFull) {
  Controller c = made({});
  EXPECT_EQ(hold(c, at(0.3551), 0, 60), 0);
  Controller off = made({});
  EXPECT_EQ(hold(off, at(0.35), 0, 3.9), 0) << "four seconds are not full yet";
  EXPECT_GT(hold(off, at(0.35), 3.9, 4.5), 0);
}

TEST(Controller, ABurstIsAsLongAsTheErrorAsksForBetweenLeastAndMost) {
  const auto burst = [](double H, Rules rules = {}) {
    Controller c = made(rules);
    return hold(c, at(H), 0, 6);
  };
  EXPECT_NEAR(burst(0.35), 8 * 0.010, 0.003);
  EXPECT_NEAR(burst(0.34), 8 * 0.020, 0.003);
  EXPECT_NEAR(burst(0.37), 8 * 0.010, 0.003);
  Rules rules;
  rules.most_burst = 0.1, rules.least_burst = 0.09;
  EXPECT_NEAR(burst(0.30, rules), 0.1, 0.003);
  EXPECT_NEAR(burst(0.3545, rules), 0.09, 0.003);
  rules = {};
  rules.gain = 20;
  EXPECT_NEAR(burst(0.35, rules), 0.2, 0.003) << "a gain set by hand goes before the learned one";
}

TEST(Controller, NoValveOpensInTheWait) {
  EXPECT_TRUE(rc::check([] {
    Rules rules;
    rules.wait = test::between(0.5, 10), rules.average = test::between(0.1, 6);
    rules.least_burst = 0.02;
    rules.method = test::between(0, 1) < 0.5 ? LevelMethod::bursts : LevelMethod::pressure;
    Controller c = made(rules);
    Chance chance(static_cast<std::uint64_t>(test::between(0, 1e6)));
    double shut_at = -1e9;
    bool was_open = false;
    for (double t = 0; t < 120; t += 0.02) {
      ControlReadings now;
      for (std::size_t k = 0; k < 4; ++k)
        now.height[k] = 0.36 + 0.02 * chance.normal(), now.pressure[k] = 4e5 + 4e4 * chance.normal();
      c.read(t, now);
      for (int i = 0; i < 10; ++i) {
        const double when = t + 0.002 * i;
        bool open = false;
        for (std::size_t k = 0; k < 4; ++k)
          open = open || c.order(k, when) != ValveOrder::shut;
        if (open && !was_open) RC_ASSERT(when - shut_at >= rules.wait - 0.03);
        if (was_open && !open) shut_at = when;
        was_open = open;
      }
    }
  }));
}

TEST(Controller, HoldsStillWhileBrakingCorneringOrWithADoorOpen) {
  for (int which = 0; which < 3; ++which) {
    ControlReadings held = at(0.33);
    if (which == 0) held.forward = -3;
    if (which == 1) held.left = 2;
    if (which == 2) held.doors = true;
    Controller c = made({});
    EXPECT_EQ(hold(c, held, 0, 20), 0);
    EXPECT_TRUE(c.is_held());
    EXPECT_GT(hold(c, at(0.33), 20, 25), 0) << "afterwards it goes on, by what it reads from there";
    Rules rules;
    rules.braking = rules.cornering = rules.doors = HoldStill::no;
    Controller goes_on = made(rules);
    EXPECT_GT(hold(goes_on, held, 0, 20), 0);
  }
  // A valve that stands open when it begins shuts.
  Rules slow;
  slow.gain = 100, slow.most_burst = 3;
  Controller c = made(slow);
  EXPECT_GT(hold(c, at(0.33), 0, 4.2), 0.1);
  ControlReadings brakes = at(0.33);
  brakes.forward = -5;
  c.read(4.3, brakes);
  EXPECT_EQ(c.order(0, 4.31), ValveOrder::shut);
}

TEST(Controller, SensorsDecideWhatIsCorrectedAlone) {
  ControlReadings leaning = at(0.36);
  leaning.height = {0.375, 0.345, 0.375, 0.345};
  const auto opens = [&](LevelSensors sensors, std::size_t circuit) {
    Rules rules;
    rules.sensors = sensors;
    Controller c = made(rules);
    return hold(c, leaning, 0, 6, circuit) > 0;
  };
  for (std::size_t k = 0; k < 4; ++k) {
    EXPECT_TRUE(opens(LevelSensors::four, k));
    EXPECT_FALSE(opens(LevelSensors::two, k)) << "an average of both sides sees no lean";
    EXPECT_EQ(opens(LevelSensors::three_one_front, k), k >= 2);
    EXPECT_EQ(opens(LevelSensors::three_one_rear, k), k < 2);
  }
  // Both sides of an axle alike by one sensor.
  ControlReadings low = at(0.36);
  low.height = {0.345, 0.355, 0.36, 0.36};
  Rules two;
  two.sensors = LevelSensors::two;
  Controller c = made(two);
  EXPECT_NEAR(hold(c, low, 0, 6, 1), 8 * 0.010, 0.003) << "by the mean of both";
}

TEST(Controller, FrontBeforeRearLetsTheRearWait) {
  Rules rules;
  rules.order = LevelOrder::front_first;
  Controller c = made(rules);
  double front = -1, rear = -1;
  for (double t = 0; t < 20; t += 0.02) {
    // The front comes right after its first burst.
    c.read(
        t, front < 0 || t < front + 1 ? at(0.35) : [] {
          ControlReadings r = at(0.36);
          r.height[2] = r.height[3] = 0.35;
          return r;
        }());
    if (front < 0 && c.order(0, t) != ValveOrder::shut) front = t;
    if (rear < 0 && c.order(2, t) != ValveOrder::shut) rear = t;
  }
  ASSERT_GT(front, 0);
  EXPECT_GT(rear, front + rules.wait);
}

TEST(Controller, UntilReachedShutsWhenTheHeightIsThere) {
  Rules rules;
  rules.method = LevelMethod::until_reached;
  Controller c = made(rules);
  double H = 0.34, opened = -1, shut = -1;
  for (double t = 0; t < 20; t += 0.02) {
    const bool open = c.order(0, t) == ValveOrder::fill;
    if (open) H += 0.02 * 0.02; // 20 mm a second
    if (open && opened < 0) opened = t;
    if (!open && opened > 0 && shut < 0) shut = t;
    c.read(t, at(H));
  }
  ASSERT_GT(shut, opened);
  // The mean over half a second lags a quarter of a second behind: five millimetres at this pace.
  EXPECT_NEAR(H - 0.36, 0.02 * 0.25, 0.001);
}

TEST(Controller, APersonLooksNowAndThen) {
  Rules rules;
  rules.method = LevelMethod::by_hand;
  rules.look_every = 100, rules.wait = 0;
  Controller c = made(rules);
  ControlReadings low = at(0.36);
  low.pressure = all(3e5);
  int openings = 0;
  bool was = false;
  for (double t = 0; t < 1000; t += 0.02) {
    const bool open = c.order(0, t) != ValveOrder::shut;
    if (open) low.pressure = all(4.001e5);
    if (!open && was) low.pressure = all(3e5); // it leaks down again
    openings += open && !was;
    was = open;
    c.read(t, low);
  }
  EXPECT_GE(openings, 8);
  EXPECT_LE(openings, 11);
}

} // namespace
} // namespace mavrel::control
