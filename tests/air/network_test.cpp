// Identities of an air network through time: nothing made or lost, both limits of heat, choking, balance, symmetry.
#include "air/simulation.h"

#include "support.h"

#include <algorithm>
#include <cmath>

namespace mavrel::air {
namespace {

constexpr Restriction valve{1.2e-8, 0.3};

Volume vessel(std::string name, double size, double pressure, double temperature = 293.15, double wall = 0) {
  return {std::move(name), size, pressure, temperature, wall};
}
Line line(std::size_t from, std::size_t to, Restriction through = valve) {
  return {"", from, to, through, false, true};
}
Simulation begun(const Network& network) {
  auto out = Simulation::begin(network);
  if (!out) throw std::runtime_error(say(out.error()));
  return std::move(*out);
}
void pass(Simulation& now, double until) {
  const auto ran = now.run(until);
  ASSERT_TRUE(ran) << say(ran.error());
}
double all_mass(const Simulation& now) {
  double out = 0;
  for (const VolumeState& v : now.volumes())
    out += v.mass;
  return out;
}
double all_energy(const Simulation& now) {
  double out = 0;
  for (const VolumeState& v : now.volumes())
    out += v.mass * heat_at_volume * v.temperature;
  return out;
}

/// A thin bag whose area is its dV/dh: the work its air does is the work the load takes.
BagCard thin_bag() {
  BagCard card;
  card.name = "Piston";
  card.collapsed_height = 0.05, card.max_height = 0.25, card.max_diameter = 0.16;
  card.max_pressure = 20e5;
  card.pressures = {1e5, 9e5};
  card.loads.resize(2);
  for (double h = 0.05; h < 0.2501; h += 0.05) {
    card.heights.push_back(h);
    card.volumes.push_back(0.0002 + 0.012 * h);
    for (std::size_t j = 0; j < 2; ++j)
      card.loads[j].push_back(card.pressures[j] * 0.012);
  }
  return card;
}
Leg leg(std::size_t volume, double height, double forward = 0, double left = 0) {
  Leg out;
  out.volume = volume;
  out.curve = BagCurve(thin_bag());
  out.lowest = 0.06, out.highest = 0.24, out.height = height;
  out.forward = forward, out.left = left;
  return out;
}
/// A symmetric car on four thin bags with a tank: volumes 0 to 3 are FL, FR, RL, RR, 4 the tank; a line to each.
Network car(double height = 0.10, double front = 3600, double rear = 3000) {
  Network net;
  Body body;
  const char* names[] = {"FL", "FR", "RL", "RR"};
  for (std::size_t i = 0; i < 4; ++i) {
    const double load = i < 2 ? front : rear;
    body.legs.push_back(leg(i, height, i < 2 ? 1.3 : -1.3, i % 2 ? -0.75 : 0.75));
    body.loads.push_back(load);
    net.volumes.push_back(vessel(names[i], 0, load / 0.012, 293.15, 1));
  }
  net.volumes.push_back(vessel("tank", 0.019, 10e5, 293.15, 2));
  for (std::size_t i = 0; i < 4; ++i) {
    net.lines.push_back(line(4, i));
    net.lines.back().open = false;
  }
  net.bodies.push_back(std::move(body));
  return net;
}

TEST(Network, NothingIsMadeOrLost) {
  EXPECT_TRUE(rc::check("mass", [] {
    Network net;
    const int n = *rc::gen::inRange(2, 7);
    for (int i = 0; i < n; ++i)
      net.volumes.push_back(vessel("v" + std::to_string(i), test::between(1e-5, 0.03), test::between(0, 14e5),
                                   test::between(260, 340), test::between(0, 5)));
    const int lines = *rc::gen::inRange(1, 10);
    for (int i = 0; i < lines; ++i) {
      const auto from = static_cast<std::size_t>(*rc::gen::inRange(0, n)),
                 to = static_cast<std::size_t>(*rc::gen::inRange(0, n));
      if (from != to) net.lines.push_back(line(from, to, {test::between(1e-9, 5e-8), test::between(0, 0.5)}));
    }
    net.lines.push_back(line(0, outside, {2e-9, 0.4}));
    net.compressors.push_back({"", 1, {{0, 8e-4}, {12e5, 4e-4}}, 350, 8e5, 11e5, true, {}});
    Simulation now = begun(net);
    const double before = all_mass(now), energy = all_energy(now);
    const auto ran = now.run(test::between(0.1, 60));
    RC_ASSERT(ran.has_value());
    RC_ASSERT(std::abs(all_mass(now) - before - now.mass_in()) < 1e-9 * before);
    RC_ASSERT(std::abs(all_energy(now) - energy - now.energy_in()) < 1e-4 * energy);
    for (const VolumeState& v : now.volumes())
      RC_ASSERT(v.gauge_pressure > -sea_level && v.temperature > 100 &&
                std::isfinite(v.mass)); // shut in warm, it may cool below the air around
  }));
}

TEST(Network, EnergyGoesIntoTheLift) {
  Network net = car();
  Simulation now = begun(net);
  const double before = all_energy(now), height = now.legs(0)[0].height;
  const double volume = now.volumes()[0].volume;
  for (std::size_t i = 0; i < 4; ++i)
    now.open(i, true);
  pass(now, 2);
  double work = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    const LegState& at = now.legs(0)[i];
    work += net.bodies[0].loads[i] * (at.height - height) + net.ambient_pressure * (at.volume - volume);
  }
  EXPECT_GT(now.legs(0)[0].height, height + 0.02);
  EXPECT_NEAR(all_energy(now), before + now.energy_in() - work, 2e-5 * before);
}

TEST(Network, LimitsOfHeat) {
  // A vessel filled from a large one: with thick walls the air warms by γ, with thin ones not at all.
  for (const bool thick : {true, false}) {
    Network net;
    net.volumes = {vessel("large", 1000, 5e5), vessel("small", 0.01, 0, 293.15, thick ? 0 : 1e5)};
    net.volumes[0].wall = thick ? 0 : 1e7;
    net.lines = {line(0, 1)};
    Simulation now = begun(net);
    pass(now, 60);
    const VolumeState& small = now.volumes()[1];
    EXPECT_NEAR(small.gauge_pressure, 5e5, 200);
    const double m0 = air_mass(sea_level, 0.01, 293.15), added = small.mass - m0;
    const double warm = thick ? (m0 * 293.15 + added * isentropic * 293.15) / small.mass : 293.15;
    EXPECT_NEAR(small.temperature, warm, thick ? 0.05 : 0.01);
  }
}

TEST(Network, AnEmptyingTankFollowsTheClosedForm) {
  // Choked and without heat through the wall: T/T0 = (p/p0)^((γ−1)/γ), and p falls as (1 + (γ−1)/2·t/τ)^(−2γ/(γ−1)).
  Network net;
  const double V = 0.02, p0 = 12e5 + sea_level, T0 = 300;
  net.volumes = {vessel("tank", V, 12e5, T0)};
  net.lines = {line(0, outside, {2e-8, 0.2})};
  Simulation now = begun(net);
  const double flow = 2e-8 * p0 * reference_density * std::sqrt(reference_temperature / T0);
  const double tau = air_mass(p0, V, T0) / flow;
  for (const double t : {0.5, 2.0, 4.0}) {
    pass(now, t);
    const double p = p0 * std::pow(1 + (isentropic - 1) / 2 * t / tau, -2 * isentropic / (isentropic - 1));
    EXPECT_NEAR(now.volumes()[0].gauge_pressure + sea_level, p, 2e-5 * p0) << t;
    EXPECT_NEAR(now.volumes()[0].temperature, T0 * std::pow(p / p0, 1 - 1 / isentropic), 0.02) << t;
  }
}

TEST(Network, SymmetricCarsStaySymmetric) {
  Simulation now = begun(car());
  for (std::size_t i = 0; i < 4; ++i)
    now.open(i, true);
  pass(now, 1.5);
  const auto& legs = now.legs(0);
  EXPECT_NEAR(legs[0].height, legs[1].height, 1e-7);
  EXPECT_NEAR(legs[2].height, legs[3].height, 1e-7);
  EXPECT_NEAR(now.volumes()[0].mass, now.volumes()[1].mass, 1e-9);
}

TEST(Network, OneCornerRaisedLoadsItsDiagonal) {
  Simulation now = begun(car());
  const auto before = now.legs(0);
  now.open(0, true); // front left
  pass(now, 0.4);
  const auto& after = now.legs(0);
  EXPECT_GT(after[0].wheel_force, before[0].wheel_force + 50);
  EXPECT_GT(after[3].wheel_force, before[3].wheel_force + 50) << "rear right";
  EXPECT_LT(after[1].wheel_force, before[1].wheel_force - 50);
  EXPECT_LT(after[2].wheel_force, before[2].wheel_force - 50);
  EXPECT_GT(after[0].height, after[1].height);
}

TEST(Network, ForcesAndMomentsBalanceAtEveryLook) {
  Simulation now = begun(car(0.07));
  for (std::size_t i = 0; i < 4; ++i)
    now.open(i, i != 2);
  int looks = 0;
  const auto ran = now.run(6, {}, 0.05,
                           [&] {
                             ++looks;
                             double sum = 0, pitch = 0, roll = 0;
                             const Body& body = now.network().bodies[0];
                             for (std::size_t i = 0; i < 4; ++i) {
                               const double more = now.legs(0)[i].wheel_force - body.loads[i];
                               sum += more, pitch += more * body.legs[i].forward, roll += more * body.legs[i].left;
                             }
                             EXPECT_NEAR(sum, 0, 1e-4);
                             EXPECT_NEAR(pitch, 0, 1e-4);
                             EXPECT_NEAR(roll, 0, 1e-4);
                           },
                           {});
  ASSERT_TRUE(ran);
  EXPECT_GE(looks, 119);
  bool on_stop = false;
  for (const LegState& at : now.legs(0))
    on_stop |= at.stop_force < -1;
  EXPECT_TRUE(on_stop) << "so long open, a corner stands on its upper stop, which holds it down";
}

TEST(Network, TheStopTakesTheDifference) {
  Network net;
  Body body;
  body.legs.push_back(leg(0, 0.10));
  body.loads.push_back(3600);
  net.volumes = {vessel("bag", 0, 3e5)};
  net.lines = {line(0, outside)};
  net.bodies.push_back(std::move(body));
  Simulation now = begun(net);
  pass(now, 60);
  const LegState& at = now.legs(0)[0];
  EXPECT_DOUBLE_EQ(at.height, 0.06);
  EXPECT_NEAR(at.wheel_force, 3600, 1e-5);
  EXPECT_NEAR(at.stop_force, 3600 - now.volumes()[0].gauge_pressure * 0.012, 1e-3);
  EXPECT_LT(now.volumes()[0].gauge_pressure, 100);
}

TEST(Network, WatchesStopWhereTheyAreMet) {
  Simulation now = begun(car());
  for (std::size_t i = 0; i < 4; ++i)
    now.open(i, true);
  Watch high;
  high.leg = 0, high.level = 0.12;
  Watch empty;
  empty.what = Watch::What::pressure, empty.volume = 4, empty.level = 9e5;
  const Watch both[] = {high, empty};
  auto ended = now.run(60, both);
  ASSERT_TRUE(ended);
  ASSERT_TRUE(ended->watch);
  const bool was_high = *ended->watch == 0;
  const Watch& other = both[was_high ? 1 : 0];
  if (was_high)
    EXPECT_NEAR(now.legs(0)[0].height, 0.12, 1e-7);
  else
    EXPECT_NEAR(now.volumes()[4].gauge_pressure, 9e5, 1);
  ended = now.run(60, std::span(&other, 1));
  ASSERT_TRUE(ended);
  EXPECT_TRUE(ended->watch);
}

TEST(Network, ACompressorCutsOutAndRests) {
  Network net;
  net.volumes = {vessel("tank", 0.019, 0, 293.15, 1e4)};
  net.compressors.push_back({"", 0, {{0, 8e-4}, {12e5, 4e-4}}, 350, 8e5, 10e5, true, {}});
  Simulation now = begun(net);
  pass(now, 600);
  EXPECT_FALSE(now.running(0));
  EXPECT_LT(now.volumes()[0].gauge_pressure, 10e5 + 10);
  const double filling = now.run_time(0);
  // dp/dt·V = R·T·ṁ with a delivery that falls linearly; air keeps its temperature.
  const double a = 8e-4, slope = 4e-4 / 12e5;
  EXPECT_NEAR(filling, 0.019 / (sea_level * slope) * std::log(a / (a - slope * 10e5)), 0.05);
  // The same with a pump that must rest after half of that.
  net.compressors[0].duty = Compressor::Duty{filling / 2, 300, 0.4};
  Simulation tired = begun(net);
  pass(tired, filling / 2 - 0.5);
  EXPECT_TRUE(tired.running(0));
  pass(tired, filling / 2 + 0.5);
  EXPECT_TRUE(tired.resting(0));
  pass(tired, filling / 2 + 300 * std::log(1 / 0.4) + 1);
  EXPECT_TRUE(tired.running(0)) << "cool enough again";
  EXPECT_NEAR(tired.run_time(0), filling / 2 + 1, 0.1);
}

TEST(Network, AirGoesOneWayThroughACheckValve) {
  Network net;
  net.volumes = {vessel("low", 0.01, 1e5), vessel("high", 0.01, 6e5)};
  net.lines = {line(0, 1)};
  net.lines[0].one_way = true;
  Simulation now = begun(net);
  pass(now, 30);
  EXPECT_NEAR(now.volumes()[1].gauge_pressure, 6e5, 1e-3);
  std::swap(net.lines[0].from, net.lines[0].to);
  Simulation other = begun(net);
  pass(other, 30);
  EXPECT_NEAR(other.volumes()[1].gauge_pressure, other.volumes()[0].gauge_pressure, 20);
}

TEST(Network, ImpossibleOnesSaySo) {
  const auto says = [](const Network& net, const char* what) {
    const auto begins = Simulation::begin(net);
    ASSERT_FALSE(begins);
    EXPECT_NE(say(begins.error()).find(what), std::string::npos) << say(begins.error());
  };
  says({}, "volume");
  Network net = car();
  net.lines[0].through.conductance = 0;
  says(net, "lets nothing through");
  net = car();
  net.lines.push_back(line(0, 4));
  net.lines.push_back(line(4, 0));
  net.lines[4].one_way = net.lines[5].one_way = true;
  says(net, "loop");
  net = car();
  net.bodies[0].legs[1].lowest = 0.01;
  says(net, "card");
  net = car();
  net.bodies[0].legs[1].height = 0.3;
  says(net, "stops");
  net = car();
  net.bodies[0].loads[2] = 0;
  says(net, "RL");
  net = car();
  net.compressors.push_back({"pump", 4, {{0, 8e-4}}, 350, 11e5, 10e5, false, {}});
  says(net, "pump");
  net = car();
  net.volumes[4].name = "FL";
  says(net, "FL");
  net = car();
  net.volumes[4].gauge_pressure = -2e5;
  says(net, "below nothing");
}

TEST(Network, LooksHardlyMakeSteps) {
  Simulation plain = begun(car()), looked = begun(car());
  for (Simulation* now : {&plain, &looked})
    now->open(0, true);
  ASSERT_TRUE(plain.run(5));
  ASSERT_TRUE(looked.run(5, {}, 0.01, [] {}));
  EXPECT_LT(looked.steps(), 2 * plain.steps()) << "but for its first, which a near look may shorten";
}

TEST(Network, StopsWhenAsked) {
  Simulation now = begun(car());
  int asked = 0;
  const auto ran = now.run(1e5, {}, 0.5, {}, [&] { return ++asked > 3; });
  EXPECT_FALSE(ran);
  EXPECT_LT(now.time(), 3);
}

TEST(Flow, PartsInSeriesShareTheLoss) {
  const Restriction parts[] = {{1e-8, 0.3}, {2e-8, 0.4}, {1.4e-8, 0.1}};
  const Restriction row = in_series(parts);
  EXPECT_LT(row.conductance, 1e-8);
  double shares = 0;
  for (const Restriction& part : parts)
    shares += share_of_loss(part, row);
  EXPECT_NEAR(shares, 1, 1e-12);
  const Restriction one = in_series(std::span(parts, 1));
  EXPECT_NEAR(one.conductance, 1e-8, 1e-20);
  EXPECT_NEAR(one.critical_ratio, 0.3, 1e-12);
  const Restriction low[] = {{1e-8, 0}, {1e-8, 0}};
  EXPECT_EQ(in_series(low).critical_ratio, 0) << "never below 0";
}

} // namespace
} // namespace mavrel::air
