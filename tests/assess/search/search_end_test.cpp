// One end of the search alone: what is tried, in which order, and what each hard limit says of the setting that misses
// it.
#include "assess/asked.h"
#include "assess/search/search_end.h"

#include "assess/assess.h"
#include "assess/survey/loads.h"
#include "support.h"

#include <set>

namespace mavrel::assess {
namespace {

std::vector<EndOption> options(const build::Build& build, End end, const SearchSpace& space) {
  return end_options(build, test::demo_shelf(), end, space, {}).value();
}

EndOption of_bag(const std::vector<EndOption>& all, const std::string& bag) {
  for (const EndOption& option : all)
    if (option.fitted.bag == bag) return option;
  throw std::runtime_error(bag);
}

build::Build changed(const std::function<void(build::Build&)>& change) {
  build::Build out = test::demo_build();
  change(out);
  return out;
}

const SearchSpace as_it_stands{{0}, {0.012}, {0.012}};

TEST(EndOptions, TryEveryBagStackAndVolumeOnce) {
  const SearchSpace space{{0, 1e-3, 4e-3}, {0, 0.01}, {0, 0.01, 0.02}};
  const auto all = options(test::demo_build(), End::rear, space);
  // Sums 0, 10, 20 and 30 mm: four stacks of six pairs.
  EXPECT_EQ(all.size(), test::demo_shelf().bags.size() * 4 * 3);
  std::set<std::tuple<std::string, long, double>> seen;
  for (const EndOption& one : all)
    EXPECT_TRUE(seen.emplace(one.fitted.bag, std::lround((one.fitted.upper_stack + one.fitted.lower_stack) * 1e4),
                             one.fitted.added_volume)
                    .second);
}

TEST(EndOptions, OfOneSumTheSplitNearestToTodaysIsTaken) {
  const auto near = [](double upper, double lower) {
    const auto build = changed([&](build::Build& b) {
      b.variant().fit[1].upper_stack = upper;
      b.variant().fit[1].lower_stack = lower;
    });
    for (const EndOption& one : options(build, End::rear, {{0}, {0, 0.01, 0.02}, {0, 0.01, 0.02}}))
      if (std::abs(one.fitted.upper_stack + one.fitted.lower_stack - 0.02) < 1e-9) return one.fitted.upper_stack;
    return -1.0;
  };
  EXPECT_DOUBLE_EQ(near(0.02, 0.001), 0.02);
  EXPECT_DOUBLE_EQ(near(0.001, 0.02), 0.0);
  EXPECT_DOUBLE_EQ(near(0.01, 0.01), 0.01);
}

TEST(EndOptions, AgreeWithFittingTheSettingForReal) {
  for (const End end : build::both_ends)
    for (const EndOption& one : options(test::demo_build(), end, {{0, 2e-3}, {0.008}, {0.01}})) {
      const auto fitted = changed([&](build::Build& b) {
        auto& fit = b.variant().fit[build::at(end)];
        fit.bag = one.fitted.bag;
        fit.upper_stack = one.fitted.upper_stack;
        fit.lower_stack = one.fitted.lower_stack;
        fit.added_volume = one.fitted.added_volume;
        fit.line_bore = one.fitted.line_bore;
      });
      const auto a = assess(fitted, test::demo_shelf());
      bool stopped = false;
      for (const Finding& f : a.findings)
        stopped = stopped || (f.severity == Severity::stop && f.end == end && f.stage == &stages::bags);
      EXPECT_EQ(one.passes, !stopped) << one.fitted.bag << " " << say(one.miss);
      if (!one.passes) continue;
      EXPECT_NEAR(one.fitted.road_pressure,
                  std::max(a.end(end).presets[1]->cases[2]->side_pressure[0],
                           a.end(end).presets[1]->cases[2]->side_pressure[1]),
                  0.35 * one.fitted.road_pressure);
      EXPECT_NEAR(one.reserve,
                  1 - one.fitted.road_pressure / test::demo_shelf().find(one.fitted.bag)->card.max_pressure, 1e-12);
    }
}

TEST(EndOptions, ABagTooWideMissesByItsRoom) {
  const auto build = changed([](build::Build& b) { b.ends[1].bag_room = 0.150; });
  const EndOption wide = of_bag(options(build, End::rear, as_it_stands), "Osier O-150");
  EXPECT_FALSE(wide.passes);
  EXPECT_NEAR(wide.miss_by, 0.152 + 2 * 0.012 - 0.150, 1e-9);
  EXPECT_NE(say(wide.miss).find("needs 176 mm of room, there is 150 mm"), std::string::npos);
}

TEST(EndOptions, APresetOutsideMissesByItsDistanceAndNamesTheLimit) {
  const auto build = changed([](build::Build& b) {
    b.variant().brief.presets[2].wish[1] = build::HeightWish{build::HeightWish::As::height, 0.470, {}};
  });
  const EndOption high = of_bag(options(build, End::rear, as_it_stands), "Osier O-150");
  EXPECT_FALSE(high.passes);
  EXPECT_NE(say(high.miss).find("Ramp is"), std::string::npos);
  EXPECT_NE(say(high.miss).find("amper open"), std::string::npos) << say(high.miss);
}

TEST(EndOptions, TheGravestMissIsNamed) {
  const auto build = changed([](build::Build& b) {
    b.ends[1].bag_room = 0.175; // a millimetre short
    b.variant().brief.presets[2].wish[1] = build::HeightWish{build::HeightWish::As::height, 0.600, {}};
  });
  const EndOption one = of_bag(options(build, End::rear, as_it_stands), "Osier O-150");
  EXPECT_NE(say(one.miss).find("Ramp"), std::string::npos) << "141 mm too high outweighs 1 mm of room";
}

TEST(EndOptions, MoreVolumeIsSofterAndTakesMoreAir) {
  std::map<double, const EndOption*> by_volume;
  const auto all = options(test::demo_build(), End::rear, {{0, 1e-3, 3e-3, 6e-3}, {0.012}, {0.012}});
  for (const EndOption& one : all)
    if (one.fitted.bag == "Osier O-150") by_volume[one.fitted.added_volume] = &one;
  ASSERT_EQ(by_volume.size(), 4U);
  const EndOption* last = nullptr;
  for (const auto& [volume, one] : by_volume) {
    ASSERT_TRUE(one->passes) << say(one->miss);
    if (last) {
      EXPECT_LT(one->fitted.frequency[0], last->fitted.frequency[0]);
      EXPECT_GT(one->air, last->air);
      EXPECT_DOUBLE_EQ(one->fitted.lowest, last->fitted.lowest) << "a tank moves no limit";
    }
    last = one;
  }
}

TEST(Figures, ComfortIsNothingInsideTheBriefAndGrowsOutside) {
  build::Brief brief;
  brief.frequency_low = 1.0;
  brief.frequency_high = 1.5;
  EndOption front, rear;
  const auto discomfort = [&](double f, double r) {
    front.fitted.ride_frequency = {f};
    rear.fitted.ride_frequency = {r};
    return figures_of(brief, front, rear).discomfort;
  };
  EXPECT_EQ(discomfort(1.2, 1.2 * 1.15), 0);
  EXPECT_NEAR(discomfort(1.2, 1.2), 0.10, 1e-12) << "the rear should be a tenth quicker";
  EXPECT_NEAR(discomfort(1.5, 1.7), 0.2, 1e-12);
  EXPECT_NEAR(discomfort(0.8, 0.92), 0.2 + 0.08, 1e-12);
}

TEST(Figures, TheWorstCaseCounts) {
  build::Brief brief;
  EndOption front, rear;
  front.fitted.ride_frequency = {1.2, 1.8};
  rear.fitted.ride_frequency = {1.38, 2.07};
  EXPECT_NEAR(figures_of(brief, front, rear).discomfort, 0.3 + 0.57, 1e-12);
}

TEST(Figures, DominanceIsStrictSomewhere) {
  const SearchFigures a{0.3, 0.1, 0.02, 0.4, 0.05};
  EXPECT_FALSE(dominates(a, a));
  SearchFigures b = a;
  b.air = 0.03;
  EXPECT_TRUE(dominates(a, b));
  EXPECT_FALSE(dominates(b, a));
  b.lift = 0.06;
  EXPECT_FALSE(dominates(a, b)) << "each is better in one";
}

// ---- the end that everything starts from

TEST(FittedEnd, KnowsItsPresetsByUse) {
  const auto loads = case_loads(test::demo_build());
  const FittedEnd end = fitted_end(test::demo_build(), test::demo_shelf(), End::rear);
  ASSERT_TRUE(end.parked && end.road && end.ramp);
  EXPECT_LT(*end.parked, *end.road);
  EXPECT_DOUBLE_EQ(*end.road, 0.37);
  EXPECT_DOUBLE_EQ(end.stack, 0.024);
}

TEST(FittedEnd, SaysWhatIsMissing) {
  const auto reason = [](const std::function<void(build::Build&)>& change, double H = 0.37, std::size_t load_case = 0) {
    const auto build = changed(change);
    const auto loads = case_loads(build);
    const auto posed = posed_end(fitted_end(build, test::demo_shelf(), End::rear), H, load_case);
    return posed ? std::string() : say(posed.error());
  };
  const auto nothing = [](build::Build&) {};
  EXPECT_EQ(reason(nothing), "");
  EXPECT_NE(reason([](build::Build& b) {
              b.ends[1].corners[0].height.values.clear(), b.ends[1].corners[1].height.values.clear();
            }).find("the height is needed"),
            std::string::npos);
  EXPECT_NE(reason([](build::Build& b) { b.variant().fit[1].bag.clear(); }).find("choose a bag"), std::string::npos);
  EXPECT_NE(reason([](build::Build& b) { b.variant().fit[1].bag = "nowhere to be seen"; }).find("choose a bag"),
            std::string::npos);
  EXPECT_NE(reason([](build::Build& b) {
              b.ends[1].corners[0].mass.values.clear(), b.ends[1].corners[1].mass.values.clear();
            }).find("corner weights"),
            std::string::npos);
  EXPECT_NE(reason(nothing, 0.6).find("outside the bag's card"), std::string::npos);
  EXPECT_NE(reason(nothing, 0.37, 99).find("corner weights"), std::string::npos);
  EXPECT_NE(reason([](build::Build& b) {
              b.ends[1].other_spring_rate = 2e5, b.ends[1].other_spring_slack = 0.5;
            }).find("other springs"),
            std::string::npos);
}

} // namespace
} // namespace mavrel::assess
