// What came to the causes: nothing wrong, ice and its weather, pumps that run in vain, supplies, sensors; and that what
// is told and said of them is so.
#include "assess/faults/practised.h"
#include "control/rolling_car.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace mavrel::assess {
namespace {

Diagnosis diagnosed_of(std::vector<FaultFinding> findings) {
  FaultEvidence evidence;
  evidence.findings = std::move(findings);
  return diagnosed(evidence);
}

TEST(Causes, WithNothingWrongNothingLeadsAfterTheUsualReadings) {
  const FaultTable& table = practised()->table;
  FaultEvidence evidence;
  evidence.nothing_else = true;
  for (const char* test : {"hold", "pump", "heights", "gauges", "exhaust", "creep"})
    for (const SignAt& at : told_by(*fault_test(test), 0)) {
      FaultFinding f;
      f.at = at;
      if (at.sign->kind)
        f.value = table.well(*table.column(at));
      else
        f.yes = false;
      evidence.findings.push_back(f);
    }
  for (std::size_t corner = 0; corner < 4; ++corner)
    for (const SignAt& at : told_by(*fault_test("timing"), corner)) {
      FaultFinding f;
      f.at = at, f.value = table.well(*table.column(at));
      evidence.findings.push_back(f);
    }
  const Diagnosis d = diagnosed(evidence);
  EXPECT_EQ(fault_key(d.sets.front().faults), "nothing");
  EXPECT_GT(d.sets.front().odds, 0.3);
  for (const FaultSet& set : d.sets)
    EXPECT_TRUE(set.faults.size() == 1 || std::none_of(set.faults.begin(), set.faults.end(),
                                                       [](const FaultAt& f) { return is_nothing(*f.cause); }))
        << "it is never one of two";
}

TEST(Causes, IceKnowsTheWeather) {
  const auto ice = [](const char* air) {
    std::vector<FaultFinding> all = {found("frees_warm", "yes"), found("slow_up:front_left", "yes"),
                                     found("slow_down:rear_right", "yes")};
    if (*air) all.push_back(found("air_around", air));
    return odds_of(diagnosed_of(std::move(all)), "ice");
  };
  EXPECT_GT(ice("-3°C"), ice(""));
  EXPECT_GT(ice("-3°C"), 0.7);
  EXPECT_LT(ice("35°C"), 0.2 * ice("-3°C"));
  // Where the brief is of a hot place nobody looks for it.
  build::Build hot = test::demo_whole();
  hot.surroundings.temperature = 308.15;
  const auto causes = fault_causes();
  for (std::size_t i = 0; i < causes.size(); ++i)
    if (causes[i].key == std::string_view("ice")) {
      EXPECT_LT(noted(hot).evidence.priors[i], 0.05 * usual_priors()[i]);
      EXPECT_EQ(noted(test::demo_whole()).evidence.priors[i], usual_priors()[i]);
    }
}

TEST(Causes, APumpThatRunsAndNeverFillsIsNoDeadFeed) {
  const Diagnosis d =
      diagnosed_of({found("runs_in_vain", "yes"), found("tank_fill", "never"), found("volts", "12.8V")});
  EXPECT_EQ(fault_key(d.sets.front().faults), "check_shut");
  EXPECT_GT(odds_of(d, "check_shut"), 20 * odds_of(d, "fuse"));
  const Diagnosis dead = diagnosed_of({found("pumps_never", "yes"), found("tank_fill", "never"), found("volts", "0V")});
  EXPECT_GT(odds_of(dead, "fuse") + odds_of(dead, "relay"), 20 * odds_of(dead, "check_shut"));
}

TEST(Causes, OfASupplyThatIsDeadEveryCornerStaysWhereItIs) {
  std::vector<FaultFinding> all;
  for (const char* corner : {"front_left", "front_right", "rear_left", "rear_right"})
    for (const char* sign : {"stuck_low:", "stuck_high:", "fill_silent:"})
      all.push_back(found((std::string(sign) + corner).c_str(), "yes"));
  auto dead = all, dark = all, ground = all;
  dead.push_back(found("supply_dead", "yes"));
  EXPECT_EQ(fault_key(diagnosed_of(dead).sets.front().faults), "supply_fuse");
  dark.push_back(found("supply_dead", "no")), dark.push_back(found("controller_dark", "yes"));
  EXPECT_EQ(fault_key(diagnosed_of(dark).sets.front().faults), "controller_dead");
  ground.push_back(found("ground_lost", "yes"));
  EXPECT_EQ(fault_key(diagnosed_of(ground).sets.front().faults), "ground_broken");
}

TEST(Causes, WhatWasWorkedOnCounts) {
  const auto swapped = [](const char* key) {
    std::vector<FaultFinding> all = {found("other_moves:front", "yes")};
    if (*key) all.push_back(found(key, "yes"));
    return odds_of(diagnosed_of(std::move(all)), "swapped_lines:front");
  };
  EXPECT_GT(swapped("worked_air"), swapped(""));
  const auto loose = [](const char* key) {
    return odds_of(diagnosed_of({found("fills_slowly", "yes"), found(key, "yes")}), "intake_filter");
  };
  EXPECT_GT(loose("began_slowly"), loose("began_suddenly"));
}

TEST(Causes, ADeadPumpStandsStillAndOneThatIsStuckOnRuns) {
  for (const auto& [key, runs] : {std::pair{"fuse", false}, std::pair{"relay_stuck", true}}) {
    LearnedCar ill = practised()->car;
    const auto condition = condition_of(practised()->table.car(), *fault_of(key), 0.5);
    ill.parts.network.volumes[ill.parts.tank].gauge_pressure = 3e5; // well below the cut-in
    control::put_in(ill.parts, ill.circuits, condition);
    if (runs) ill.parts.network.volumes[ill.parts.tank].gauge_pressure = 11e5; // and over the cut-out
    control::RollingCar car(ill.parts);
    for (double t = 0; t < 20; t += control::RollingCar::longest_step)
      car.step(control::RollingCar::longest_step, {}, {});
    const double ran = car.air().run_time(0);
    if (runs) {
      EXPECT_NEAR(ran, 20, 0.1);
    } else {
      EXPECT_EQ(ran, 0);
    }
  }
}

TEST(Causes, NobodyTellsWhatIsPlainlyNotSo) {
  for (std::uint64_t seed = 1; seed <= 400; ++seed)
    for (const PracticeLevel level : {PracticeLevel::plain, PracticeLevel::slight, PracticeLevel::two}) {
      PracticeCar car(practised(), {seed, level});
      for (const FaultFinding& f : car.told()) {
        if (!f.at.sign->hard) continue;
        double no = 1;
        for (const FaultAt& fault : car.reveal())
          for (const double severity : {0.05, 0.5, 0.95})
            no *= 1 - shows_of(practised()->table.car(), fault, condition_of(practised()->table.car(), fault, severity),
                               f.at);
        if (no > 0.999) {
          ADD_FAILURE() << seed << " tells " << f.at.sign->key << " of " << fault_key(car.reveal());
        }
      }
    }
}

TEST(Causes, WhatCameIsFoundFirstByTheProposedTests) {
  constexpr const char* came[] = {
      "flat_battery",   "supply_fuse",  "controller_dead", "ground_broken", "coils_crossed", "sensor_dead",
      "sensor_shorted", "bracket_bent", "feed_kinked",     "tank_tap",      "intake_filter", "before_check",
      "check_shut",     "relief_early", "drain_open",      "gauge_line",    "leak_droop",    "damper_leaks",
      "damper_seized",  "bar_link",     "soft_tyre"};
  constexpr int each = 2;
  std::map<std::string_view, int> made;
  int first = 0, all = 0;
  for (std::uint64_t seed = 31'000; seed < 36'000 && all < each * static_cast<int>(std::size(came)); ++seed) {
    PracticeCar car(practised(), {seed, PracticeLevel::plain});
    const std::string_view key = car.reveal().front().cause->key;
    if (std::find(std::begin(came), std::end(came), key) == std::end(came) || made[key] >= each) continue;
    ++made[key], ++all;
    FaultEvidence evidence = car.evidence();
    go_on(car, *practised(), evidence, {}, [](const TestDone&) {});
    const bool right = fault_key(diagnosed(evidence).sets.front().faults) == fault_key(car.reveal());
    first += right;
  }
  EXPECT_EQ(all, each * static_cast<int>(std::size(came)));
  EXPECT_GE(first, 0.8 * all);
}

} // namespace
} // namespace mavrel::assess
