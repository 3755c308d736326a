// The demo cars keeping their height: what the road does to them, what each school comes to, tuning, sensors, storing.
#include "assess/leveling/calibration.h"
#include "assess/leveling/drives.h"
#include "assess/leveling/tuning.h"

#include "assess/assess.h"
#include "support.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mavrel::assess {
namespace {

using build::Build;
using control::DriveGiven;
using control::DriveResult;
using control::LevelMethod;
using control::Road;
using control::Rules;

LevelingGiven leveling_of(const Build& b) {
  return leveling_given(b, air_given(b, test::demo_shelf(), ask_ends(b, test::demo_shelf())), 0);
}
const LevelingGiven& estate() {
  static const LevelingGiven given = [] {
    Build b = test::demo_whole();
    b.drive = {};
    return leveling_of(b);
  }();
  return given;
}
const LevelingGiven& pickup() {
  static const LevelingGiven given = [] {
    Build b = test::pickup_whole();
    b.drive = {};
    return leveling_of(b);
  }();
  return given;
}
const LearnedCar& car_of(const LevelingGiven& given) {
  static std::map<const LevelingGiven*, LearnedCar> cars;
  if (!cars.contains(&given)) {
    auto car = learned_car(given);
    if (!car) throw std::runtime_error(say(car.error()));
    cars.emplace(&given, std::move(*car));
  }
  return cars.at(&given);
}
/// A steady drive of a car, on a road of class C unless another is given.
DriveGiven a_drive(const LevelingGiven& given, const Rules& rules = {}, double minutes = 5,
                   std::shared_ptr<const Road> road = nullptr) {
  static const auto worn = std::make_shared<const Road>(Road::rough(control::RoadClass::c, 4000, 3));
  DriveGiven out = drive_given(given, car_of(given), rules, road ? std::move(road) : worn);
  out.sensors = {}; // read exactly
  out.speed = 16.7, out.duration = 60 * minutes, out.seed = 1;
  return out;
}
DriveResult driven(const DriveGiven& given) {
  return *control::drive(given);
}
control::TripEvent people() {
  return {control::TripEvent::Kind::load, 60, 10, {}, 150, 2.6, 0, 0};
}
std::shared_ptr<const Road> flat() {
  static const auto road = std::make_shared<const Road>(Road::flat());
  return road;
}

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

TEST(Drive, StopsWhenAsked) {
  std::atomic<bool> stop = true;
  EXPECT_FALSE(control::drive(a_drive(estate()), &stop));
  EXPECT_FALSE(answer_drives(estate(), &stop));
}

TEST(LearnBursts, KnowWhichCornerAndHowMuch) {
  const LearnedCar& car = car_of(estate());
  ASSERT_EQ(car.learned.size(), 4U);
  for (std::size_t i = 0; i < 4; ++i) {
    const control::LearnedBurst& l = car.learned[i];
    EXPECT_GT(l.up.height, 0.005);
    EXPECT_LT(l.down.height, -0.005);
    EXPECT_GT(l.up.pressure, 0);
    EXPECT_LT(l.down.pressure, 0);
    for (std::size_t c = 0; c < 4; ++c)
      if (c != i) {
        EXPECT_LT(l.up.corners[c], l.up.corners[i]);
      }
  }
  EXPECT_NEAR(car.learned[0].up.height, car.learned[1].up.height, 0.1 * car.learned[0].up.height);
  // Twice as long a burst buys about twice as much, so half the gain for twice the valve.
  const auto gains = control::gains_of(car.learned);
  for (const control::Gain& g : gains) {
    EXPECT_GT(g.up, 0.5);
    EXPECT_LT(g.up, 200);
  }
}

TEST(AnswerDrives, GivesEverySetUpOnTheSameRoad) {
  Build b = test::demo_whole();
  b.drive.duration = 120;
  const auto drives = answer_drives(leveling_of(b), nullptr);
  ASSERT_TRUE(drives && *drives) << say((*drives).error());
  ASSERT_EQ((*drives)->driven.size(), 3U);
  EXPECT_EQ((*drives)->driven[0].name, "Bursts, four sensors");
  for (const Driven& d : (*drives)->driven) {
    EXPECT_NEAR(d.result.simulated, 120, 0.01);
    EXPECT_EQ(d.result.looks.size(), 240U);
    for (const control::DriveLook& look : d.result.looks)
      for (std::size_t c = 0; c < 4; ++c) {
        EXPECT_LE(look.lowest[c], look.height[c]);
        EXPECT_GE(look.highest[c], look.height[c]);
      }
  }
}

TEST(AnswerDrives, SaysWhatIsMissing) {
  Build b = test::demo_whole();
  b.variant().air.valves.clear();
  auto said = answer_drives(leveling_of(b), nullptr);
  ASSERT_TRUE(said && !*said);
  EXPECT_NE(say((*said).error()).find("valves"), std::string::npos) << say((*said).error());
  b = test::demo_whole();
  auto& presets = b.variant().brief.presets;
  presets.erase(presets.begin() + 1);
  said = answer_drives(leveling_of(b), nullptr);
  ASSERT_TRUE(said && !*said);
  EXPECT_NE(say((*said).error()).find("road height"), std::string::npos) << say((*said).error());
}

TEST(AnswerDrives, RefusesADriveThatNoCarDrives) {
  const auto why = [](const std::function<void(build::DriveEvent&)>& change) {
    Build b = test::demo_whole();
    b.drive.events.resize(1);
    change(b.drive.events[0]);
    const auto said = answer_drives(leveling_of(b), nullptr);
    return *said ? std::string() : say((*said).error());
  };
  EXPECT_NE(why([](build::DriveEvent& e) { e.mass = -1400, e.x = 2.7; }).find("Rear"), std::string::npos);
  EXPECT_NE(why([](build::DriveEvent& e) { e.mass = 1500, e.x = 9; }).find("Front"), std::string::npos);
  EXPECT_NE(why([](build::DriveEvent& e) { e.kind = build::DriveEventKind::altitude, e.altitude = 6900; }).find("sea"),
            std::string::npos);
  EXPECT_NE(
      why([](build::DriveEvent& e) { e.kind = build::DriveEventKind::air_temperature, e.warmer = 58; }).find("°C"),
      std::string::npos);
}

TEST(ControlSetUp, TheOneTheCarGetsStaysItUnderAnotherName) {
  Build b = test::demo_whole();
  auto& leveling = b.variant().leveling;
  EXPECT_EQ(leveling.set_up().name, "Bursts, four sensors");
  leveling.set_ups[0].name = "Mine";
  EXPECT_EQ(leveling.set_up().name, "Mine");
  leveling.set_ups.erase(leveling.set_ups.begin());
  EXPECT_EQ(leveling.set_up().name, "Until it is there") << "without it, the first";
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

TEST(Tuning, ProposesWhatKeepsWithinTheBriefForTheLeastAir) {
  Build b = test::demo_whole();
  b.drive.duration = 60, b.drive.profile = control::SpeedProfile::steady;
  b.drive.events.clear();
  b.variant().brief.bump_travel = 0.030;
  const LevelingGiven given = leveling_of(b);
  int told = 0;
  const auto tuned = tune(given, {0, {}, [&](double done) {
                                    EXPECT_GE(done, 0);
                                    EXPECT_LE(done, 1.01);
                                    ++told;
                                  }});
  ASSERT_TRUE(tuned && *tuned);
  const Tuning& t = **tuned;
  EXPECT_EQ(static_cast<std::size_t>(told), t.points.size());
  EXPECT_GT(t.spare, 0.005);
  ASSERT_TRUE(t.proposed);
  const TuningPoint& best = t.points[*t.proposed];
  EXPECT_LE(best.low, t.spare);
  for (const TuningPoint& p : t.points) {
    if (p.spared) {
      EXPECT_GE(p.air, best.air);
    }
    if (!p.best) continue;
    for (const TuningPoint& q : t.points)
      EXPECT_FALSE(q.off < p.off && q.air < p.air && q.bursts < p.bursts) << "bettered after all";
  }
  EXPECT_EQ(t.points.front().rules, given.leveling.set_up().rules) << "the first is as it is now";
  std::stop_source stop;
  stop.request_stop();
  EXPECT_FALSE(tune(given, {1, stop.get_token(), {}}));
}

TEST(OtherParts, AFinerValveMovesLessWithEachBurst) {
  Build b = test::demo_whole();
  b.drive.duration = 60;
  const auto given = other_parts_given(leveling_of(b), test::demo_shelf());
  ASSERT_FALSE(given.finer.empty());
  ASSERT_FALSE(given.wider.empty());
  const auto parts = answer_other_parts(given, nullptr);
  ASSERT_TRUE(parts && *parts);
  ASSERT_EQ((*parts)->size(), 1 + given.finer.size() + given.wider.size());
  const double now = (*parts)->front().buys;
  for (const OtherPart& p : **parts)
    if (p.role == KitRole::valves && !p.name.empty()) {
      if (p.finer) {
        EXPECT_LT(p.buys, now);
      } else {
        EXPECT_GT(p.buys, now * 0.999);
      }
    }
}

TEST(SensorAtEnd, TellsWhatItReadsAndWhatComesNear) {
  const Build& b = test::demo_whole();
  const auto ends = ask_ends(b, test::demo_shelf());
  const SensorAtEnd s = sensor_at_end(ends[0]->fitted, b.variant().leveling.sensors[0]);
  ASSERT_TRUE(s.linkage);
  EXPECT_FALSE(s.trouble);
  EXPECT_FALSE(s.flips);
  EXPECT_GT(s.sweep, 0.5);
  EXPECT_NEAR(s.used, s.sweep / b.variant().leveling.sensors[0].range, 1e-12);
  EXPECT_NEAR(s.sweep, std::abs(s.looks.back().turned - s.looks.front().turned), 1e-9);
  ASSERT_TRUE(s.counts_per_metre);
  EXPECT_GT(*s.counts_per_metre * 0.001, 2);
  ASSERT_TRUE(s.nearest);
  EXPECT_GT(s.nearest->gap, 0);
  // Into the wheel it meets it.
  build::SensorFit into = b.variant().leveling.sensors[0];
  into.ahead = 0.26, into.pickup_y = *into.pickup_y + 0.2, into.pivot_y = *into.pivot_y + 0.2;
  const SensorAtEnd meets = sensor_at_end(ends[0]->fitted, into);
  ASSERT_TRUE(meets.nearest);
  EXPECT_LT(meets.nearest->gap, s.nearest->gap);
  EXPECT_FALSE(sensor_at_end(ends[0]->fitted, {}).linkage);
}

TEST(Calibration, StoresRoadFirstAndReadsWhatTheAssessmentSays) {
  const Build& b = test::demo_whole();
  const LevelingGiven given = leveling_of(b);
  const auto stored = answer_calibration(given, nullptr);
  ASSERT_TRUE(stored && *stored);
  const Calibration& c = **stored;
  ASSERT_EQ(c.presets.size(), 3U);
  EXPECT_EQ(c.presets[0].name, "Road");
  EXPECT_EQ(c.presets[1].name, "Ramp") << "upwards before downwards";
  EXPECT_TRUE(c.presets[1].trouble) << "its front lies above the bag's full height";
  EXPECT_EQ(c.presets[2].name, "Parked");
  EXPECT_TRUE(c.presets[2].on_stop);
  for (std::size_t k = 0; k < 4; ++k) {
    const auto& at = given.air.ends[k / 2]->assessment.presets[1];
    EXPECT_NEAR(c.presets[0].pressure[k], at->cases[0]->side_pressure[k % 2], 60);
    ASSERT_TRUE(c.presets[0].counts[k]);
    EXPECT_NEAR(*c.presets[0].counts[k], 512, 1e-9) << "set to the middle of its range at road height";
  }
  EXPECT_EQ(c.bursts.size(), 4U);
  ASSERT_GE(c.before.size(), 5U);
  bool lamps = false, brake = false;
  for (const CalibrationStep& step : c.steps)
    lamps = lamps || say(step.what).find("lamps") != std::string::npos;
  for (const CalibrationStep& step : c.before)
    brake = brake || say(step.what).find("brake") != std::string::npos;
  EXPECT_TRUE(lamps && brake);
  // The same part on both sides counts the other way on the right.
  build::SensorFit same = b.variant().leveling.sensors[0];
  const FittedEnd& end = given.air.ends[0]->fitted;
  same.mirrored = build::Mirrored::no;
  const double up = *end.road + 0.02;
  EXPECT_NEAR(*counts_at(end, same, up, false) + *counts_at(end, same, up, true), 1024, 1e-9);
  same.mirrored = build::Mirrored::yes;
  EXPECT_NEAR(*counts_at(end, same, up, false), *counts_at(end, same, up, true), 1e-9);
}

} // namespace
} // namespace mavrel::assess
