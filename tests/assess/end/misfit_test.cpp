// What a bag cannot do, asked in one place: strokes, the search, and what is not known.
#include "assess/end/misfit.h"

#include "assess/asked.h"
#include "assess/assess.h"
#include "assess/bags/gauge.h"
#include "assess/bags/judge.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/weather.h"
#include "assess/search/search.h"
#include "assess/search/search_end.h"
#include "assess/search/search_front.h"
#include "assess/survey/loads.h"

#include <cmath>
#include <functional>
#include <numbers>
#include <set>

namespace mavrel::assess {
namespace {

/// The demo shelf, one of its cards measured only over these rows.
shelf::Shelf shelf_with_rows(const std::string& name, std::size_t first, std::size_t last) {
  shelf::Shelf out = test::demo_shelf();
  for (shelf::ShelfBag& bag : out.bags) {
    if (bag.card.name != name) continue;
    const auto cut = [&](std::vector<double>& v) {
      v = std::vector<double>(v.begin() + static_cast<std::ptrdiff_t>(first),
                              v.begin() + static_cast<std::ptrdiff_t>(last + 1));
    };
    cut(bag.card.heights), cut(bag.card.volumes), cut(bag.card.diameters);
    for (auto& column : bag.card.loads)
      cut(column);
    bag.curve = air::BagCurve(bag.card);
  }
  return out;
}

// ---- what is not known

TEST(Unknown, NoPresetStandsWhereTheCardHasNoRows) {
  const Build& build = test::demo_build();
  const std::string name = build.variant().fit[1].bag;
  const shelf::Shelf shelf = shelf_with_rows(name, 4, 6);
  const Assessment a = assess(build, shelf);
  const EndAssessment& rear = a.end(End::rear);
  std::set<bool> sides;
  for (const Stretch& s : rear.windows.reach_blocked)
    if (s.limit == &limits::card_unknown) sides.insert(s.from <= rear.domain_low + 1e-9);
  EXPECT_EQ(sides.size(), 2U) << "below its rows and above them";
  ASSERT_TRUE(rear.windows.reach);
  const auto [low, high] = ends_of(build, shelf)[1].on().heights();
  EXPECT_GE(rear.windows.reach->low.height, low - 1e-9);
  EXPECT_LE(rear.windows.reach->high.height, high + 1e-9);
  // With the whole card the parked height was fine.
  EXPECT_TRUE(assess(build, test::demo_shelf()).end(End::rear).presets[0]->in_reach);
  EXPECT_FALSE(rear.presets[0]->in_reach);
  ASSERT_NE(finding(a, "preset_outside"), nullptr);
  for (const BagVerdict& v : judge_shelf(build, shelf, End::rear, 0))
    if (v.bag == name) {
      EXPECT_EQ(v.fit, Fit::does_not_fit);
    }
}

TEST(Unknown, AStrokeOffTheCardIsSaidAndRefused) {
  const Build build = with(test::demo_build(), [](Build& b) {
    // Every preset on the rows, the ends of the travel off them.
    for (std::size_t i = 0; i < 3; ++i)
      b.variant().brief.presets[i].wish[1] = build::HeightWish{build::HeightWish::As::height, 0.37, {}};
    b.variant().brief.bump_travel = b.variant().brief.rebound_reserve = 0.005;
  });
  const shelf::Shelf shelf = shelf_with_rows(build.variant().fit[1].bag, 2, 5);
  const Assessment a = assess(build, shelf);
  ASSERT_FALSE(a.end(End::rear).strokes.empty());
  EXPECT_FALSE(a.end(End::rear).strokes[0]->bump.pressure);
  const Finding* f = finding(a, "stroke_unknown");
  ASSERT_NE(f, nullptr);
  EXPECT_EQ(f->severity, Severity::stop);
  EXPECT_EQ(finding(assess(build, test::demo_shelf()), "stroke_unknown"), nullptr);
}

TEST(Unknown, AStageThatKnowsNothingIsNeitherGoodNorBad) {
  const Assessment nothing = assess(build::empty_build(), test::demo_shelf());
  EXPECT_EQ(stage_state(nothing, stages::bags), StageState::unknown);
  EXPECT_EQ(stage_state(nothing, stages::car_in), StageState::caution) << "readings are missing";
  Build no_bags = test::demo_build();
  no_bags.variant().fit[0].bag.clear();
  no_bags.variant().fit[1].bag.clear();
  EXPECT_EQ(stage_state(assess(no_bags, test::demo_shelf()), stages::bags), StageState::unknown);
  EXPECT_EQ(stage_state(assess(test::demo_build(), test::demo_shelf()), stages::bags), StageState::stop);
}

// ---- one rule

TEST(OneRule, TheStrokeOfTheAssessmentIsTheOneOfThePicture) {
  for (const Build& build : {test::demo_build(), pickup()}) {
    const Assessment a = assess(build, test::demo_shelf());
    const auto ends = ends_of(build);
    for (const End e : build::both_ends)
      for (std::size_t c = 0; c < a.loads.size(); ++c) {
        const auto picture = stroke_through(ends[build::at(e)], *ends[build::at(e)].road, c);
        ASSERT_TRUE(picture);
        const StrokeEnds& here = *a.end(e).strokes[c];
        EXPECT_EQ(*here.bump.pressure, *picture->ends.bump.pressure);
        EXPECT_EQ(*here.rebound.pressure, *picture->ends.rebound.pressure);
        EXPECT_NEAR(picture->points.front().quick_pressure, *here.bump.pressure, 1);
        EXPECT_NEAR(picture->points.back().quick_pressure, *here.rebound.pressure, 1);
      }
  }
}

TEST(OneRule, ANarrowLineLeavesTheVolumeOutOfAStroke) {
  // The pickup's tank behind 4 mm: hardly any of it breathes in a bump, and with a bag of that peak it is a stop.
  const auto bump = [](double bore) {
    const Build build = with(pickup(), [&](Build& b) { b.variant().fit[1].line_bore = bore; });
    return assess(build, test::demo_shelf()).end(End::rear).strokes[2]->bump;
  };
  const StrokeEnd narrow = bump(0.002), wide = bump(0.04);
  EXPECT_LT(narrow.added_taking_part, 0.4e-3);
  EXPECT_GT(wide.added_taking_part, 1.9e-3);
  EXPECT_GT(*narrow.pressure, *wide.pressure + 1e5);
  shelf::Shelf shelf = test::demo_shelf();
  for (auto& bag : shelf.bags)
    if (bag.card.name == pickup().variant().fit[1].bag)
      bag.card.peak_pressure = 0.5 * (*narrow.pressure + *wide.pressure);
  const auto found = [&](double bore) {
    const Build build = with(pickup(), [&](Build& b) {
      b.variant().fit[1].line_bore = bore;
      b.variant().brief.road_pressure_share = 1;
    });
    const Assessment a = assess(build, shelf);
    return std::any_of(a.findings.begin(), a.findings.end(), [](const Finding& f) {
      return f.code == "bump_over_peak" && f.end == End::rear && f.severity == Severity::stop;
    });
  };
  EXPECT_TRUE(found(0.002));
  EXPECT_FALSE(found(0.04));
}

TEST(OneRule, ABumpOverTheSteadyMaximumIsSaidAndOneOverThePeakStops) {
  const std::string name = test::demo_build().variant().fit[0].bag;
  const auto worst = [&](const shelf::Shelf& shelf) {
    double out = 0;
    for (const auto& stroke : assess(test::demo_build(), shelf).end(End::front).strokes)
      if (stroke && stroke->bump.pressure) out = std::max(out, *stroke->bump.pressure);
    return out;
  };
  const auto with_card = [&](double maximum, double peak) {
    shelf::Shelf shelf = test::demo_shelf();
    for (auto& bag : shelf.bags)
      if (bag.card.name == name) bag.card.max_pressure = maximum, bag.card.peak_pressure = peak;
    return shelf;
  };
  const double p = worst(test::demo_shelf());
  ASSERT_GT(p, 4e5);
  struct Asked {
    double maximum, peak;
    const char* code; // empty: nothing is said of it
    Severity severity;
    bool ours;
  };
  for (const Asked& asked : {Asked{1.01 * p, 0, "", {}, false},
                             {p / 1.2, 0, "bump_over_maximum", Severity::caution, true},
                             {p / 1.6, 0, "bump_over_peak", Severity::stop, true},
                             {p / 1.6, 1.05 * p, "bump_over_maximum", Severity::caution, false},
                             {p / 1.2, 0.99 * p, "bump_over_peak", Severity::stop, false}}) {
    const shelf::Shelf shelf = with_card(asked.maximum, asked.peak);
    const Assessment a = assess(test::demo_build(), shelf);
    std::vector<const Finding*> said;
    for (const Finding& f : a.findings)
      if (f.end == End::front && f.code.starts_with("bump_over")) said.push_back(&f);
    ASSERT_EQ(said.size(), *asked.code ? 1U : 0U) << asked.maximum << " " << asked.peak;
    const auto& misfits = a.end(End::front).misfits;
    EXPECT_EQ(std::any_of(misfits.begin(), misfits.end(),
                          [](const Misfit& m) { return m.code == MisfitCode::bump_over_peak; }),
              asked.severity == Severity::stop && *asked.code != 0);
    if (said.empty()) continue;
    EXPECT_EQ(said[0]->code, asked.code);
    EXPECT_EQ(said[0]->severity, asked.severity);
    EXPECT_EQ(say(said[0]->reason).find("ours") != std::string::npos, asked.ours) << say(said[0]->reason);
  }
}

TEST(OneRule, MetalAndRubberEndAStrokeAndPressureDoesNot) {
  const Build& build = test::demo_build();
  const auto ends = ends_of(build);
  const BagOnEnd bag = ends[0].on();
  const auto hit = free_travel(bag, Meeting::hit), standing = free_travel(bag, Meeting::standing);
  ASSERT_TRUE(hit && standing);
  EXPECT_LE(hit->low, standing->low);
  // A stop above the collapsed bag is met, and then gives.
  const Build stopped = with(build, [](Build& b) { b.ends[0].bump_stop_gap.values = {0.050}; });
  const auto early = ends_of(stopped);
  const auto a = free_travel(early[0].on(), Meeting::hit), s = free_travel(early[0].on(), Meeting::standing);
  EXPECT_EQ(s->low_by, &limits::bump_stop);
  EXPECT_NEAR(s->low - a->low, 0.015, 1e-9) << "what a stop gives at the wheel";
  // The bag's maximum, however low, changes neither.
  shelf::Shelf weak = test::demo_shelf();
  for (auto& one : weak.bags)
    one.card.max_pressure = 4e5;
  const auto same = free_travel(ends_of(stopped, weak)[0].on(), Meeting::hit);
  EXPECT_EQ(same->low, a->low);
  EXPECT_EQ(same->high, a->high);
}

TEST(OneRule, WhatTheSearchRefusesTheAssessmentRefusesAndTheOtherWayRound) {
  int passes = 0, fails = 0;
  EXPECT_TRUE(rc::check("by the same code", [&] {
    test::RandomCar car = test::random_car();
    if (*rc::gen::arbitrary<bool>()) // strong bags, so that many pass
      for (auto& bag : car.shelf.bags)
        bag.card.max_pressure = 16e5, bag.card.min_pressure = 0.1e5;
    const End end = *rc::gen::element(End::front, End::rear);
    const auto options = end_options(car.build, car.shelf, end, {{0, 2e-3}, {0, 0.015}, {0.01}});
    RC_ASSERT(options.has_value());
    for (const EndOption& one : *options) {
      Build fitted = car.build;
      auto& fit = fitted.variant().fit[build::at(end)];
      fit.bag = one.fitted.bag;
      fit.upper_stack = one.fitted.upper_stack;
      fit.lower_stack = one.fitted.lower_stack;
      fit.added_volume = one.fitted.added_volume;
      fit.line = build::LineState::open;
      // A setting refused before its line was chosen is refused with any line.
      if (one.fitted.line_bore > 0) fit.line_bore = one.fitted.line_bore;
      RC_ASSERT(one.passes == assess(fitted, car.shelf).end(end).misfits.empty());
      (one.passes ? passes : fails)++;
    }
  }));
  EXPECT_GT(passes, 5);
  EXPECT_GT(fails, 5);
}

TEST(OneRule, JudgeRefusesWhatTheAssessmentRefuses) {
  for (const Build& build : {test::demo_build(), pickup()})
    for (const End end : build::both_ends)
      for (const BagVerdict& v : judge_shelf(build, test::demo_shelf(), end, 2)) {
        Build fitted = build;
        fitted.variant().fit[build::at(end)].bag = v.bag;
        const auto misfits = assess(fitted, test::demo_shelf()).end(end).misfits;
        const bool in_this_case = std::any_of(misfits.begin(), misfits.end(),
                                              [](const Misfit& m) { return !m.load_case || m.load_case == 2U; });
        EXPECT_EQ(v.fit == Fit::does_not_fit, in_this_case) << v.bag;
        if (v.fit == Fit::fits) {
          EXPECT_TRUE(misfits.empty()) << v.bag;
        }
      }
}

// ---- the search as a whole

TEST(SearchFront, IsWhatEveryCombinationTriedOneByOneGives) {
  int choices = 0;
  EXPECT_TRUE(rc::check("branches left out hold nothing", [&] {
    const auto options = [](std::size_t count) {
      std::vector<EndOption> out(count);
      for (std::size_t i = 0; i < count; ++i) {
        EndOption& o = out[i];
        o.bag = i / 5;
        o.passes = *rc::gen::inRange(0, 6) != 0;
        // Few values, so that equals and ties are common.
        o.fitted.lowest = 0.30 + 0.01 * *rc::gen::inRange(0, 6);
        o.air = 0.01 * *rc::gen::inRange(0, 5);
        o.reserve = 0.1 * *rc::gen::inRange(0, 5);
        o.lift = 0.01 * *rc::gen::inRange(0, 5);
        o.fitted.ride_frequency = {1 + 0.1 * *rc::gen::inRange(0, 9), 1 + 0.1 * *rc::gen::inRange(0, 9)};
      }
      return out;
    };
    const auto front = options(*rc::gen::inRange<std::size_t>(0, 60)),
               rear = options(*rc::gen::inRange<std::size_t>(0, 60));
    const build::Brief brief;
    std::vector<Candidate> all;
    for (std::size_t i = 0; i < front.size(); ++i)
      for (std::size_t j = 0; j < rear.size(); ++j)
        if (front[i].passes && rear[j].passes) all.push_back({i, j, figures_of(brief, front[i], rear[j])});
    const auto same = [](const SearchFigures& a, const SearchFigures& b) {
      return !dominates(a, b) && !dominates(b, a) && a.lowest == b.lowest && a.discomfort == b.discomfort &&
             a.air == b.air && a.reserve == b.reserve && a.lift == b.lift;
    };
    std::vector<std::pair<std::size_t, std::size_t>> wanted;
    for (std::size_t k = 0; k < all.size(); ++k) {
      bool stays = true;
      for (std::size_t m = 0; m < all.size() && stays; ++m)
        stays = !dominates(all[m].figures, all[k].figures) && !(m < k && same(all[m].figures, all[k].figures));
      if (stays) wanted.emplace_back(all[k].front, all[k].rear);
    }
    for (const unsigned threads : {1U, 3U}) {
      std::vector<std::pair<std::size_t, std::size_t>> got;
      SearchControl control;
      control.threads = threads;
      for (const Candidate& c : undominated(brief, front, rear, control))
        got.emplace_back(c.front, c.rear);
      RC_ASSERT(got == wanted);
    }
    choices += static_cast<int>(wanted.size());
    // The best of each pair of bags, and of few pairs the best ones.
    SearchControl control;
    const auto every = best_of_pairs(brief, front, rear, {}, 10000, control);
    const auto few = best_of_pairs(brief, front, rear, {}, 5, control);
    RC_ASSERT(few.size() == std::min<std::size_t>(5, every.size()));
    for (std::size_t i = 0; i < few.size(); ++i) {
      RC_ASSERT(few[i].key == every[i].key);
      RC_ASSERT(few[i].front_bag == every[i].front_bag && few[i].rear_bag == every[i].rear_bag);
    }
  }));
  EXPECT_GT(choices, 100);
}

TEST(Search, ProgressNeverFallsAndEndsWhole) {
  for (const unsigned threads : {1U, 4U}) {
    SearchControl control;
    control.threads = threads;
    double last = 0;
    bool fell = false;
    control.progress = [&](double done) { fell = fell || done < last, last = done; };
    ASSERT_TRUE(search(test::demo_build(), test::demo_shelf(), {}, control));
    EXPECT_FALSE(fell);
    EXPECT_EQ(last, 1);
  }
}

TEST(Search, WhatGoesWrongInAWorkerIsAnAnswer) {
  SearchControl control;
  control.threads = 3;
  control.progress = [](double) { throw std::runtime_error("a worker fell over"); };
  const auto found = search(test::demo_build(), test::demo_shelf(), {}, control);
  ASSERT_FALSE(found);
  EXPECT_NE(say(found.error()).find("a worker fell over"), std::string::npos);
  control.progress = [](double) { throw std::bad_alloc(); };
  const auto full = search(test::demo_build(), test::demo_shelf(), {}, control);
  ASSERT_FALSE(full);
  EXPECT_NE(say(full.error()).find("memory"), std::string::npos);
}

TEST(Search, ListsTheBestPairsWhereOnlySomeAreWanted) {
  SearchControl few;
  few.most_pairs = 12;
  const auto all = search(test::demo_build(), test::demo_shelf(), {}),
             some = search(test::demo_build(), test::demo_shelf(), {}, few);
  ASSERT_TRUE(all && some);
  EXPECT_EQ(some->ranking.size(), 12U);
  EXPECT_EQ(some->pairs, 225U);
  EXPECT_EQ(some->choices.size(), all->choices.size()) << "the choices are all there";
  EXPECT_EQ(some->ranking.front().bags, all->ranking.front().bags);
}

TEST(Search, AnAnswerHoldsWhileWhatItReadIsTheSame) {
  const SearchGiven given = search_given(test::demo_build(), test::demo_shelf(), {});
  const auto still = [&](const std::function<void(Build&)>& change) {
    return search_given(with(test::demo_build(), change), test::demo_shelf(), {}) == given;
  };
  EXPECT_TRUE(still([](Build& b) { b.variant().brief.notes = "another wish"; }));
  EXPECT_TRUE(still([](Build& b) { b.job.owner = "somebody"; }));
  EXPECT_TRUE(still([](Build& b) { b.variants[1].fit[0].bag = "else"; }));
  EXPECT_FALSE(still([](Build& b) { b.variant().brief.bump_travel = 0.05; }));
  EXPECT_FALSE(still([](Build& b) { b.ends[0].friction = 1; }));
  shelf::Shelf shelf = test::demo_shelf();
  shelf.bags[3].card.max_pressure += 1;
  EXPECT_FALSE(search_given(test::demo_build(), shelf, {}) == given) << "a changed card";
}

} // namespace
} // namespace mavrel::assess
