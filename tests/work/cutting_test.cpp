#include "work/cutting.h"

#include "support.h"

#include <algorithm>
#include <numeric>

namespace mavrel::work {
namespace {

/// The fewest bars by filling them in every way, with whole millimetres.
int fewest(std::vector<int> pieces, int bar, int kerf) {
  int best = static_cast<int>(pieces.size());
  std::vector<int> rooms;
  const std::function<void(std::size_t)> go = [&](std::size_t i) {
    if (static_cast<int>(rooms.size()) >= best) return;
    if (i == pieces.size()) {
      best = static_cast<int>(rooms.size());
      return;
    }
    for (std::size_t b = 0; b < rooms.size(); ++b) {
      if (rooms[b] < pieces[i] + kerf) continue;
      rooms[b] -= pieces[i] + kerf;
      go(i + 1);
      rooms[b] += pieces[i] + kerf;
    }
    rooms.push_back(bar + kerf - pieces[i] - kerf);
    go(i + 1);
    rooms.pop_back();
  };
  go(0);
  return best;
}

void expect_sound(const CutPlan& plan, const std::vector<double>& pieces, double kerf) {
  std::vector<int> used(pieces.size(), 0);
  for (const CutBar& bar : plan.bars) {
    double sum = 0;
    for (const std::size_t i : bar.pieces)
      sum += pieces[i], ++used[i];
    const double cuts = static_cast<double>(bar.pieces.size());
    RC_ASSERT(sum + kerf * (cuts - 1) <= bar.length + 1e-9);
    RC_ASSERT(std::abs(bar.left - std::max(0.0, bar.length - sum - kerf * cuts)) < 1e-7);
  }
  for (const int n : used)
    RC_ASSERT(n == 1);
  RC_ASSERT(plan.least <= plan.fresh);
}

TEST(Cutting, OfAFewPiecesHasTheFewestBars) {
  EXPECT_TRUE(rc::check("fewest by brute force", [] {
    const int bar = *rc::gen::inRange(500, 2000), kerf = *rc::gen::inRange(0, 5);
    const auto lengths = *rc::gen::resize(9, rc::gen::container<std::vector<int>>(rc::gen::inRange(50, bar + 1)));
    RC_PRE(!lengths.empty());
    std::vector<double> pieces;
    for (const int mm : lengths)
      pieces.push_back(mm / 1000.0);
    const auto plan = cut_plan(pieces, bar / 1000.0, kerf / 1000.0);
    RC_ASSERT(plan.has_value());
    expect_sound(*plan, pieces, kerf / 1000.0);
    RC_ASSERT(static_cast<int>(plan->fresh) == fewest(lengths, bar, kerf));
    RC_ASSERT(plan->proven);
  }));
}

TEST(Cutting, OfTwentyPiecesIsProven) {
  EXPECT_TRUE(rc::check("twenty pieces", [] {
    std::vector<double> pieces;
    for (int i = 0; i < 20; ++i)
      pieces.push_back(*rc::gen::inRange(200, 3000) / 1000.0);
    const auto plan = cut_plan(pieces, 6, 0.003);
    RC_ASSERT(plan.has_value());
    expect_sound(*plan, pieces, 0.003);
    RC_ASSERT(plan->proven);
  }));
}

TEST(Cutting, OfManyIsWithinOneOfWhatNoPlanCanDoBetterThan) {
  EXPECT_TRUE(rc::check("many pieces", [] {
    std::vector<double> pieces;
    const int count = *rc::gen::inRange(21, 90);
    for (int i = 0; i < count; ++i)
      pieces.push_back(*rc::gen::inRange(100, 4500) / 1000.0);
    const auto plan = cut_plan(pieces, 6, 0.003);
    RC_ASSERT(plan.has_value());
    expect_sound(*plan, pieces, 0.003);
    RC_ASSERT(plan->fresh <= plan->least + 1);
  }));
}

TEST(Cutting, UsesLeftoversFirstAndNamesWhatIsLeft) {
  const std::vector<double> pieces{0.4, 0.4, 0.3}, leftovers{0.85, 0.2};
  const auto plan = cut_plan(pieces, 3, 0.003, leftovers);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->fresh, 1U);
  ASSERT_EQ(plan->bars.size(), 2U); // the short one is of no use
  EXPECT_TRUE(plan->bars[0].leftover);
  EXPECT_DOUBLE_EQ(plan->bars[0].length, 0.85);
  EXPECT_NEAR(plan->bars[0].left, 0.85 - 0.8 - 0.006, 1e-9);
  expect_sound(*plan, pieces, 0.003);
  // What only a leftover is long enough for is cut from it.
  const auto only = cut_plan(std::vector{3.5, 1.0}, 3, 0.003, std::vector{4.0});
  ASSERT_TRUE(only);
  EXPECT_EQ(only->fresh, 1U);
  EXPECT_DOUBLE_EQ(only->bars[0].length, 4.0);
}

TEST(Cutting, TheBarsOwnEndNeedsNoKerf) {
  const auto plan = cut_plan(std::vector(4, 0.7485), 3, 0.002);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->fresh, 1U); // 4 · 748.5 and three cuts of 2 are 3000 to the hair
  EXPECT_DOUBLE_EQ(plan->bars[0].left, 0);
  EXPECT_EQ(cut_plan(std::vector(4, 0.74851), 3, 0.002)->fresh, 2U);
}

TEST(Cutting, SaysWhatIsLongerThanAnyBar) {
  const auto plan = cut_plan(std::vector{6.01}, 6, 0.003);
  ASSERT_FALSE(plan);
  EXPECT_NE(say(plan.error()).find("6010"), std::string::npos) << say(plan.error());
  ASSERT_TRUE(cut_plan({}, 6, 0.003));
  EXPECT_TRUE(cut_plan({}, 6, 0.003)->bars.empty());
}

} // namespace
} // namespace mavrel::work
