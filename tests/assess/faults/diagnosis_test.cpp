// Odds by what was found: what moves them, what is refused, what fits nothing.
#include "assess/faults/practised.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {
namespace {

TEST(Diagnosis, OfNothingIsWhatIsUsual) {
  FaultEvidence none;
  const Diagnosis d = diagnosed(none);
  EXPECT_NEAR(d.unknown, 0.03, 0.002);
  // Parts of all, shared among its places.
  EXPECT_NEAR(odds_of(d, "leak_fitting:front_left") / odds_of(d, "leak_fitting:rear_right"), 1, 1e-9);
  const double leak = odds_of(d, "leak_fitting:front_left") * 4;
  EXPECT_NEAR(leak / odds_of(d, "voltage"), 9.0 / 4, 1e-6);
  EXPECT_TRUE(d.trouble.empty());
}

TEST(Diagnosis, FindsAPinchedLineByItsTimes) {
  const FaultCar& car = practised()->table.car();
  FaultEvidence evidence;
  evidence.findings = {found("slow_up:front_left", "yes"), found("slow_down:front_left", "yes")};
  FaultFinding up = found("fill_time:front_left", "1s"), down = found("vent_time:front_left", "1s");
  up.value = car.fill[0].at(0.3), down.value = car.vent[0].at(0.3);
  evidence.findings.push_back(up);
  evidence.findings.push_back(down);
  evidence.findings.push_back(found("drains_water", "no"));
  evidence.findings.push_back(found("line_kinked:front_left", "yes"));
  const Diagnosis d = diagnosed(evidence);
  EXPECT_EQ(fault_key(d.sets.front().faults), "pinched:front_left");
  EXPECT_GT(d.sets.front().odds, 0.9);
  EXPECT_LE(d.sets.front().odds, most_odds);
  EXPECT_GT(d.sets.front().times.back(), 2) << "the kink speaks for it";
  EXPECT_EQ(d.course.size(), evidence.findings.size() + 1);
  // Slow both ways and no kink: water in it is likelier then.
  evidence.findings.back() = found("line_kinked:front_left", "no");
  evidence.findings.push_back(found("water_blown:front_left", "yes"));
  EXPECT_EQ(fault_key(diagnosed(evidence).sets.front().faults), "wet_line:front_left");
}

TEST(Diagnosis, IsTheSameOnTheOtherSideAndInAnyOrder) {
  for (const char* corner : {"front_right", "rear_left"}) {
    FaultEvidence evidence;
    evidence.findings = {found((std::string("sinks_night:") + corner).c_str(), "yes"),
                         found((std::string("hold_loss:") + corner).c_str(), "8%"), found("exhaust_blows", "no"),
                         found((std::string("bubbles_fitting:") + corner).c_str(), "yes")};
    const Diagnosis d = diagnosed(evidence);
    EXPECT_EQ(fault_key(d.sets.front().faults), std::string("leak_fitting:") + corner);
    std::reverse(evidence.findings.begin(), evidence.findings.end());
    EXPECT_NEAR(diagnosed(evidence).sets.front().odds, d.sets.front().odds, 1e-9);
  }
}

TEST(Diagnosis, OddsAreProbabilities) {
  EXPECT_TRUE(rc::check("together one, none certain", [] {
    FaultEvidence evidence;
    const auto signs = fault_signs();
    const FaultTable& table = practised()->table;
    const auto count = *rc::gen::inRange(0, 12);
    for (int i = 0; i < count; ++i) {
      FaultFinding f;
      const auto& sign = signs[*rc::gen::inRange<std::size_t>(0, signs.size())];
      f.at = {&sign, *rc::gen::inRange<std::size_t>(0, places_of(sign.places))};
      f.yes = *rc::gen::arbitrary<bool>();
      if (sign.kind) {
        const auto [least, most] = believable(table.car(), sign, f.at.place);
        f.value = test::between(least, most);
      }
      evidence.findings.push_back(f);
    }
    evidence.nothing_else = *rc::gen::arbitrary<bool>();
    const Diagnosis d = FaultWeighing(table, evidence).diagnosis();
    double sum = d.unknown;
    for (const FaultSet& set : d.sets) {
      RC_ASSERT(set.odds >= 0 && set.odds <= most_odds + 1e-12);
      sum += set.odds;
      for (const double times : set.times)
        RC_ASSERT(std::isfinite(times) && times > 0);
    }
    RC_ASSERT(sum <= 1 + 1e-9);
    RC_ASSERT(d.unknown >= 1 - most_odds - 1e-12);
    for (std::size_t i = 1; i < d.sets.size(); ++i)
      RC_ASSERT(d.sets[i].odds <= d.sets[i - 1].odds + 1e-12);
  }));
}

TEST(Diagnosis, TwoAtOnceAreConsidered) {
  FaultEvidence evidence;
  evidence.findings = {found("bubbles_fitting:front_left", "yes"), found("hold_loss:front_left", "9%"),
                       found("sinks_night:front_left", "yes"), found("pumps_never", "yes"), found("fuse_dead", "yes")};
  const Diagnosis d = diagnosed(evidence);
  EXPECT_EQ(fault_key(d.sets.front().faults), "fuse+leak_fitting:front_left");
  EXPECT_GT(d.sets.front().odds, 0.7);
}

TEST(Diagnosis, WhatIsReadTwiceIsSurerAndWhatContradictsIsTold) {
  FaultEvidence once, twice, broken, apart;
  const FaultFinding over = found("pressure_off:front_left", "0.27bar");
  once.findings = {over};
  twice.findings = {over, over, over};
  EXPECT_GT(odds_of(diagnosed(twice), "wrong_load:front"), odds_of(diagnosed(once), "wrong_load:front"));
  EXPECT_EQ(diagnosed(twice).joined, (std::vector<std::size_t>{0, 1}));
  EXPECT_EQ(diagnosed(twice).weighed, (std::vector<std::size_t>{2})) << "the row that moved the odds says so";
  broken.findings = {found("pumps_never", "yes"), found("pumps_never", "no")};
  const Diagnosis d = diagnosed(broken);
  ASSERT_EQ(d.trouble.size(), 1U);
  EXPECT_NE(say(d.trouble.front()).find("both so and not so"), std::string::npos);
  EXPECT_TRUE(d.weighed.empty());
  EXPECT_NEAR(odds_of(d, "fuse"), odds_of(diagnosed({}), "fuse"), 1e-12) << "it is as if nothing had been said";
  apart.findings = {found("volts", "11V"), found("volts", "13V")};
  EXPECT_FALSE(diagnosed(apart).trouble.empty());
}

TEST(Diagnosis, ATypedDoubtCounts) {
  FaultEvidence sure, unsure;
  sure.findings = {found("pressure_off:front_left", "0.4bar ± 0.05bar")};
  unsure.findings = {found("pressure_off:front_left", "0.4bar ± 1bar")};
  EXPECT_GT(odds_of(diagnosed(sure), "wrong_load:front"), 2 * odds_of(diagnosed(unsure), "wrong_load:front"));
  // The surer of two readings weighs more.
  FaultEvidence mixed;
  mixed.findings = {found("pressure_off:front_left", "0.4bar ± 0.02bar"),
                    found("pressure_off:front_left", "0bar ± 1bar")};
  EXPECT_GT(odds_of(diagnosed(mixed), "wrong_load:front"), 0.5 * odds_of(diagnosed(sure), "wrong_load:front"));
  EXPECT_FALSE(typed_finding(*sign_of("volts"), "12V ± 0V", {}));
  EXPECT_FALSE(typed_finding(*sign_of("volts"), "12V ± soon", {}));
}

TEST(Diagnosis, WhatCanNotBeIsRefusedWithASentence) {
  const FaultCar& car = practised()->table.car();
  FaultFinding f = found("fill_time:front_left", "0.001s");
  ASSERT_TRUE(trouble_of(car, f));
  EXPECT_NE(say(*trouble_of(car, f)).find("believable"), std::string::npos);
  f.value = NAN;
  EXPECT_TRUE(trouble_of(car, f));
  f.value.reset();
  EXPECT_TRUE(trouble_of(car, f));
  f.never = true;
  EXPECT_FALSE(trouble_of(car, f)) << "it may never have got there";
  f = found("volts", "12V");
  f.value.reset(), f.never = true;
  EXPECT_TRUE(trouble_of(car, f)) << "a voltage never gets nowhere";
  FaultEvidence evidence;
  evidence.findings = {found("tank_fill", "1s"), found("slow_up:front_left", "yes")};
  const Diagnosis d = diagnosed(evidence);
  EXPECT_EQ(d.weighed, std::vector<std::size_t>{1});
  EXPECT_FALSE(d.trouble.empty());
}

TEST(Diagnosis, OfACarWithoutACompressorHasNoReadingsOfOne) {
  build::Build build = test::demo_whole();
  build.variant().air.compressor.clear();
  const auto car = *fault_car({leveling_given(build, fit_up_of(build).air(), 0)}, {});
  ASSERT_TRUE(car) << say(car.error());
  EXPECT_FALSE(car->parts.compressor);
  const FaultTable table(*car);
  EXPECT_FALSE(table.row({fault_cause("worn"), 0}));
  FaultEvidence evidence;
  evidence.findings = {found("tank_fill", "80s"), found("sinks_night:front_left", "yes")};
  const FaultWeighing weighing(table, evidence);
  const Diagnosis d = weighing.diagnosis();
  ASSERT_FALSE(d.trouble.empty());
  EXPECT_NE(say(d.trouble.front()).find("nothing that it could be read of"), std::string::npos);
  double sum = d.unknown;
  for (const FaultSet& set : d.sets)
    sum += set.odds;
  EXPECT_TRUE(sum > 0.5 && sum <= 1 + 1e-9) << sum; // what is hardly likely is not told
  for (const NextTest& next : weighing.next_tests(200)) {
    EXPECT_TRUE(std::isfinite(next.bits));
    EXPECT_STRNE(next.test->key, "pump");
  }
}

TEST(Diagnosis, TwoAreSaidInOneOrder) {
  const FaultAt a = *fault_of("fuse"), b = *fault_of("pinched:front_left");
  EXPECT_EQ(fault_words(std::vector{a, b}), fault_words(std::vector{b, a}));
  EXPECT_FALSE(faults_named("fuse+fuse"));
}

TEST(Diagnosis, SaysWhenNothingThatIsKnownFits) {
  // Signs that no one or two faults of the table bring together.
  FaultEvidence evidence;
  for (const char* key : {"collar_turns:front_left", "tucked:rear_right", "gauge_disagrees", "skew:front_right",
                          "rod_plays:rear_left", "water_blown:front_right", "counts_wrong:rear_right", "beads_spent"})
    evidence.findings.push_back(found(key, "yes"));
  const Diagnosis d = diagnosed(evidence);
  EXPECT_TRUE(d.nothing_fits);
  EXPECT_GT(d.unknown, 0.5);
  EXPECT_NE(say(d.trouble.back()).find("Nothing that is known here fits"), std::string::npos);
}

TEST(Diagnosis, TheShopsOwnOddsMoveIt) {
  build::Shop shop;
  EXPECT_EQ(shop_priors(shop), usual_priors());
  shop.faults = {{"fuse", 30.0, 0, {}}, {"relay", {}, 12, {}}, {"gremlins", {}, 5, {}}};
  const auto priors = shop_priors(shop);
  FaultEvidence usual, own;
  usual.findings = own.findings = {found("pumps_never", "yes")};
  own.priors = priors;
  EXPECT_GT(odds_of(diagnosed(own), "fuse"), odds_of(diagnosed(usual), "fuse"));
  EXPECT_NEAR(odds_of(diagnosed(own), "fuse") / odds_of(diagnosed(own), "relay"), 2, 0.05) << "30 to 3 and 12 found";
}

TEST(NextTest, TellsMostForItsMinutesAndNothingOnceAllIsSaid) {
  FaultEvidence evidence;
  evidence.findings = {found("pumps_never", "yes")};
  evidence.nothing_else = true;
  const FaultWeighing weighing(practised()->table, evidence);
  const auto next = weighing.next_tests(200);
  ASSERT_FALSE(next.empty());
  for (std::size_t i = 1; i < next.size(); ++i)
    EXPECT_LE(next[i].per_minute(), next[i - 1].per_minute() + 1e-12);
  const auto front = [&](const char* key) {
    for (std::size_t i = 0; i < 2 && i < next.size(); ++i)
      if (std::string_view(next[i].test->key) == key) return true;
    return false;
  };
  EXPECT_TRUE(front("fuse") && front("relay")) << "fuse or relay: a meter and a finger tell";
  EXPECT_EQ(next.front().outcomes.size(), 2U);
  // What was done already is not asked again.
  evidence.findings.push_back(found("fuse_dead", "yes"));
  for (const NextTest& n : FaultWeighing(practised()->table, evidence).next_tests(200)) {
    EXPECT_STRNE(n.test->key, "fuse");
    EXPECT_LT(n.bits, 2);
  }
}

TEST(NextTest, IsTheSameEachTime) {
  FaultEvidence evidence;
  evidence.findings = {found("sinks_night:rear_left", "yes"), found("leans:rear", "yes")};
  const auto a = FaultWeighing(practised()->table, evidence).next_tests(20);
  const auto b = FaultWeighing(practised()->table, evidence).next_tests(20);
  ASSERT_EQ(a.size(), b.size());
  for (std::size_t i = 0; i < a.size(); ++i)
    EXPECT_EQ(a[i].bits, b[i].bits);
}

} // namespace
} // namespace mavrel::assess
