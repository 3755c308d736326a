// Air by even steps: the same as when the integrator lets time pass, air kept, nothing lost in small places.
#include "air/stepped_network.h"

#include "air/simulation.h"
#include "support.h"

#include <cmath>

namespace mavrel::air {
namespace {

constexpr Restriction narrow{1e-8, 0.3}, wide{4e-7, 0.3};

/// Two vessels and what lies between them.
Network two(Restriction through) {
  Network net;
  net.volumes = {{"a", 0.02, 8e5, 293.15, 5}, {"b", 0.004, 2e5, 293.15, 1}};
  net.lines = {{"", 0, 1, through, false, true}};
  return net;
}
std::vector<double> sizes(const Network& net) {
  std::vector<double> out;
  for (const Volume& v : net.volumes)
    out.push_back(v.size);
  return out;
}
void pass(SteppedNetwork& air, double seconds, double dt = 0.0025) {
  for (double t = 0; t < seconds - dt / 2; t += dt)
    air.step(dt);
}

TEST(SteppedNetwork, ComesToWhatTheIntegratorSays) {
  for (const Restriction& through : {narrow, Restriction{1e-7, 0.2}, wide}) {
    const Network net = two(through);
    SteppedNetwork steps(net, sizes(net));
    auto exact = Simulation::begin(net);
    ASSERT_TRUE(exact);
    for (const double until : {0.5, 2.0, 10.0}) {
      pass(steps, until - exact->time());
      ASSERT_TRUE(exact->run(until));
      for (std::size_t v = 0; v < 2; ++v) {
        EXPECT_NEAR(steps.gauge_pressure(v), exact->volumes()[v].gauge_pressure, 2500) << until;
        EXPECT_NEAR(steps.temperature(v), exact->volumes()[v].temperature, 0.8) << until;
      }
    }
  }
}

TEST(SteppedNetwork, SmallPlacesPassAirOnAndLoseNone) {
  // Tank, a line, a block of twenty cubic centimetres, and two ways out of it, one by way of a tee.
  Network net;
  net.volumes = {{"tank", 0.019, 9e5, 293.15, 5},   {"block", 3e-5, 9e5, 293.15, 0.3},
                 {"bag", 0.004, 4e5, 293.15, 1.5},  {"tee", 4e-6, 3e5, 293.15, 0.3},
                 {"left", 0.003, 3e5, 293.15, 1.5}, {"right", 0.003, 3e5, 293.15, 1.5}};
  net.lines = {{"feed", 0, 1, {6e-8, 0.3}, false, true}, {"one", 1, 2, {3e-8, 0.3}, false, true},
               {"two", 1, 3, {3e-8, 0.3}, false, true},  {"l", 3, 4, {4e-8, 0.3}, false, true},
               {"r", 3, 5, {2e-8, 0.3}, false, true},    {"vent", 2, outside, narrow, false, false}};
  SteppedNetwork steps(net, sizes(net));
  auto exact = Simulation::begin(net);
  ASSERT_TRUE(exact);
  const auto all = [&] {
    double m = 0;
    for (const std::size_t v : {0U, 2U, 4U, 5U})
      m += steps.mass(v);
    return m;
  };
  const double before = all();
  pass(steps, 0.6);
  ASSERT_TRUE(exact->run(0.6));
  EXPECT_NEAR(all(), before, 1e-12) << "nothing stays in the tee";
  for (const std::size_t v : {0U, 2U, 4U, 5U})
    EXPECT_NEAR(steps.mass(v), exact->volumes()[v].mass, 0.012 * exact->volumes()[v].mass) << v;
  EXPECT_NEAR(steps.passed(0), steps.passed(1) + steps.passed(2), 1e-12);
  // With the ways shut the tee still joins its sides.
  for (const std::size_t l : {1U, 2U})
    steps.open(l, false);
  pass(steps, 5);
  EXPECT_NEAR(steps.gauge_pressure(4), steps.gauge_pressure(5), 30);
  // And out of the vent goes what is gone.
  const double full = all();
  steps.open(5, true);
  pass(steps, 1);
  EXPECT_NEAR(all() - full, steps.mass_in(), 1e-12);
  EXPECT_LT(steps.mass_in(), -1e-4);
}

TEST(SteppedNetwork, ASealedBagKeepsItsAirAndItsAdiabat) {
  EXPECT_TRUE(rc::check([] {
    Network net;
    net.volumes = {{"bag", 0.004, 4e5, 293.15, 0}};
    net.bodies.resize(1);
    net.bodies[0].legs.resize(1);
    SteppedNetwork air(net, std::vector<double>{0.004});
    const double m = air.mass(0), pV = air.pressure(0) * std::pow(0.004, isentropic);
    double V = 0.004;
    for (int i = 0; i < 3000; ++i) {
      V = 0.004 * (1 + 0.2 * std::sin(0.01 * i) + 0.001 * test::between(-1, 1));
      air.squeeze(0, V);
      air.step(0.0025);
    }
    air.squeeze(0, 0.002); // a leap too large for the short row
    RC_ASSERT(air.mass(0) == m);
    RC_ASSERT(std::abs(air.pressure(0) * std::pow(0.002, isentropic) / pV - 1) < 1e-7);
  }));
}

TEST(SteppedNetwork, ACompressorCutsInAndOutAndRests) {
  Network net;
  net.volumes = {{"tank", 0.01, 6e5, 293.15, 5}};
  Compressor c;
  c.to = 0, c.curve = {{0, 8e-4}, {1e6, 4e-4}}, c.cut_in = 7e5, c.cut_out = 9e5;
  c.duty = Compressor::Duty{60, 100, 0.35};
  net.compressors = {c};
  SteppedNetwork steps(net, sizes(net));
  auto exact = Simulation::begin(net);
  ASSERT_TRUE(exact);
  for (const double until : {20.0, 70.0, 200.0}) {
    pass(steps, until - exact->time(), 0.005);
    ASSERT_TRUE(exact->run(until));
    EXPECT_NEAR(steps.gauge_pressure(0), exact->volumes()[0].gauge_pressure, 3000) << until;
    EXPECT_NEAR(steps.run_time(0), exact->run_time(0), 0.2) << until;
    EXPECT_EQ(steps.running(0), exact->running(0));
  }
}

TEST(SteppedNetwork, AirAroundThatChangesIsFeltThroughWallsAndGauges) {
  Network net;
  net.volumes = {{"tank", 0.01, 5e5, 293.15, 5}};
  SteppedNetwork air(net, sizes(net));
  air.surround(8e4, 313.15);
  EXPECT_NEAR(air.gauge_pressure(0), 5e5 + sea_level - 8e4, 1e-6);
  pass(air, 600, 0.01);
  EXPECT_NEAR(air.temperature(0), 313.15, 0.1);
  EXPECT_NEAR(air.pressure(0) / (5e5 + sea_level), 313.15 / 293.15, 1e-3);
}

} // namespace
} // namespace mavrel::air
