#include "assess/asked.h"
#include "assess/search/search.h"

#include "assess/assess.h"
#include "assess/search/search_end.h"
#include "support.h"

#include <set>
#include <thread>

namespace mavrel::assess {
namespace {

shelf::Shelf small_shelf() {
  shelf::Shelf out;
  for (const char* name : {"Fennick R-118", "Fennick R-134", "Marlock M-142", "Osier O-128 T", "Osier O-150"})
    out.bags.push_back(*test::demo_shelf().find(name));
  return out;
}

const SearchSpace small_space{{0, 2e-3, 5e-3}, {0, 0.010, 0.020}, {0, 0.010}};

std::multiset<std::vector<double>> figures(const std::vector<SearchChoice>& choices) {
  std::multiset<std::vector<double>> out;
  for (const auto& c : choices)
    out.insert({c.figures.lowest, c.figures.discomfort, c.figures.air, c.figures.reserve, c.figures.lift});
  return out;
}

TEST(Search, FindsWhatBruteForceFinds) {
  const auto& build = test::demo_build();
  const auto shelf = small_shelf();
  const auto found = search(build, shelf, small_space);
  ASSERT_TRUE(found);
  const auto front = end_options(build, shelf, End::front, small_space, {}),
             rear = end_options(build, shelf, End::rear, small_space, {});
  std::vector<SearchFigures> all;
  for (const auto& f : *front)
    for (const auto& r : *rear)
      if (f.passes && r.passes) all.push_back(figures_of(build.variant().brief, f, r));
  std::set<std::vector<double>> best;
  for (const auto& one : all)
    if (std::none_of(all.begin(), all.end(), [&](const auto& other) { return dominates(other, one); }))
      best.insert({one.lowest, one.discomfort, one.air, one.reserve, one.lift});
  const auto got = figures(found->choices);
  EXPECT_EQ(std::set(got.begin(), got.end()), best);
  EXPECT_EQ(got.size(), best.size()) << "equals are shown once";
  EXPECT_EQ(found->passed, all.size());
  EXPECT_EQ(found->tried, front->size() * rear->size());
  EXPECT_GT(best.size(), 3U);
}

TEST(Search, GivesTheSameAnswerWhateverTheThreads) {
  const auto one = search(test::demo_build(), test::demo_shelf(), {}, {1, {}, {}});
  for (const unsigned threads : {2U, 3U, 7U}) {
    const auto many = search(test::demo_build(), test::demo_shelf(), {}, {threads, {}, {}});
    ASSERT_TRUE(one && many);
    ASSERT_EQ(one->choices.size(), many->choices.size());
    for (std::size_t i = 0; i < one->choices.size(); ++i) {
      EXPECT_EQ(one->choices[i].ends[0].bag, many->choices[i].ends[0].bag);
      EXPECT_EQ(one->choices[i].ends[1].added_volume, many->choices[i].ends[1].added_volume);
      EXPECT_EQ(one->choices[i].score, many->choices[i].score);
    }
    ASSERT_EQ(one->ranking.size(), many->ranking.size());
    for (std::size_t i = 0; i < one->ranking.size(); ++i) {
      EXPECT_EQ(one->ranking[i].bags, many->ranking[i].bags);
      EXPECT_EQ(say(one->ranking[i].reason), say(many->ranking[i].reason));
    }
  }
}

TEST(Search, AChoiceFittedForRealPassesAndIsWhatWasPromised) {
  const auto found = search(test::demo_build(), test::demo_shelf(), {});
  ASSERT_TRUE(found);
  for (std::size_t i = 0; i < found->choices.size(); i += 7) {
    const SearchChoice& choice = found->choices[i];
    build::Build fitted = test::demo_build();
    fitted.variant() = with_choice(fitted.variant(), choice);
    const Assessment a = assess(fitted, test::demo_shelf());
    for (const Finding& f : a.findings)
      EXPECT_FALSE(f.severity == Severity::stop) << say(f.title);
    for (const End end : build::both_ends) {
      const auto& promised = choice.ends[build::at(end)];
      EXPECT_NEAR(a.end(end).windows.reach->low.height, promised.lowest, 1e-6);
      for (std::size_t c = 0; c < promised.frequency.size(); ++c)
        EXPECT_NEAR(*a.end(end).presets[1]->cases[c]->frequency, promised.frequency[c], 1e-6);
    }
  }
}

TEST(Search, EveryPairIsRankedAndEveryLoserHasItsReason) {
  const auto found = search(test::demo_build(), test::demo_shelf(), {});
  ASSERT_TRUE(found);
  const std::size_t bags = test::demo_shelf().bags.size();
  EXPECT_EQ(found->ranking.size(), bags * bags);
  bool lost = false;
  for (const SearchedPair& pair : found->ranking) {
    lost = lost || !pair.reason.empty();
    EXPECT_TRUE(!lost || !pair.reason.empty()) << "choices come first";
    EXPECT_TRUE(pair.best || !pair.reason.empty());
    EXPECT_EQ(say(pair.reason).find('{'), std::string::npos) << say(pair.reason);
  }
}

TEST(Search, CanBeStoppedAtAnyMoment) {
  for (const int after : {0, 1, 3}) {
    std::stop_source stop;
    int seen = 0;
    if (after == 0) stop.request_stop();
    const auto found = search(test::demo_build(), test::demo_shelf(), {}, {2, stop.get_token(), [&](double) {
                                                                             if (++seen >= after) stop.request_stop();
                                                                           }});
    ASSERT_TRUE(found);
    EXPECT_TRUE(found->stopped);
    EXPECT_TRUE(found->choices.empty());
  }
}

TEST(Search, NothingFitsIsAnAnswerAndMissingReadingsAreNamed) {
  build::Build tight = test::demo_build();
  tight.ends[0].bag_room = 0.05;
  const auto none = search(tight, test::demo_shelf(), {});
  ASSERT_TRUE(none);
  EXPECT_TRUE(none->choices.empty());
  EXPECT_TRUE(std::any_of(none->ranking.begin(), none->ranking.end(),
                          [](const SearchedPair& pair) { return say(pair.reason).find("room") != std::string::npos; }));
  build::Build bare = test::demo_build();
  for (auto& corner : bare.ends[1].corners)
    corner.height.values.clear();
  const auto refused = search(bare, test::demo_shelf(), {});
  ASSERT_FALSE(refused);
  EXPECT_NE(say(refused.error()).find("height"), std::string::npos);
  EXPECT_TRUE(search(test::demo_build(), {}, {})->choices.empty()) << "an empty shelf";
}

} // namespace
} // namespace mavrel::assess
