#include "assess/assess.h"

#include "assess/asked.h"
#include "assess/bags/judge.h"
#include "assess/compare/compare.h"
#include "assess/end/bag_on_end.h"
#include "assess/end/end_model.h"
#include "assess/end/limits.h"
#include "assess/survey/loads.h"
#include "build/edit.h"

#include <cmath>
#include <numbers>

namespace mavrel::assess {
namespace {

using build::Build;
using test::demo_build;
using test::demo_shelf;

Build typed(const std::string& path, const std::string& text, const Build& from = demo_build()) {
  const auto out = build::with_text(from, path, text, {});
  EXPECT_TRUE(out) << path << ": " << (out ? "" : say(out.error()));
  return out.value_or(from);
}

TEST(Loads, AxleSharesByMoments) {
  const auto loads = case_loads(demo_build());
  ASSERT_EQ(loads.size(), 3U);
  const double front = 419 + 409, rear = 343.5 + 336.5;
  EXPECT_NEAR(loads[0].ends[0]->axle_mass, front, 1e-9);
  const double to_rear = (78 * 1.32 + 205 * 2.72 + 35 * 1.9) / 2.75;
  EXPECT_NEAR(loads[2].ends[1]->axle_mass, rear + to_rear, 1e-9);
  EXPECT_NEAR(*loads[2].total_mass, front + rear + 78 + 205 + 35, 1e-9) << "nothing is lost between the axles";
  EXPECT_GT(loads[1].ends[0]->side_mass[0], loads[1].ends[0]->side_mass[1])
      << "the driver sits on the left and is heavier";
  EXPECT_NEAR(*cross_weight(demo_build().end(End::front), demo_build().end(End::rear)), (409 + 343.5) / (front + rear),
              1e-12);
}

TEST(Loads, MissingReadingsGiveNoAnswerInsteadOfAGuess) {
  EXPECT_FALSE(case_loads(typed("body.wheelbase_m", ""))[1].ends[0]) << "a load needs the wheelbase";
  EXPECT_TRUE(case_loads(typed("body.wheelbase_m", ""))[0].ends[0]) << "the bare car does not";
  EXPECT_TRUE(case_loads(typed("rear.right.mass_kg", ""))[0].ends[1]) << "one side stands for both";
  EXPECT_EQ(case_loads(build::empty_build())[0].total_mass, std::nullopt);
}

TEST(Floor, TiltIsTakenOutAndTwistCorrected) {
  Build build = demo_build();
  const auto set = [&](double fl, double fr, double rl, double rr) {
    build.ends[0].corners[0].floor = fl;
    build.ends[0].corners[1].floor = fr;
    build.ends[1].corners[0].floor = rl;
    build.ends[1].corners[1].floor = rr;
    return floor_corrections(floors_of(build));
  };
  const auto tilted = set(0, 0.010, 0.020, 0.030);
  EXPECT_NEAR(tilted[0][0], 0, 1e-12) << "a flat floor, however steep, changes no height";
  const auto twisted = set(0.008, 0, 0, 0);
  EXPECT_NEAR(twisted[0][0], 0.002, 1e-12) << "the hub on the high spot reads too little";
  EXPECT_NEAR(twisted[0][1], -0.002, 1e-12);
  EXPECT_NEAR(twisted[1][1], 0.002, 1e-12);
}

// ---- windows

TEST(Windows, ByHandForTheDemoCar) {
  const Assessment a = assess(demo_build(), demo_shelf());
  const auto& front = a.end(End::front);
  const double H0 = *front.surveyed_height;
  ASSERT_TRUE(front.windows.reach && front.windows.road);
  EXPECT_EQ(front.windows.reach->low.governing->limit, &limits::bump_stop);
  EXPECT_NEAR(front.windows.reach->low.height, H0 - 0.072 / 0.965, 1e-9);
  EXPECT_EQ(front.windows.reach->low.next->limit, &limits::damper_shut);
  EXPECT_NEAR(front.windows.reach->low.next_height, H0 - (0.412 - 0.318) / 0.965, 1e-9);
  EXPECT_EQ(front.windows.reach->high.governing->limit, &limits::bag_full);
  EXPECT_NEAR(front.windows.reach->high.height, H0 + (0.215 + 0.018 - 0.1945) / 0.965, 1e-9);
  EXPECT_NEAR(front.windows.road->low.height, front.windows.reach->low.height + 0.045, 1e-9);
  EXPECT_NEAR(front.windows.road->high.height, front.windows.reach->high.height - 0.030, 1e-9);
  EXPECT_NEAR(*front.windows.reach->low.height_per_metre, 1 / 0.965, 1e-9);
}

TEST(Windows, MovingThePartMovesTheEdgeByWhatWasPromised) {
  const Assessment before = assess(demo_build(), demo_shelf());
  const Assessment after = assess(typed("front.bump_stop_gap_m", "77 mm"), demo_shelf());
  const auto& edge = before.end(End::front).windows.reach->low;
  EXPECT_NEAR(after.end(End::front).windows.reach->low.height, edge.height - 0.005 * *edge.height_per_metre, 1e-9);
}

TEST(Windows, PickTheFreeStretchAndNameItsEdges) {
  const Domain domain{0.2, 0.6};
  const std::vector<Stretch> blocked = {{&limits::bump_stop, 0.2, 0.25, {}, 0},
                                        {&limits::bag_collapsed, 0.2, 0.24, {}, 0},
                                        {&limits::pressure_high, 0.35, 0.38, 1, 0},
                                        {&limits::damper_open, 0.55, 0.6, {}, 0}};
  const auto widest = window_between(blocked, domain, {});
  ASSERT_TRUE(widest);
  EXPECT_DOUBLE_EQ(widest->low.height, 0.38);
  EXPECT_EQ(widest->low.governing->limit, &limits::pressure_high);
  EXPECT_EQ(widest->low.next->limit, &limits::bump_stop);
  const auto preferred = window_between(blocked, domain, 0.3);
  EXPECT_DOUBLE_EQ(preferred->low.height, 0.25);
  EXPECT_EQ(preferred->low.next->limit, &limits::bag_collapsed);
  EXPECT_DOUBLE_EQ(preferred->high.height, 0.35);
  EXPECT_FALSE(window_between(
      std::vector<Stretch>{{&limits::bump_stop, 0.2, 0.5, {}, 0}, {&limits::damper_open, 0.45, 0.6, {}, 0}}, domain,
      {}));
  const auto open = window_between({}, domain, {});
  EXPECT_FALSE(open->low.governing) << "nothing known limits it";
}

TEST(Windows, NothingFreeIsBlockedAndNothingBlockedIsFree) {
  EXPECT_TRUE(rc::check("windows", [] {
    const Domain domain{0, 1};
    std::vector<Stretch> blocked;
    for (int i = *rc::gen::inRange(0, 8); i > 0; --i) {
      const double from = test::between(0, 1);
      blocked.push_back({&limits::pressure_high, from, std::min(1.0, from + test::between(0, 0.4)), {}, 0});
    }
    const auto window = window_between(blocked, domain, test::between(0, 1));
    const auto is_blocked = [&](double H) {
      return std::any_of(blocked.begin(), blocked.end(), [&](const Stretch& s) { return H > s.from && H < s.to; });
    };
    if (window)
      for (int i = 1; i < 40; ++i)
        RC_ASSERT(!is_blocked(std::lerp(window->low.height, window->high.height, i / 40.0)));
    else
      for (int i = 1; i < 400; ++i)
        RC_ASSERT(is_blocked(i / 400.0) || is_blocked(i / 400.0 + 1e-6) || is_blocked(i / 400.0 - 1e-6));
  }));
}

TEST(Windows, APressureLimitStandsWhereThePressureIsReached) {
  const Assessment a = assess(typed("variants.0.rear.bag", "Fennick R-100"), demo_shelf());
  const auto* bag = demo_shelf().find("Fennick R-100");
  for (const Stretch& s : a.end(End::rear).windows.reach_blocked) {
    if (s.limit != &limits::pressure_high) continue;
    const auto loads = case_loads(demo_build());
    const EndModel model = end_model(typed("variants.0.rear.bag", "Fennick R-100"), End::rear);
    const BagOnEnd on(model, *bag, 0.024);
    const auto& load = *loads[*s.load_case].ends[1];
    const double heavy = std::max(load.side_mass[0], load.side_mass[1]);
    if (s.from > on.heights().first + 1e-6) {
      EXPECT_NEAR(*on.pressure(s.from, heavy), bag->card.max_pressure, 1);
    }
  }
  Build weak = typed("variants.0.rear.bag", "Fennick R-100");
  weak.variant().brief.road_pressure_share = 0.4;
  EXPECT_NE(finding(assess(weak, demo_shelf()), "no_road_window"), nullptr) << "a light sleeve under the market stock";
}

// ---- tracks

TEST(Tracks, ReadTheSameAsTheBagItself) {
  const Assessment a = assess(demo_build(), demo_shelf());
  const auto& front = a.end(End::front);
  const double H = 0.357;
  const EndModel model = end_model(demo_build(), End::front);
  const BagOnEnd bag(model, *demo_shelf().find("Osier O-135"), 0.018);
  const auto state = bag.state(H, *a.loads[1].ends[0]);
  ASSERT_TRUE(state);
  EXPECT_NEAR(*front.find(tracks::pressure, 1)->at(H), state->pressure, 1e-3 * state->pressure);
  EXPECT_NEAR(*front.find(tracks::frequency, 1)->at(H), *state->frequency, 1e-3);
  EXPECT_NEAR(*front.find(tracks::bag_height, 1)->at(H), state->bag_height, 1e-9);
  EXPECT_NEAR(*front.find(tracks::damper_to_open, 1)->at(H) + *front.find(tracks::damper_to_shut, 1)->at(H),
              0.466 - 0.318, 1e-9)
      << "what is left each way is the whole stroke";
  // Body frequency from first principles.
  const auto direct = air::bag_under_load(bag.bag().curve, state->bag_height,
                                          a.loads[1].ends[0]->sprung_mass * standard_gravity / 0.965, model.setting);
  EXPECT_NEAR(*state->frequency,
              std::sqrt(direct->rate_fast * 0.965 * 0.965 / a.loads[1].ends[0]->sprung_mass) / (2 * std::numbers::pi),
              1e-9);
  for (const Track& track : front.tracks)
    for (const TrackPiece& piece : track.pieces)
      EXPECT_LE(piece.step, 0.001 + 1e-12);
  EXPECT_EQ(front.find(tracks::pressure, 1)->at(0.9), std::nullopt) << "no answer outside the card";
}

TEST(Tracks, OtherSpringsTakeTheirShare) {
  const Build build = typed("rear.other_spring_slack_m", "400 mm", typed("rear.other_spring_rate_n_per_m", "10 N/mm"));
  const auto loads = case_loads(build);
  const EndModel with = end_model(build, End::rear), without = end_model(demo_build(), End::rear);
  const BagOnEnd a(with, *demo_shelf().find("Osier O-150"), 0.024),
      b(without, *demo_shelf().find("Osier O-150"), 0.024);
  EXPECT_LT(*a.pressure(0.37, 306), *b.pressure(0.37, 306));
  EXPECT_DOUBLE_EQ(*a.pressure(0.41, 306), *b.pressure(0.41, 306)) << "slack up there";
  EXPECT_EQ(a.pressure(0.30, 60), std::nullopt) << "they carry all of it: the bag has no pressure to name";
}

TEST(Assess, NeverANumberThatIsNone) {
  EXPECT_TRUE(rc::check("random builds", [] {
    Build build = demo_build();
    auto& end = build.end(*rc::gen::element(End::front, End::rear));
    const auto maybe = [](std::vector<double>& v, double lo, double hi) {
      if (*rc::gen::inRange(0, 5) == 0)
        v.clear();
      else
        v = {test::between(lo, hi)};
    };
    maybe(end.corners[0].mass.values, 20, 3000);
    maybe(end.corners[1].height.values, 0.05, 1.2);
    maybe(end.motion_ratio.values, 0.1, 2);
    maybe(end.damper_ratio.values, 0.1, 2);
    maybe(end.spring_length.values, 0.03, 1);
    maybe(end.damper_length.values, 0.05, 1.5);
    maybe(end.damper_open.values, 0.05, 1.5);
    maybe(end.damper_shut.values, 0.05, 1.5);
    maybe(end.bump_stop_gap.values, 0, 0.4);
    build.load_cases[1].masses[0].mass = test::between(-1500, 3000);
    build.variant().fit[0].bag =
        demo_shelf().bags[*rc::gen::inRange<std::size_t>(0, demo_shelf().bags.size())].card.name;
    build.variant().fit[0].upper_stack = test::between(0, 0.4);
    const Assessment a = assess(build, demo_shelf());
    for (const End which : build::both_ends) {
      const EndAssessment& e = a.end(which);
      const auto all_finite = [](const Track& track) {
        for (const TrackPiece& piece : track.pieces)
          for (const double v : piece.values)
            if (!std::isfinite(v)) return false;
        return true;
      };
      for (const Track& track : e.tracks)
        RC_ASSERT(all_finite(track));
      for (const auto& c : e.cases)
        for (const Track& track : c)
          RC_ASSERT(all_finite(track));
      for (const auto& preset : e.presets)
        if (preset)
          for (const auto& state : preset->cases)
            if (state) RC_ASSERT(std::isfinite(state->pressure) && std::isfinite(state->wheel_rate));
      if (e.windows.reach) RC_ASSERT(e.windows.reach->width() > 0);
    }
    for (const Finding& f : a.findings)
      RC_ASSERT(say(f.title).find('?') == std::string::npos && say(f.reason).find('?') == std::string::npos);
    for (const End end_now : build::both_ends)
      (void)judge_shelf(build, demo_shelf(), end_now, 0);
  }));
}

// ---- findings

TEST(Findings, NameWhatIsWrongWhereAndTheWayOut) {
  const Assessment a = assess(demo_build(), demo_shelf());
  const Finding* ramp = finding(a, "preset_outside");
  ASSERT_NE(ramp, nullptr);
  EXPECT_EQ(ramp->severity, Severity::stop);
  EXPECT_EQ(ramp->place, "variants.0.brief.presets.2.front");
  EXPECT_EQ(ramp->end, End::front);
  EXPECT_EQ(say(ramp->title), "Front Ramp is 5 mm too high");
  EXPECT_NEAR(ramp->number->value, 0.424, 1e-12);
  // The way out works: that much more stack brings the preset inside.
  const Assessment mended = assess(typed("variants.0.front.upper_stack_m", "13 mm"), demo_shelf());
  EXPECT_EQ(finding(mended, "preset_outside"), nullptr);
}

struct Case {
  const char *path, *text, *code;
  Severity severity;
};

TEST(Findings, EachTroubleIsFoundOnTheCarThatHasIt) {
  const Case cases[] = {
      {"front.left.height_m", "400 mm", "sides_differ_height", Severity::caution},
      {"front.left.mass_kg", "470 kg", "sides_differ_weight", Severity::caution},
      {"front.right.mass_kg", "510 kg", "cross_weight", Severity::caution},
      {"front.rating_kg", "850 kg", "axle_over_rating", Severity::stop},
      {"body.rating_kg", "1700 kg", "car_over_rating", Severity::stop},
      {"rear.spring_length_m", "186; 187; 199", "readings_spread", Severity::caution},
      {"front.right.floor_m", "20 mm", "floor_twisted", Severity::caution},
      {"front.right.floor_m", "", "floor_incomplete", Severity::note},
      {"rear.damper_ratio", "", "reading_missing", Severity::caution},
      {"front.wheel", "big ones", "wheel_unreadable", Severity::caution},
      {"front.damper_length_m", "480 mm", "damper_reading_impossible", Severity::stop},
      {"front.damper_shut_m", "490 mm", "damper_lengths_crossed", Severity::stop},
      {"load_cases.2.masses.1.behind_front_axle_m", "5 m", "load_outside_car", Severity::note},
      {"load_cases.2.masses.1.mass_kg", "-1400 kg", "corner_lifts", Severity::stop},
      {"body.wheelbase_m", "", "wheelbase_missing", Severity::stop},
      {"variants.0.front.bag", "", "no_bag", Severity::note},
      {"variants.0.front.bag", "Nobody N-1", "bag_not_on_shelf", Severity::stop},
      {"front.bag_room_m", "140 mm", "bag_too_wide", Severity::stop},
      {"front.bump_stop_gap_m", "160 mm", "bag_before_stop", Severity::stop},
      {"variants.0.front.lower_stack_m", "200 mm", "no_reach_window", Severity::stop},
      {"variants.0.brief.bump_travel_m", "120 mm", "no_road_window", Severity::stop},
      {"front.wheel", "", "wish_without_reference", Severity::caution},
      {"front.unsprung_kg", "", "unsprung_estimated", Severity::note},
      {"variants.0.rear.bag", "Osier O-118", "preset_outside", Severity::stop},
  };
  const Assessment before = assess(demo_build(), demo_shelf());
  for (const Case& c : cases) {
    const Assessment a = assess(typed(c.path, c.text), demo_shelf());
    // One that the demo has not already: of another place, or saying something else.
    const auto is_new = [&](const Finding& f) {
      return f.code == c.code && std::none_of(before.findings.begin(), before.findings.end(), [&](const Finding& old) {
               return old.code == f.code && old.place == f.place && say(old.title) == say(f.title);
             });
    };
    const auto f = std::find_if(a.findings.begin(), a.findings.end(), is_new);
    ASSERT_NE(f, a.findings.end()) << c.code << " for " << c.path << " = " << c.text;
    EXPECT_EQ(f->severity, c.severity) << c.code;
    EXPECT_GT(say(f->title).size(), 8U);
    EXPECT_GT(say(f->reason).size(), 8U);
    EXPECT_GT(say(f->way_out).size(), 8U);
    EXPECT_EQ(say(f->title).find('{'), std::string::npos);
  }
}

TEST(Findings, CautionsAreSaidOnceAndOnlyWhereTheyApply) {
  const Assessment a = assess(demo_build(), demo_shelf());
  EXPECT_EQ(
      std::count_if(a.findings.begin(), a.findings.end(), [](const Finding& f) { return f.code == "caution_stands"; }),
      1);
  EXPECT_EQ(finding(assess(build::empty_build(), demo_shelf()), "caution_stands"), nullptr);
  EXPECT_TRUE(std::is_sorted(a.findings.begin(), a.findings.end(),
                             [](const Finding& x, const Finding& y) { return x.severity < y.severity; }));
}

TEST(Findings, AnEmptyBuildAsksForItsReadings) {
  const Assessment a = assess(build::empty_build(), demo_shelf());
  // One finding with the list of all that is not taken, not one for each.
  EXPECT_EQ(
      std::count_if(a.findings.begin(), a.findings.end(), [](const Finding& f) { return f.code == "reading_missing"; }),
      1);
  const std::string list = say(finding(a, "reading_missing")->reason);
  for (const char* one : {"front corner weight", "front spring motion ratio", "rear height", "rear bump stop gap"})
    EXPECT_NE(list.find(one), std::string::npos) << list;
  EXPECT_EQ(finding(a, "reading_missing")->place, "front.left.mass_kg");
  EXPECT_FALSE(a.end(End::front).has_domain());
}

// ---- judging and comparing

TEST(Judge, AgreesWithFittingTheBagForReal) {
  for (const auto& v : judge_shelf(demo_build(), demo_shelf(), End::rear, 2)) {
    const Assessment a = assess(typed("variants.0.rear.bag", v.bag), demo_shelf());
    const auto& preset = a.end(End::rear).presets[1];
    ASSERT_EQ(v.frequency.has_value(), preset->cases[2].has_value()) << v.bag;
    if (v.frequency) {
      EXPECT_NEAR(*v.frequency, *preset->cases[2]->frequency, 1e-9) << v.bag;
    }
    const auto& reach = a.end(End::rear).windows.reach;
    if (v.fit == Fit::fits) {
      ASSERT_TRUE(reach && a.end(End::rear).windows.road) << v.bag;
      EXPECT_NEAR(v.road->second, a.end(End::rear).windows.road->high.height, 1e-6)
          << v.bag << ": it fits in every case, so every case agrees";
      EXPECT_TRUE(v.reasons.empty());
    } else {
      EXPECT_FALSE(v.reasons.empty()) << v.bag << " says why not";
    }
  }
}

TEST(Judge, SortsAsWanted) {
  auto v = judge_shelf(demo_build(), demo_shelf(), End::front, 0);
  ASSERT_EQ(v.size(), demo_shelf().bags.size());
  sort_verdicts(v, BagOrder::frequency);
  for (std::size_t i = 1; i < v.size(); ++i)
    EXPECT_TRUE(!v[i].frequency || *v[i - 1].frequency <= *v[i].frequency);
  sort_verdicts(v, BagOrder::best);
  EXPECT_EQ(v.front().fit, Fit::fits);
  for (std::size_t i = 1; i < v.size(); ++i)
    EXPECT_LE(v[i - 1].fit, v[i].fit);
  sort_verdicts(v, BagOrder::diameter);
  for (std::size_t i = 1; i < v.size(); ++i)
    EXPECT_LE(v[i - 1].diameter, v[i].diameter);
  EXPECT_TRUE(judge_shelf(build::empty_build(), demo_shelf(), End::front, 0).empty());
}

TEST(Compare, ShowsWhatDiffersAndNothingElse) {
  const Comparison c = compare(demo_build(), demo_shelf(), 0, 1, 2, {});
  ASSERT_EQ(c.choices.size(), 2U);
  EXPECT_EQ(c.choices[0].path, "front.bag");
  EXPECT_EQ(c.choices[0].b, "Fennick R-134");
  EXPECT_GT(c.stops[0], c.stops[1]);
  build::Build joined = demo_build();
  joined.variants[1] = joined.variants[0];
  joined.variants[1].fit[1].sides = build::Sides::joined;
  joined.variants[1].fit[1].damper_curve.pop_back();
  const Comparison deep = compare(joined, demo_shelf(), 0, 1, 2, {});
  std::vector<std::string> paths;
  for (const auto& choice : deep.choices)
    paths.push_back(choice.path);
  EXPECT_EQ(paths, (std::vector<std::string>{"rear.sides", "rear.damper_curve.2.speed_m_per_s",
                                             "rear.damper_curve.2.bump_n", "rear.damper_curve.2.rebound_n"}));
  const auto same = compare(demo_build(), demo_shelf(), 0, 0, 2, {});
  EXPECT_TRUE(same.choices.empty());
  for (const auto& f : same.figures)
    EXPECT_FALSE(f.differs());
  const Assessment alone = assess(demo_build(), demo_shelf());
  EXPECT_DOUBLE_EQ(*c.figures[0].a, alone.end(End::front).windows.reach->low.height);
}

TEST(Wishes, GoBothWays) {
  const auto loads = case_loads(demo_build());
  const EndModel model = end_model(demo_build(), End::front);
  for (const auto as : {build::HeightWish::As::height, build::HeightWish::As::gap, build::HeightWish::As::drop}) {
    const auto wish = wish_for_height(0.35, {as, 0, {}}, model.surveyed_height, model.tyre_radius);
    EXPECT_EQ(wish.as, as);
    EXPECT_NEAR(*wished_height(wish, model), 0.35, 1e-12);
  }
}

} // namespace
} // namespace mavrel::assess
