// Choices that hold in nine cases of ten: those of the plain search that pass by the same rules in the cars that the
// readings may be of.
#include "assess/asked.h"
#include "assess/sampling/doubted.h"
#include "assess/search/search.h"
#include "build/names.h"

namespace mavrel::assess {
namespace {

shelf::Shelf few_bags() {
  shelf::Shelf out;
  out.parts = test::demo_shelf().parts;
  for (const char* name : {"Fennick R-118", "Fennick R-134", "Marlock M-142", "Osier O-150"})
    out.bags.push_back(*test::demo_shelf().find(name));
  return out;
}
const SearchSpace few_settings{{0, 3e-3}, {0, 0.010, 0.020}, {0, 0.010}};

TEST(Holding, WithoutDoubtIsThePlainSearch) {
  const Build build = test::doubted(test::demo_build(), 0);
  const auto plain = search(search_given(build, few_bags(), few_settings));
  const auto held = search(search_given(build, few_bags(), few_settings, Sure::nine_in_ten));
  ASSERT_TRUE(plain && held);
  ASSERT_EQ(held->choices.size(), plain->choices.size());
  EXPECT_EQ(held->passed, plain->passed);
  for (std::size_t i = 0; i < plain->choices.size(); ++i) {
    EXPECT_EQ(held->choices[i].figures.lowest, plain->choices[i].figures.lowest);
    EXPECT_EQ(held->choices[i].holds, 1);
    EXPECT_FALSE(plain->choices[i].holds);
  }
}

/// Wished for at road height alone: a parked height right on its stop holds in half of the cars.
Build only_the_road(Build build) {
  for (build::Preset& preset : build.variant().brief.presets)
    if (preset.use != build::PresetUse::road) preset.wish = {};
  return build;
}

TEST(Holding, RefusesByTheRulesOfTheAssessmentItself) {
  // Read so badly that some pass on paper alone, and not so badly that none holds.
  const shelf::Shelf& shelf = test::demo_shelf();
  Build build;
  Expected<SearchResult> plain, held;
  for (const double times : {0.2, 0.3, 0.4, 0.5}) {
    build = only_the_road(test::doubted(test::demo_build(), times));
    plain = search(search_given(build, shelf, few_settings));
    held = search(search_given(build, shelf, few_settings, Sure::nine_in_ten));
    ASSERT_TRUE(plain && held);
    if (held->passed < plain->passed) break;
  }
  ASSERT_LT(held->passed, plain->passed);
  ASSERT_FALSE(held->choices.empty());
  // The best one, fitted, in the cars themselves.
  const SearchChoice& best = held->choices.front();
  EXPECT_GE(*best.holds, holding_share);
  Build fitted = build;
  fitted.variant() = with_choice(build.variant(), best);
  for (const End end : build::both_ends) {
    const HoldingCars cars(search_given(build, shelf, few_settings, Sure::nine_in_ten).doubt->build, shelf);
    std::size_t stands = 0;
    for (std::size_t i = 0; i < holding_draws; ++i) {
      DrawnCar car = cars.car(i);
      car.build.variant().fit = fitted.variant().fit;
      shelf::Shelf off = shelf;
      for (std::size_t b = 0; b < off.bags.size(); ++b)
        off.bags[b] = with_card_off(shelf.bags[b], car.card[build::at(end)]);
      const auto answer = answer_end(end_given(car.build, off, end));
      stands += answer.assessment.misfits.empty() && answer.assessment.windows.road.has_value();
    }
    EXPECT_GE(stands, static_cast<std::size_t>(0.95 * holding_draws)) << build::name_of(end);
  }
}

TEST(Holding, IsTheSameOnAnyNumberOfThreadsAndCanBeStopped) {
  const auto given =
      search_given(only_the_road(test::doubted(test::demo_build(), 3)), few_bags(), few_settings, Sure::nine_in_ten);
  double last = 0;
  bool falls = false;
  const auto one = search(given, {1, {}, [&](double done) { falls = falls || done < last, last = done; }});
  const auto many = search(given, {5, {}, {}});
  ASSERT_TRUE(one && many);
  EXPECT_FALSE(falls);
  EXPECT_EQ(last, 1);
  ASSERT_EQ(one->choices.size(), many->choices.size());
  EXPECT_EQ(one->passed, many->passed);
  for (std::size_t i = 0; i < one->choices.size(); ++i)
    EXPECT_EQ(one->choices[i].holds, many->choices[i].holds);
  for (std::size_t i = 0; i < one->ranking.size(); ++i)
    EXPECT_EQ(one->ranking[i].reason, many->ranking[i].reason);
  std::stop_source stop;
  stop.request_stop();
  const auto stopped = search(given, {2, stop.get_token(), {}});
  ASSERT_TRUE(stopped);
  EXPECT_TRUE(stopped->stopped);
}

TEST(Holding, IsAskedAgainOnlyWhenWhatItGoesByChanged) {
  const Build build = test::demo_build();
  const auto given = search_given(build, few_bags(), few_settings, Sure::nine_in_ten);
  Build other = build;
  other.job.notes = "Owner rang.";
  EXPECT_TRUE(search_given(other, few_bags(), few_settings, Sure::nine_in_ten) == given);
  other.doubts.tape = 0.004;
  EXPECT_FALSE(search_given(other, few_bags(), few_settings, Sure::nine_in_ten) == given);
  EXPECT_TRUE(search_given(other, few_bags(), few_settings) == search_given(build, few_bags(), few_settings))
      << "as the readings are";
}

} // namespace
} // namespace mavrel::assess
