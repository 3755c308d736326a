// The demo cars keeping their height: set-ups side by side, tuning, sensors, storing.
#include "assess/leveling/calibration.h"
#include "assess/leveling/cars.h"
#include "assess/leveling/drives.h"
#include "assess/leveling/tuning.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {
namespace {

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
  const auto drives = answer_drives(leveling_of(b), {});
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
  auto said = answer_drives(leveling_of(b), {});
  ASSERT_TRUE(said && !*said);
  EXPECT_NE(say((*said).error()).find("valves"), std::string::npos) << say((*said).error());
  b = test::demo_whole();
  auto& presets = b.variant().brief.presets;
  presets.erase(presets.begin() + 1);
  said = answer_drives(leveling_of(b), {});
  ASSERT_TRUE(said && !*said);
  EXPECT_NE(say((*said).error()).find("road height"), std::string::npos) << say((*said).error());
}

TEST(AnswerDrives, RefusesADriveThatNoCarDrives) {
  const auto why = [](const std::function<void(build::DriveEvent&)>& change) {
    Build b = test::demo_whole();
    b.drive.events.resize(1);
    change(b.drive.events[0]);
    const auto said = answer_drives(leveling_of(b), {});
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
  const auto parts = answer_other_parts(given, {});
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
  const auto stored = answer_calibration(given, {});
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
