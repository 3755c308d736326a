// A demo car that rolls, and keeps its height by each school: stops, air, waits, overshoot, the same from the same
// seed.
#include "assess/leveling/cars.h"
#include "assess/leveling/drives.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {
namespace {

TEST(RollingCar, StandsWhereItWasPutAndKeepsItsAir) {
  for (const LevelingGiven* given : {&estate(), &pickup()}) {
    DriveGiven d = a_drive(*given, {}, 2, flat());
    d.rules.band = 0.1; // nothing is corrected
    const DriveResult r = driven(d);
    for (std::size_t c = 0; c < 4; ++c) {
      // The bag's area is read between rows, and friction holds what is left; a tee lets the car lean.
      EXPECT_NEAR(r.lowest[c], d.target[c], given == &estate() ? 0.002 : 0.010);
      EXPECT_NEAR(r.highest[c], d.target[c], given == &estate() ? 0.002 : 0.010);
    }
    EXPECT_TRUE(r.bursts.empty());
    EXPECT_EQ(r.together.air, 0);
    EXPECT_NEAR(r.tank_after, *full_tank(given->air), 1);
  }
}

TEST(RollingCar, BeginsSettledOnItsRoad) {
  // Standing still nothing happens, however rough the road it stands on.
  DriveGiven d = a_drive(estate(), {}, 1, std::make_shared<const Road>(Road::rough(control::RoadClass::g, 2000, 5)));
  d.rules.band = 0.2;
  d.speed = 0;
  const DriveResult r = driven(d);
  EXPECT_EQ(r.bottomed, 0);
  EXPECT_EQ(r.topped, 0);
  for (std::size_t c = 0; c < 4; ++c)
    EXPECT_NEAR(r.highest[c], r.lowest[c], 3e-3) << "it is at rest, but for its air's coming to the air around";
  EXPECT_EQ(r.compressor_s, 0);
}

TEST(RollingCar, CarriesItsWeightOnItsTyresAndItsAirNeverLeavesShutValves) {
  DriveGiven d = a_drive(estate());
  control::RollingCar car(d.car);
  double weight = 0;
  for (std::size_t c = 0; c < 4; ++c)
    weight += d.car.network.bodies[0].loads[c] + d.car.corners[c].unsprung_mass * standard_gravity;
  double air = 0, after = 0, sum = 0;
  for (const air::Leg& leg : d.car.network.bodies[0].legs)
    air += car.air().mass(leg.volume);
  int steps = 0;
  for (double t = 0, x = 5; t < 60;
       t += control::RollingCar::longest_step, x += 16.7 * control::RollingCar::longest_step) {
    const auto f = d.road->at(x), r = d.road->at(x - 2.75);
    car.step(control::RollingCar::longest_step, {f[0], f[1], r[0], r[1]}, {16.7, 0, 0});
    for (std::size_t c = 0; c < 4; ++c)
      sum += car.tyre_force(c);
    ++steps;
  }
  EXPECT_NEAR(sum / steps, weight, 0.003 * weight) << "over a minute what goes up comes down";
  for (const air::Leg& leg : d.car.network.bodies[0].legs)
    after += car.air().mass(leg.volume);
  EXPECT_NEAR(after, air, 1e-12);
}

TEST(RollingCar, NeverLeavesItsStopsHoweverBadTheRoad) {
  for (const LevelingGiven* given : {&estate(), &pickup()}) {
    DriveGiven d = a_drive(*given, {}, 2, std::make_shared<const Road>(Road::rough(control::RoadClass::f, 2000, 9)));
    d.speed = 22;
    const DriveResult r = driven(d);
    EXPECT_GT(r.bottomed + r.topped, 3) << "on such a road metal meets metal";
    for (std::size_t c = 0; c < 4; ++c) {
      // Of a solid axle it is the spring's place that has stops, nearer to the middle than the wheel.
      const double slack = d.car.spring_share[c / 2] < 1 ? 0.05 : 1e-4;
      EXPECT_GE(r.lowest[c], d.car.corners[c].lowest - slack);
      EXPECT_LE(r.highest[c], d.car.corners[c].highest + slack);
    }
  }
}

TEST(RollingCar, AHalvedStepChangesLittle) {
  const DriveGiven d = a_drive(estate());
  const auto swing = [&](double dt) {
    control::RollingCar car(d.car);
    double squares = 0, mean = 0;
    int n = 0;
    for (double t = 0; t < 30; t += dt) {
      const double x = 5 + 16.7 * t;
      const auto f = d.road->at(x), r = d.road->at(x - 2.75);
      car.step(dt, {f[0], f[1], r[0], r[1]}, {16.7, 0, 0});
      mean += car.height(2), squares += std::pow(car.height(2) - d.target[2], 2), ++n;
    }
    return std::pair{mean / n, std::sqrt(squares / n)};
  };
  const auto coarse = swing(control::RollingCar::longest_step), fine = swing(control::RollingCar::longest_step / 4);
  EXPECT_NEAR(coarse.first, fine.first, 4e-4);
  EXPECT_NEAR(coarse.second, fine.second, 0.03 * fine.second);
}

TEST(RollingCar, BouncesAtTheFrequencyTheAssessmentGives) {
  // Let down a little from where it stands, without friction or damping, each end bounces at its own pace.
  DriveGiven d = a_drive(estate());
  for (control::RollingCorner& c : d.car.corners) {
    c.friction = 1e-3;
    c.damper = {{1, 20, 20}};
  }
  control::RollingCar car(d.car);
  car.carry(40, 1.2, 0);
  for (double t = 0; t < 0.03; t += 0.0025)
    car.step(0.0025, {}, {});
  car.carry(0, 0, 0);
  const auto wave = [&](std::size_t corner) {
    double first = -1, last = 0;
    int waves = 0;
    double was = car.height(corner) - d.target[corner];
    for (double t = 0; t < 8; t += 0.0025) {
      car.step(0.0025, {}, {});
      const double now = car.height(corner) - d.target[corner];
      if (was < 0 && now >= 0) {
        if (first < 0) first = t;
        last = t, ++waves;
      }
      was = now;
    }
    return (waves - 1) / (last - first);
  };
  const double front = wave(0);
  const auto posed = posed_end(estate().air.ends[0]->fitted, d.target[0], 0);
  ASSERT_TRUE(posed);
  EXPECT_NEAR(front, *posed->state.ride_frequency, 0.12 * *posed->state.ride_frequency);
}

TEST(RollingCar, BrakingDipsTheNoseAndABendLeansIt) {
  const DriveGiven d = a_drive(estate());
  control::RollingCar car(d.car);
  for (double t = 0; t < 2; t += 0.0025)
    car.step(0.0025, {}, {20, -4, 0});
  EXPECT_LT(car.height(0), d.target[0] - 0.005);
  EXPECT_GT(car.height(2), d.target[2] + 0.005);
  control::RollingCar bend(d.car);
  for (double t = 0; t < 2; t += 0.0025)
    bend.step(0.0025, {}, {20, 0, 3}); // to the left: it leans to the right
  EXPECT_GT(bend.height(0) - bend.height(1), 0.01);
  EXPECT_NEAR((bend.height(0) + bend.height(1)) / 2, d.target[0], 0.004);
}

TEST(Drive, IsTheSameFromTheSameSeed) {
  DriveGiven d = a_drive(estate(), {}, 3);
  d.rules.band = 0.002;
  d.events = {people()};
  const DriveResult a = driven(d), b = driven(d);
  EXPECT_EQ(a.together.mean_error, b.together.mean_error);
  EXPECT_EQ(a.bursts.size(), b.bursts.size());
  EXPECT_EQ(a.together.air, b.together.air);
  EXPECT_EQ(a.lowest, b.lowest);
}

TEST(Drive, BurstsBringTheHeightBackAfterPeopleGetInAndEndsAddUp) {
  for (const LevelingGiven* given : {&estate(), &pickup()}) {
    DriveGiven d = a_drive(*given);
    d.events = {people()};
    const DriveResult r = driven(d);
    ASSERT_TRUE(r.together.recover);
    EXPECT_GT(*r.ends[1].recover, 5);
    EXPECT_LT(*r.together.recover, 90);
    EXPECT_GT(r.ends[1].worst_low, 0.010) << "they sit behind";
    EXPECT_LT(r.together.overshoot, 0.006);
    EXPECT_EQ(r.together.bursts, r.ends[0].bursts + r.ends[1].bursts);
    EXPECT_EQ(static_cast<std::size_t>(r.together.bursts), r.bursts.size());
    EXPECT_DOUBLE_EQ(r.together.air, r.ends[0].air + r.ends[1].air);
    EXPECT_DOUBLE_EQ(r.together.valve_s, r.ends[0].valve_s + r.ends[1].valve_s);
    EXPECT_GT(r.together.air, 1e-3);
    EXPECT_LT(r.tank_after, *full_tank(given->air));
  }
}

TEST(Drive, UntilReachedOvershootsMoreThanBursts) {
  DriveGiven d = a_drive(estate());
  d.events = {people()};
  const DriveResult bursts = driven(d);
  d.rules.method = LevelMethod::until_reached;
  const DriveResult open = driven(d);
  EXPECT_GT(open.together.overshoot, 2 * bursts.together.overshoot + 0.003);
  EXPECT_GT(open.together.air, bursts.together.air);
}

TEST(Drive, PressureLeavesTheHeightLowAfterALoadAndWrongAfterAWarmHour) {
  DriveGiven d = a_drive(estate(), {}, 8);
  d.events = {people()};
  const double kept = driven(d).ends[1].mean_error;
  d.rules.method = LevelMethod::pressure;
  const DriveResult loaded = driven(d);
  EXPECT_FALSE(loaded.ends[1].recover) << "the old pressure carries less than what sits there now";
  EXPECT_GT(loaded.ends[1].mean_error, 4 * kept);
  EXPECT_GT(loaded.ends[1].usual_low, 0.015);
  for (std::size_t c = 2; c < 4; ++c)
    EXPECT_NEAR(loaded.pressure_after[c], d.pressure[c], 2.5e4) << "while its pressure is what was learned";
  // Warmth alone: heights are held, pressures wander within their band and the height with them.
  d.events = {{control::TripEvent::Kind::air_temperature, 0, 480, {}, 0, 0, 0, 25}};
  const DriveResult warm = driven(d);
  d.rules.method = LevelMethod::bursts;
  const DriveResult held = driven(d);
  EXPECT_GT(warm.together.mean_error, held.together.mean_error);
  EXPECT_GT(held.together.bursts, 0) << "air that warms must go";
  EXPECT_EQ(held.together.air, 0) << "and none comes in for it";
}

TEST(Drive, ANarrowBandWorksTheValvesMoreAndALongAverageLess) {
  const auto bursts = [&](double band, double average) {
    Rules rules;
    rules.band = band, rules.average = average;
    return driven(a_drive(estate(), rules)).together;
  };
  const auto narrow = bursts(0.0015, 1), wide = bursts(0.006, 1), calm = bursts(0.0015, 6);
  EXPECT_GT(narrow.bursts, 4 * wide.bursts);
  EXPECT_GT(narrow.bursts, calm.bursts);
  EXPECT_LT(calm.mean_error, wide.mean_error);
}

TEST(Drive, NoCorrectionInTheWaitOrWhileADoorIsOpen) {
  DriveGiven d = a_drive(estate());
  d.rules.band = 0.0015, d.rules.average = 1;
  d.events = {people()};
  const DriveResult r = driven(d);
  ASSERT_GT(r.bursts.size(), 10U);
  std::vector<control::Burst> in_order = r.bursts;
  std::sort(in_order.begin(), in_order.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
  double shut = -1e9, begun = -1e9;
  for (const control::Burst& b : in_order) {
    if (b.from > begun + 0.01) { // those of one look begin together
      EXPECT_GE(b.from - shut, d.rules.wait - 0.05);
    }
    begun = b.from, shut = std::max(shut, b.until);
    EXPECT_TRUE(b.until <= 60.05 || b.from >= 70) << b.from;
    EXPECT_LE(b.until - b.from, d.rules.most_burst + 0.01);
    EXPECT_GE(b.until - b.from, d.rules.least_burst - 0.01);
  }
}

TEST(Drive, ASmallTankOnAnEmptyEngineRunsDryAndCompressorsMakeItUp) {
  DriveGiven d = a_drive(estate(), {}, 6);
  d.rules.band = 0.001, d.rules.average = 0.5, d.rules.wait = 0.5;
  d.car.network.volumes[d.car.tank].size = 0.003;
  const DriveResult with = driven(d);
  EXPECT_GT(with.compressor_s, 20);
  d.car.network.compressors.clear();
  const DriveResult without = driven(d);
  EXPECT_LT(without.tank_after, with.tank_after);
}

TEST(Drive, APassLowersTheAirAroundByWhatItsHeightsSay) {
  DriveGiven d = a_drive(estate(), {}, 4);
  d.rules.band = 0.1; // nothing is corrected, so that the tank keeps its air
  d.events = {{control::TripEvent::Kind::altitude, 10, 60, {}, 0, 0, 0, 1200}};
  const double below = air::Ambient{d.altitude, 293.15}.pressure(),
               above = air::Ambient{d.altitude + 1200, 293.15}.pressure();
  EXPECT_NEAR(driven(d).tank_after - *full_tank(estate().air), below - above, 60);
}

TEST(Drive, StopsWhenAsked) {
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(control::drive(a_drive(estate()), stop));
  EXPECT_FALSE(answer_drives(estate(), stop));
}

TEST(Drive, AValveSlowerThanItsBurstStillOpensForAsLong) {
  DriveGiven d = a_drive(estate());
  d.events = {people()};
  d.rules.gain = 1, d.rules.least_burst = 0.1, d.rules.valve_delay = 0.4;
  const DriveResult r = driven(d);
  ASSERT_FALSE(r.bursts.empty());
  for (const control::Burst& b : r.bursts)
    EXPECT_NEAR(b.until - b.from, 0.1, 0.004);
}

TEST(Drive, ALoadThatLeavesTheBandNowhereIsBackAtOnce) {
  DriveGiven d = a_drive(estate(), {}, 8);
  d.events = {people()};
  d.events[0].mass = 5;
  const DriveResult r = driven(d);
  ASSERT_TRUE(r.ends[1].recover);
  EXPECT_EQ(*r.ends[1].recover, 0) << "whatever a burst does minutes later";
}

} // namespace
} // namespace mavrel::assess
