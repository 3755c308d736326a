// The map, what would fit, and what is to be looked at again.
#include "assess/assess.h"
#include "assess/interference/fits.h"
#include "assess/interference/map.h"
#include "assess/interference/near_at.h"
#include "assess/interference/recheck.h"

#include "support.h"

namespace mavrel::assess {
namespace {

using build::Build;

AnsweredEnd end_of(const Build& b, End end) {
  return assess(b, test::demo_shelf()).ends[build::at(end)];
}

TEST(ClearanceMap, SaysAtEveryPlaceWhatIsNearestThere) {
  for (const Build* b : {&test::demo_whole(), &test::pickup_whole()}) {
    const AnsweredEnd end = end_of(*b, End::front);
    const auto& e = end->assessment;
    const auto map = clearance_map({end, e.domain_low, e.domain_high, 9, 5});
    ASSERT_TRUE(map);
    ASSERT_EQ(map->cells.size(), 45U);
    double least = 1e9;
    for (std::size_t i = 0; i < 9; ++i)
      for (std::size_t k = 0; k < 5; ++k) {
        const MapCell& cell = map->at(i, k);
        if (!cell.reached || cell.which == not_listed) continue;
        if (map->heights[i] >= std::min(e.windows.reach->low.height, *end->fitted.parked) &&
            map->heights[i] <= e.windows.reach->high.height)
          least = std::min(least, cell.spare);
        EXPECT_NEAR(cell.spare, cell.gap - map->what[cell.which].near.room, 1e-12);
        // By the way that draws the section.
        const auto near = near_at(end, map->heights[i], map->steers[k]);
        ASSERT_FALSE(near.empty());
        double here = 1e9;
        for (const NearAt& n : near)
          here = std::min(here, n.spare());
        // Of what does not change with the steering the map reads the curve, which is worked out every 20 mm.
        EXPECT_NEAR(cell.spare, here, 1.2e-3) << i << " " << k << " " << say(map->what[cell.which].near.told());
      }
    EXPECT_NEAR(map->cells[map->worst].spare, least, 1e-12);
  }
}

TEST(NearUneven, LevelItIsWhatIsNearLevel) {
  for (const Build* b : {&test::demo_whole(), &test::pickup_whole()})
    for (const End e : build::both_ends) {
      const AnsweredEnd end = end_of(*b, e);
      const double H = *end->fitted.road;
      const auto even = near_uneven(end, H, H), level = near_at(end, H, 0);
      ASSERT_FALSE(even.empty());
      for (const NearAt& gap : even)
        for (const NearAt& other : level)
          if (gap.mover == other.mover && gap.near == other.near) {
            EXPECT_NEAR(gap.gap.apart, other.gap.apart, 1e-9) << say(gap.near.told());
          }
    }
}

TEST(NearUneven, OfWhatLiesAtBothSidesTheNearerAndTheSidesChangePlaces) {
  const AnsweredEnd end = end_of(test::pickup_whole(), End::rear);
  const double H = *end->fitted.road;
  const auto left_up = near_uneven(end, H - 0.03, H + 0.01), right_up = near_uneven(end, H + 0.01, H - 0.03);
  ASSERT_EQ(left_up.size(), right_up.size());
  int tyres = 0;
  for (const NearAt& gap : left_up) {
    if (gap.near.right) continue;
    const auto other = std::find_if(right_up.begin(), right_up.end(),
                                    [&](const NearAt& o) { return o.mover == gap.mover && o.near == gap.near; });
    ASSERT_NE(other, right_up.end());
    if (gap.mover != Mover::tyre) continue;
    EXPECT_NEAR(gap.gap.apart, other->gap.apart, 1e-4) << say(gap.near.told());
    ++tyres;
  }
  EXPECT_GT(tyres, 0);
}

TEST(ClearanceMap, StopsWhenAsked) {
  const AnsweredEnd end = end_of(test::demo_whole(), End::front);
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(clearance_map({end, 0.3, 0.4}, stop));
  EXPECT_FALSE(what_fits(*usual_fits(end), stop));
}

TEST(ClearanceMap, ThereIsNoneWithoutAnythingNear) {
  const AnsweredEnd end = end_of(test::demo_build(), End::front);
  EXPECT_FALSE(clearance_map({end, 0.3, 0.4}));
  EXPECT_FALSE(what_fits(*usual_fits(end)));
}

TEST(WhatFits, ATrialOfOneFittingSaysTheSame) {
  Build b = test::demo_whole();
  const AnsweredEnd end = end_of(b, End::front);
  auto given = *usual_fits(end);
  given.widths = 7, given.offsets = 9;
  const auto fits = what_fits(given);
  ASSERT_TRUE(fits);
  EXPECT_TRUE(std::any_of(fits->left_out.begin(), fits->left_out.end(), [](const Near& n) {
    return n.name == "tyre to liner";
  })) << "a gap of the sheet has no place beside another rim, and is said to be left out";
  std::size_t clear = 0, blocked = 0;
  for (const Fitting& f : fits->fittings) {
    (f.clears() ? clear : blocked) += 1;
    // Its own wheel at every height and lock, nothing passed over.
    motion::WheelCode code = given.tyre;
    code.rim_width = f.rim_width, code.offset = f.offset;
    const space::WheelSolid wheel = motion::wheel_solid(code, {}, 0.003);
    const EndSpace& space = *end.given().clearance->space;
    bool free = true;
    for (double H = fits->low; free && H <= fits->high + 1e-9; H += (fits->high - fits->low) / 23)
      for (const Lock lock : all_locks) {
        const bool driven = fits->driven_from && H >= *fits->driven_from;
        if (lock != Lock::straight && !driven) continue;
        const Stand stand = space.at(H, lock);
        for (const GapCurve& gap : end->assessment.gaps) {
          if (gap.source != GapSource::solid || gap.mover != Mover::tyre) continue;
          const auto& obstacles = b.ends[0].obstacles;
          const space::Solid solid = gap.near.obstacle == not_listed
                                         ? space::Solid(*end.given().clearance->lip)
                                         : placement_of(obstacles[gap.near.obstacle])->solid;
          const auto g = space::gap_between(wheel, stand.wheel, solid);
          free = free && !g.overlap && g.apart >= (driven ? gap.near.room : 0) - 1.5e-3;
        }
      }
    EXPECT_TRUE(free || !f.clears()) << f.rim_width << " " << f.offset;
    EXPECT_TRUE(free || f.spare <= 1.5e-3) << f.rim_width << " " << f.offset;
  }
  EXPECT_GT(clear, 0U);
  EXPECT_GT(blocked, 0U);
}

TEST(WhatFits, MoreCamberMakesNoFittingWorse) {
  const AnsweredEnd end = end_of(test::demo_whole(), End::front);
  auto given = *usual_fits(end);
  given.widths = 6, given.offsets = 8;
  const auto upright = what_fits(given);
  given.camber_most = 0.035;
  const auto leaning = what_fits(given);
  ASSERT_TRUE(upright && leaning);
  bool gained = false;
  for (std::size_t i = 0; i < upright->fittings.size(); ++i) {
    EXPECT_GE(leaning->fittings[i].spare, std::min(upright->fittings[i].spare, 0.0) - 1e-12);
    gained = gained || leaning->fittings[i].camber > 0;
  }
  EXPECT_TRUE(gained);
}

TEST(Recheck, ATickGoesStaleByItselfAndOnlyWhereItsGroundsChanged) {
  Build b = test::demo_whole();
  const auto rows = [&] { return rechecks(end_of(b, End::front), b.variant().fit[0].checks); };
  for (const Recheck& row : rows()) {
    EXPECT_EQ(row.state, RecheckState::never);
    b.variant().fit[0].checks.push_back({row.what, row.digest, row.figure.value_or(0), {}});
  }
  ASSERT_GE(rows().size(), 5U);
  const auto count = [&](RecheckState state) {
    const auto all = rows();
    return std::count_if(all.begin(), all.end(), [&](const Recheck& r) { return r.state == state; });
  };
  EXPECT_EQ(count(RecheckState::good), static_cast<std::ptrdiff_t>(rows().size()));
  // What is wanted, weights and another obstacle's place are no grounds of the others.
  b.variant().brief.rooms.tyre = 0.02;
  b.ends[0].corners[0].mass.values = {400};
  EXPECT_EQ(count(RecheckState::stale), 0);
  b.ends[0].obstacles[2].x -= 0.01;
  EXPECT_EQ(count(RecheckState::stale), 1);
  EXPECT_EQ(rows()[0].near.name, "pinch weld") << "what is to be looked at again comes first";
  b.ends[0].obstacles[2].x += 0.01;
  EXPECT_EQ(count(RecheckState::stale), 0);
  // Another tyre: everything of the tyre.
  b.variant().fit[0].wheel = "225/40R18 8 ET40";
  EXPECT_EQ(count(RecheckState::stale), static_cast<std::ptrdiff_t>(rows().size()));
  for (const Recheck& row : rows())
    EXPECT_TRUE(row.was);
}

TEST(Recheck, AnotherWheelIsToldBesideTheSurveyedOne) {
  Build b = test::demo_whole();
  for (const Recheck& row : rechecks(end_of(b, End::front), {}))
    EXPECT_FALSE(row.before) << "it is the surveyed one";
  const auto surveyed = rechecks(end_of(b, End::front), {});
  b.variant().fit[0].wheel = "225/45R17 9 ET20"; // further out
  bool nearer = false;
  const auto rows = rechecks(end_of(b, End::front), {});
  for (const Recheck& row : rows)
    for (const Recheck& old : surveyed)
      if (old.what == row.what && old.figure && row.before) {
        // Over the heights that are left with the new one, so no nearer than over all of them.
        EXPECT_GE(*row.before, *old.figure - 1e-6) << row.what;
        nearer = nearer || (row.near.own == OwnPart::lip && *row.figure < *row.before);
      }
  EXPECT_TRUE(nearer) << "the arch lip";
}

TEST(Recheck, NewsOfAWheelAreThoseOfItsSpace) {
  Build b = test::demo_whole();
  EXPECT_FALSE(wheel_news(end_of(b, End::front)));
  b.variant().fit[0].wheel = "225/40R18 8.5 ET35";
  const auto news = wheel_news(end_of(b, End::front));
  ASSERT_TRUE(news);
  const auto was = motion::wheel_space(*motion::parse_wheel(b.ends[0].wheel)),
             now = motion::wheel_space(*motion::parse_wheel("225/40R18 8.5 ET35"));
  EXPECT_DOUBLE_EQ(news->change.inner_face, now.inner_face - was.inner_face);
  EXPECT_DOUBLE_EQ(news->poke, now.outer_face - was.outer_face);
  b.variant().fit[0].wheel = "round";
  EXPECT_FALSE(wheel_news(end_of(b, End::front)));
}

} // namespace
} // namespace mavrel::assess
