// Cars to practise on: the same for the same number, honest odds, nothing given away, a just score.
#include "assess/faults/practised.h"
#include "build/json.h"
#include "report/faults_json.h"
#include "report/practice_record.h"

#include <set>

namespace mavrel::assess {
namespace {

/// What a careful diagnostician comes to on a car.
struct Worked {
  Diagnosis diagnosis;
  std::string truth;
};
Worked worked(const PracticeAsked& asked) {
  PracticeCar car(practised(), asked);
  FaultEvidence evidence = car.evidence();
  go_on(car, *practised(), evidence, {}, [](const TestDone&) {});
  return {diagnosed(evidence), fault_key(car.reveal())};
}

TEST(Practice, TheTrueCauseComesFirstAndOddsAreHonest) {
  // Cars that nothing was tuned on.
  constexpr std::uint64_t first_seed = 7'000'001, cars = 100;
  std::vector<Worked> all;
  for (std::uint64_t i = 0; i < cars; ++i)
    all.push_back(worked({first_seed + i, PracticeLevel::slight}));
  int first = 0, among_three = 0;
  struct Called {
    double odds = 0, was = 0, n = 0;
  };
  std::array<Called, 4> called; // of what is called 10 to 40, 40 to 70, 70 to 90, and more
  for (const Worked& w : all) {
    const auto& sets = w.diagnosis.sets;
    first += fault_key(sets.front().faults) == w.truth;
    for (std::size_t i = 0; i < 3 && i < sets.size(); ++i)
      among_three += fault_key(sets[i].faults) == w.truth;
    for (const FaultSet& set : sets) {
      if (set.odds < 0.1) continue;
      Called& c = called[set.odds < 0.4 ? 0 : set.odds < 0.7 ? 1 : set.odds < 0.9 ? 2 : 3];
      c.odds += set.odds, c.was += fault_key(set.faults) == w.truth, c.n += 1;
    }
  }
  EXPECT_GE(first, 0.80 * cars);
  EXPECT_GE(among_three, 0.95 * cars);
  for (const Called& c : called) {
    ASSERT_GT(c.n, 5);
    const double said = c.odds / c.n, was = c.was / c.n;
    EXPECT_NEAR(was, said, 0.04 + 2.5 * std::sqrt(said * (1 - said) / c.n)) << c.n;
  }
}

TEST(Practice, TwoAtOnceAreFoundToo) {
  int first = 0, right_one = 0;
  constexpr int cars = 8;
  for (std::uint64_t seed = 1; seed <= cars; ++seed) {
    const Worked w = worked({seed, PracticeLevel::two});
    first += fault_key(w.diagnosis.sets.front().faults) == w.truth;
    for (const FaultAt& f : w.diagnosis.sets.front().faults)
      if (w.truth.find(fault_key(f)) != std::string::npos) {
        ++right_one;
        break;
      }
  }
  EXPECT_GE(first, 0.7 * cars);
  EXPECT_EQ(right_one, cars);
}

TEST(Practice, TheSameNumberIsTheSameCarAndOthersDiffer) {
  std::set<std::string> causes;
  std::set<std::string> told;
  for (std::uint64_t seed = 1; seed <= 300; ++seed) {
    PracticeCar a(practised(), {seed, PracticeLevel::slight}), b(practised(), {seed, PracticeLevel::slight});
    EXPECT_EQ(a.reveal(), b.reveal());
    EXPECT_EQ(a.told(), b.told());
    causes.insert(a.reveal().front().cause->key);
    std::string said;
    for (const FaultFinding& f : a.told())
      said += say(sign_words(f.at)) + " ";
    told.insert(said);
  }
  EXPECT_GE(causes.size(), 20U);
  EXPECT_GT(told.size(), 60U);
  PracticeCar a(practised(), {5, PracticeLevel::plain}), b(practised(), {5, PracticeLevel::plain});
  for (const char* key : {"timing:front_left", "hold", "pump", "timing:front_left"})
    EXPECT_EQ(a.do_test(*test_of(key)), b.do_test(*test_of(key))) << key;
}

TEST(Practice, ATestDoneAgainIsReadAnew) {
  PracticeCar car(practised(), {9, PracticeLevel::plain});
  const auto once = car.do_test(*test_of("gauges")), again = car.do_test(*test_of("gauges"));
  EXPECT_NE(once, again);
}

TEST(Practice, ReadsAReadingOfTheSimulatedCar) {
  // A car with a valve stuck shut never gets up; its other corners do.
  for (std::uint64_t seed = 1; seed < 400; ++seed) {
    PracticeCar car(practised(), {seed, PracticeLevel::plain});
    const FaultAt fault = car.reveal().front();
    if (std::string_view(fault.cause->key) != "fill_shut") continue;
    int never = 0;
    for (std::size_t corner = 0; corner < 4; ++corner)
      never += car.do_test({fault_test("timing"), corner}).front().never;
    EXPECT_EQ(never, 1);
    EXPECT_TRUE(car.do_test({fault_test("timing"), fault.place}).front().never);
    return;
  }
  FAIL() << "no such car among 400";
}

TEST(Practice, NothingGivesItAwayBeforeItIsNamed) {
  for (std::uint64_t seed = 1; seed <= 40; ++seed)
    for (std::size_t level = 0; level < practice_levels; ++level) {
      PracticeCar car(practised(), {seed, static_cast<PracticeLevel>(level)});
      std::vector<TestDone> done;
      for (const char* key : {"heights", "which:front", "look_bag:rear_left"})
        done.push_back({*test_of(key), car.do_test(*test_of(key))});
      const std::string whole = report::case_json(build::empty_build(), car, done, false, nullptr);
      const std::string shown = whole.substr(whole.find("\"symptoms\"")); // the build has words of its own
      EXPECT_EQ(shown.find("\"fault\":"), std::string::npos);
      EXPECT_EQ(shown.find("severity"), std::string::npos);
      for (const FaultAt& f : car.reveal()) {
        for (const std::string& key : {fault_key(f), std::string(f.cause->key), say(fault_words(f))})
          EXPECT_EQ(shown.find("\"" + key + "\""), std::string::npos) << key;
      }
      EXPECT_NE(report::case_json(build::empty_build(), car, done, true, nullptr).find("\"fault\":"),
                std::string::npos);
    }
}

TEST(Practice, IsScoredAgainstTheBestWayToIt) {
  const PracticeAsked asked{3, PracticeLevel::plain};
  PracticeCar car(practised(), asked);
  const auto truth = car.reveal();
  // Who does as the best does has all of it.
  std::vector<TestDone> done;
  FaultEvidence evidence = car.evidence();
  go_on(car, *practised(), evidence, {}, [&](const TestDone& test) { done.push_back(test); });
  const auto best = score(practised(), asked, done, truth, {});
  ASSERT_TRUE(best);
  EXPECT_TRUE(best->right);
  EXPECT_DOUBLE_EQ(best->share, 1);
  EXPECT_DOUBLE_EQ(best->minutes, best->best_minutes);
  EXPECT_EQ(best->steps.size(), best->best.size());
  // Who dawdles has less, who is wrong has nothing.
  PracticeCar again(practised(), asked);
  std::vector<TestDone> slow;
  for (const char* key : {"weigh:front", "weigh:rear", "long_run"})
    slow.push_back({*test_of(key), again.do_test(*test_of(key))});
  slow.insert(slow.end(), done.begin(), done.end());
  const auto late = score(practised(), asked, slow, truth, {});
  EXPECT_TRUE(late->right);
  EXPECT_LT(late->share, best->share);
  const FaultAt other =
      truth.front().cause == fault_cause("fuse") ? FaultAt{fault_cause("relay"), 0} : FaultAt{fault_cause("fuse"), 0};
  const auto wrong = score(practised(), asked, done, {other}, {});
  EXPECT_FALSE(wrong->right);
  EXPECT_EQ(wrong->share, 0);
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(score(practised(), asked, done, truth, stop));
}

TEST(PracticeRecord, IsReadAgainAndSaysWhatSomebodyIsWeakAt) {
  std::vector<report::PracticeEntry> entries;
  for (int i = 0; i < 4; ++i) {
    report::PracticeEntry e;
    e.day = "2026-11-26 10:00", e.car = "Sorrel Wayfare estate", e.seed = static_cast<std::uint64_t>(i);
    e.truth = {i < 2 ? "pinched:front_left" : "fuse"}, e.named = {"pinched:front_left"};
    e.right = i < 2, e.share = i < 2 ? 0.8 : 0;
    entries.push_back(e);
  }
  const std::string text = report::record_text(entries);
  const auto read = report::read_record(text);
  ASSERT_TRUE(read) << say(read.error());
  EXPECT_EQ(report::record_text(*read), text);
  const auto weak = report::weak_at(*read);
  ASSERT_EQ(weak.size(), 2U);
  EXPECT_EQ(weak[0].family, FaultFamily::electrics);
  EXPECT_EQ(weak[1].right, 2);
  for (std::size_t cut = 0; cut < text.size(); cut += 7)
    (void)report::read_record(text.substr(0, cut));
  EXPECT_FALSE(report::read_record("{}"));
  EXPECT_FALSE(report::read_record("[1,2"));
  // However long it is, it is given up in a moment.
  std::string many = "{\"mavrel_practice\":1";
  for (int i = 0; i < 200'000; ++i)
    many += ",\"k" + std::to_string(i) + "\":0";
  const auto refused = report::read_record(many + ",\"cars\":[]}");
  ASSERT_FALSE(refused);
  EXPECT_NE(say(refused.error()).find("keys"), std::string::npos);
}

} // namespace
} // namespace mavrel::assess
