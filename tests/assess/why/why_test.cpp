// Why not lower, why not higher: what each remedy says it buys is what it buys.
#include "assess/assess.h"
#include "assess/sampling/doubted.h"
#include "assess/why/why.h"

#include "support.h"

namespace mavrel::assess {
namespace {

using build::Build;

WhyGiven asked(const Build& b, End end, WhichWindow window, WhichEdge edge) {
  return {b, test::demo_shelf(), end, window, edge};
}
const std::optional<Window>& window_in(const EndAssessment& e, WhichWindow which) {
  return which == WhichWindow::reach ? e.windows.reach : e.windows.road;
}

TEST(Why, EachRemedyBuysWhatItSaysWhenItIsDone) {
  for (const Build* b : {&test::demo_whole(), &test::pickup_whole()})
    for (const End end : build::both_ends)
      for (const WhichWindow window : {WhichWindow::reach, WhichWindow::road})
        for (const WhichEdge edge : {WhichEdge::low, WhichEdge::high}) {
          const auto why = why_not_further(asked(*b, end, window, edge));
          ASSERT_TRUE(why);
          if (!why->edge) continue;
          for (const Remedy& remedy : why->remedies) {
            SCOPED_TRACE(say(remedy.what));
            EXPECT_GT(remedy.buys, 0);
            const auto done = assess(remedy.build, test::demo_shelf());
            const auto& now = window_in(done.end(end), window);
            ASSERT_TRUE(now);
            const double H = edge == WhichEdge::low ? now->low.height : now->high.height;
            EXPECT_NEAR(H, remedy.edge, 1e-9);
            EXPECT_NEAR(std::abs(H - why->edge->height), remedy.buys, 1e-9);
            const auto& governing = edge == WhichEdge::low ? now->low.governing : now->high.governing;
            ASSERT_EQ(remedy.next.has_value(), governing.has_value());
            if (!governing) continue;
            EXPECT_EQ(say(*remedy.next), say(name_of(*governing)));
          }
        }
}

TEST(Why, TheStopTrimmedLetsTheEstateDownUntilTheNextLimit) {
  const auto why = why_not_further(asked(test::demo_whole(), End::front, WhichWindow::reach, WhichEdge::low));
  ASSERT_TRUE(why && why->edge && why->edge->governing);
  EXPECT_EQ(why->edge->governing->limit, &limits::bump_stop);
  const auto stop = std::find_if(why->remedies.begin(), why->remedies.end(),
                                 [](const Remedy& r) { return say(r.what) == "10 mm off the bump stop"; });
  ASSERT_NE(stop, why->remedies.end());
  EXPECT_LE(stop->buys, 0.0115);
  EXPECT_GT(stop->buys, 0.001);
  EXPECT_FALSE(why->no_help.empty()) << "a thinner plate does not move the stop";
}

TEST(Why, ANotchIsWhatLetsThePickupDown) {
  const auto why = why_not_further(asked(test::pickup_whole(), End::rear, WhichWindow::reach, WhichEdge::low));
  ASSERT_TRUE(why && !why->remedies.empty());
  EXPECT_EQ(say(why->remedies[0].what), "A notch 25 mm deep in the rail");
}

TEST(Why, WithoutAWindowThereIsNoEdge) {
  const auto why = why_not_further(asked(build::empty_build(), End::front, WhichWindow::reach, WhichEdge::low));
  ASSERT_TRUE(why);
  EXPECT_FALSE(why->edge);
  EXPECT_TRUE(why->remedies.empty());
}

TEST(Why, StopsWhenAsked) {
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(why_not_further(asked(test::demo_whole(), End::front, WhichWindow::reach, WhichEdge::low), stop));
}

TEST(WhyInNineOfTen, WithoutDoubtIsThePlainAnswer) {
  WhyGiven given = asked(test::doubted(test::demo_build(), 0), End::front, WhichWindow::reach, WhichEdge::low);
  const auto plain = why_not_further(given);
  given.sure = Sure::nine_in_ten;
  const auto held = why_not_further(given);
  ASSERT_TRUE(plain && held && held->holds);
  EXPECT_NEAR(*held->holds, plain->edge->height, 1e-9);
  ASSERT_EQ(held->remedies.size(), plain->remedies.size());
  for (std::size_t i = 0; i < plain->remedies.size(); ++i)
    EXPECT_NEAR(held->remedies[i].buys, plain->remedies[i].buys, 1e-9);
}

TEST(WhyInNineOfTen, IsTheEdgeThatNineCarsOfTenReach) {
  for (const auto& [edge, sign] : {std::pair{WhichEdge::low, -1.0}, std::pair{WhichEdge::high, 1.0}}) {
    WhyGiven given = asked(test::demo_whole(), End::front, WhichWindow::reach, edge);
    given.sure = Sure::nine_in_ten;
    const auto held = why_not_further(given);
    ASSERT_TRUE(held && held->edge && held->holds);
    EXPECT_LT(sign * *held->holds, sign * held->edge->height) << "less far than on paper";
    const auto beyond = [&](const Build& b, double H) {
      const HoldingCars cars(b, test::demo_shelf());
      std::size_t n = 0;
      for (std::size_t i = 0; i < holding_draws; ++i) {
        const DrawnCar car = cars.car(i);
        const auto answer = assess(car.build, assess::shelf_of(car.build.variant(), test::demo_shelf(), car.card));
        const auto& window = answer.end(End::front).windows.reach;
        n += window && (edge == WhichEdge::low ? window->low.height <= H + 1e-9 : window->high.height >= H - 1e-9);
      }
      return n;
    };
    EXPECT_GE(beyond(test::demo_whole(), *held->holds), 90U);
    EXPECT_LT(beyond(test::demo_whole(), *held->holds + sign * 2e-5), 91U) << "and not more than nine";
    ASSERT_FALSE(held->remedies.empty());
    const Remedy& best = held->remedies.front();
    EXPECT_NEAR(best.buys, sign * (best.edge - *held->holds), 1e-9);
    EXPECT_GE(beyond(best.build, best.edge), 90U) << say(best.what);
  }
  const std::stop_token stop = test::stopped();
  WhyGiven given = asked(test::demo_whole(), End::front, WhichWindow::reach, WhichEdge::low);
  given.sure = Sure::nine_in_ten;
  EXPECT_FALSE(why_not_further(given, stop));
}

} // namespace
} // namespace mavrel::assess
