// Doubt carried to the answers: closed forms on straight lines, repeats, what is shared, the same figures on any number
// of threads, and bands that hold what is true.
#include "assess/assess.h"
#include "assess/doubt/doubt_findings.h"
#include "assess/end/fitted_end.h"
#include "assess/fit_up/cars.h"
#include "assess/sampling/doubted.h"
#include "control/road.h"

#include <cmath>
#include <numeric>

namespace mavrel::assess {
namespace {

/// Readings that an answer is a straight line of.
std::vector<DoubtInput> three_readings() {
  std::vector<DoubtInput> out(3);
  out[0].path = "a", out[0].own = 1.5;
  out[1].path = "b", out[1].own = 0.5, out[1].shared = 2, out[1].shared_with = "scale";
  out[2].path = "c", out[2].own = 1, out[2].shared = -1, out[2].shared_with = "scale";
  for (DoubtInput& in : out)
    in.again = in.own / std::sqrt(2), in.minutes = 2;
  return out;
}
DoubtAnswer line_of(const std::vector<DoubtInput>& inputs, const std::vector<double>& slopes, std::size_t draws,
                    std::uint64_t seed = 1) {
  const DoubtDraws made(inputs, draws, seed);
  std::vector<std::vector<std::optional<double>>> values;
  for (std::size_t i = 0; i < draws; ++i) {
    const auto off = made.off(i);
    double y = 7;
    for (std::size_t k = 0; k < slopes.size(); ++k)
      y += slopes[k] * off[k];
    values.push_back({y});
  }
  std::vector<DoubtAnswer> answers(1);
  look_at_draws(values, made, inputs, answers);
  return answers.front();
}

TEST(Doubt, OfAStraightLineIsTheClosedForm) {
  const auto inputs = three_readings();
  const std::vector<double> slopes = {1, -2, 3};
  const DoubtAnswer got = line_of(inputs, slopes, 4000);
  // Own parts add as squares; what is shared adds first.
  const double shared = -2 * 2.0 + 3 * -1.0;
  const double variance = 1.5 * 1.5 + std::pow(2 * 0.5, 2) + std::pow(3 * 1.0, 2) + shared * shared;
  const double sd = std::sqrt(variance);
  EXPECT_NEAR(got.sd, sd, 0.02 * sd);
  EXPECT_NEAR(got.mean, 7, 0.02 * sd);
  EXPECT_NEAR(got.p50, 7, 0.03 * sd);
  EXPECT_NEAR(got.p05, 7 - 1.6449 * sd, 0.03 * sd);
  EXPECT_NEAR(got.p95, 7 + 1.6449 * sd, 0.03 * sd);
  double sum = 0;
  for (const auto& c : got.carried_by) {
    sum += c.share;
    if (inputs[c.input].path == "a") {
      EXPECT_NEAR(c.share, 1.5 * 1.5 / variance, 0.02);
    }
    // Its own 9 and a third of what the scale carries.
    if (inputs[c.input].path == "c") {
      EXPECT_NEAR(c.share, (9 + shared * shared / 3) / variance, 0.02);
    }
  }
  EXPECT_NEAR(sum, 1, 1e-12);
}

TEST(Doubt, RandomLinesAreTheClosedForm) {
  EXPECT_TRUE(rc::check("sd to 2 % at 4,000 draws", [] {
    const auto count = *rc::gen::inRange<std::size_t>(1, 30);
    std::vector<DoubtInput> inputs(count);
    std::vector<double> slopes;
    double variance = 0;
    for (DoubtInput& in : inputs) {
      in.own = test::between(0.1, 3);
      slopes.push_back(test::between(-2, 2));
      variance += std::pow(in.own * slopes.back(), 2);
    }
    RC_PRE(variance > 1e-3);
    const DoubtAnswer got = line_of(inputs, slopes, 4000, *rc::gen::inRange<std::uint64_t>(0, 1000));
    RC_ASSERT(std::abs(got.sd / std::sqrt(variance) - 1) < 0.02);
    double sum = 0;
    for (const auto& c : got.carried_by)
      sum += c.share;
    RC_ASSERT(std::abs(sum - 1) < 1e-9);
  }));
}

TEST(Doubt, IsTheSameOnAnyNumberOfThreads) {
  const DoubtGiven given{test::demo_whole(), test::demo_shelf(), 40, 3};
  const auto one = doubt(given, {{}, 1, {}, {}}), four = doubt(given, {{}, 4, {}, {}});
  ASSERT_EQ(one->answers.size(), four->answers.size());
  for (std::size_t a = 0; a < one->answers.size(); ++a) {
    EXPECT_EQ(one->answers[a].sd, four->answers[a].sd) << one->answers[a].name;
    EXPECT_EQ(one->answers[a].p05, four->answers[a].p05);
    EXPECT_EQ(one->answers[a].odds_inside, four->answers[a].odds_inside);
  }
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(doubt(given, {stop, 2, {}, {}}));
  // In threads that were got ready first, with word of how far it is.
  std::atomic<int> begun = 0;
  double last = 0;
  bool falls = false;
  const auto told = doubt(given, {{},
                                  2,
                                  [&] { ++begun; },
                                  [&](double done) {
                                    falls = falls || done < last;
                                    last = done;
                                  }});
  EXPECT_EQ(begun, 2);
  EXPECT_FALSE(falls);
  EXPECT_EQ(last, 1);
  EXPECT_EQ(told->answers.front().sd, one->answers.front().sd);
}

TEST(Doubt, TheMiddleOfTheDrawsIsThePlainAnswer) {
  const auto got = doubt({test::demo_whole(), test::demo_shelf(), 300, 1});
  int smooth = 0;
  for (const DoubtAnswer& a : got->answers) {
    if (!a.value || a.vanished > 0.02) continue;
    EXPECT_LE(a.p05, a.p50);
    EXPECT_LE(a.p50, a.p95);
    // An edge where two limits take turns is lower on the average than either: pressures are smooth.
    if (a.name.find("pressure") == std::string::npos) continue;
    ++smooth;
    EXPECT_NEAR(a.p50, *a.value, 0.25 * a.sd) << a.name;
    EXPECT_GT(a.sd, 0.01 * *a.value) << a.name << " is surer than its bag's card";
    double sum = 0;
    for (const auto& c : a.carried_by)
      sum += c.share;
    EXPECT_NEAR(sum, 1, 1e-9);
  }
  EXPECT_GE(smooth, 4);
}

/// The demo car without its air kit: nothing is simulated.
build::Build demo_without_kit() {
  build::Build out = test::demo_whole();
  out.variant().air = {};
  return out;
}

TEST(Doubt, BandsHoldWhatIsTrueInAboutNineCarsOfTen) {
  // Cars that were measured with known errors: the demo car is the truth, what was read of it lies off.
  const build::Build truth = demo_without_kit();
  const auto right = doubt({truth, test::demo_shelf(), 20, 1});
  const auto inputs = doubt_inputs(truth, test::demo_shelf());
  constexpr std::size_t cars = 40;
  const DoubtDraws errors(inputs, cars, 99);
  int held = 0, asked = 0;
  for (std::size_t i = 0; i < cars; ++i) {
    std::vector<double> off = errors.off(i);
    for (std::size_t k = 0; k < off.size(); ++k) // what nobody read is not misread
      if (inputs[k].what != Doubted::reading) off[k] = 0;
    DrawnCar measured = drawn_car(truth, inputs, off);
    measured.build.doubts.card = 0; // the cards are right
    const auto got = doubt({measured.build, test::demo_shelf(), 60, 7 + i});
    for (const char* name : {"front.preset.1.pressure", "rear.preset.1.pressure", "front.preset.1.frequency",
                             "rear.preset.1.frequency", "front.reach.low", "rear.reach.low"}) {
      const DoubtAnswer *a = got->find(name), *b = right->find(name);
      if (!a || !b || !b->value || a->vanished > 0.1) continue;
      ++asked;
      held += *b->value >= a->p05 && *b->value <= a->p95;
    }
  }
  ASSERT_GE(asked, 200);
  EXPECT_GE(held, 0.85 * asked);
  EXPECT_LE(held, 0.95 * asked);
}

/// The demo car without what bends its map: one ratio and lengths as somebody reads them at one height.
build::Build read_at_one_height(const build::Build& truth, bool ratio, std::uint64_t seed) {
  control::Chance chance(seed);
  build::Build out = truth;
  for (const End end : build::both_ends) {
    const FittedEnd fitted = fitted_end(truth, test::demo_shelf(), end);
    const double H = *fitted.model.surveyed_height;
    const auto at = fitted.model.map->at(H);
    const auto damper = fitted.model.map->damper(H);
    build::EndSurvey& survey = out.end(end);
    survey.cycle = {}, survey.cycle_right = {};
    survey.points.own() = {};
    survey.spring_length.values = {at.spring_length + 0.0015 * chance.normal()};
    survey.damper_length.values = {damper.value + 0.0015 * chance.normal()};
    survey.motion_ratio.values.clear(), survey.damper_ratio.values.clear();
    if (!ratio) continue;
    survey.motion_ratio.values = {at.motion_ratio * (1 + 0.03 * chance.normal())};
    if (survey.spring_place == build::SpringPlace::apart)
      survey.damper_ratio.values = {damper.slope * (1 + 0.03 * chance.normal())};
  }
  return out;
}

/// How many figures of cars of which little was read lie within their bands, and of how many.
/// @param counts  is this figure's band said to hold?
std::pair<int, int> held_where_little_was_read(const build::Build& truth, bool ratio, std::uint64_t cars,
                                               const std::function<bool(const std::string&)>& counts) {
  const auto right = doubt({truth, test::demo_shelf(), 20, 1});
  int held = 0, asked = 0;
  for (std::uint64_t i = 0; i < cars; ++i) {
    const auto got = doubt({read_at_one_height(truth, ratio, 50 + i), test::demo_shelf(), 60, 7 + i});
    for (const char* name :
         {"front.preset.1.pressure", "rear.preset.1.pressure", "front.preset.1.frequency", "rear.preset.1.frequency",
          "front.reach.low", "rear.reach.low", "front.reach.high", "rear.reach.high"}) {
      const DoubtAnswer *a = got->find(name), *b = right->find(name);
      if (!a || !b || !b->value || a->vanished > 0.1 || !counts(name)) continue;
      ++asked;
      held += *b->value >= a->p05 && *b->value <= a->p95;
    }
  }
  return {held, asked};
}

TEST(Doubt, BandsHoldAlsoWhereLittleWasRead) {
  build::Build truth = demo_without_kit();
  build::EndSurvey& rear = truth.end(End::rear); // its odd row is no truth
  const List<build::CycleRow> rows = rear.cycle;
  rear.cycle = {};
  for (const build::CycleRow& row : rows)
    if (std::abs(row.height - 0.408) > 1e-6) rear.cycle.push_back(row);
  for (const bool ratio : {true, false}) {
    const auto [held, asked] = held_where_little_was_read(truth, ratio, 12, [](const std::string&) { return true; });
    ASSERT_GE(asked, 70) << ratio;
    EXPECT_GE(held, 0.8 * asked) << ratio;
  }
}

TEST(Doubt, OfACarWithoutItsJointsHoldsOrSaysWhatWasNotLookedAt) {
  // The pickup's reach ends where its tyre or bag meets its own arms. Without joints nobody can know that: it is said.
  build::Build truth = test::pickup_with_joints();
  truth.variant().air = {};
  for (const bool ratio : {true, false}) {
    const auto little = doubt({read_at_one_height(truth, ratio, 50), test::demo_shelf(), 20, 1});
    for (const char* end : {"Front", "Rear"})
      EXPECT_TRUE(std::any_of(little->trouble.begin(), little->trouble.end(), [&](const Message& m) {
        const std::string text = say(m);
        return text.starts_with(end) && text.find("was not measured") != std::string::npos;
      })) << end;
    const auto [held, asked] = held_where_little_was_read(
        truth, ratio, 12, [](const std::string& name) { return name.find("reach") == std::string::npos; });
    ASSERT_GE(asked, 40) << ratio;
    EXPECT_GE(held, 0.85 * asked) << ratio;
  }
}

TEST(DoubtInputs, WhatStandsInLiesOffFurtherThanAReading) {
  build::Build b = demo_without_kit();
  for (build::EndSurvey& end : b.ends) {
    end.cycle = {}, end.points.own() = {};
    end.motion_ratio.values.clear(), end.tyre_rate.reset(), end.unsprung_mass.reset();
  }
  const auto inputs = doubt_inputs(b, test::demo_shelf());
  const auto of = [&](const char* path, Doubted what) {
    return std::find_if(inputs.begin(), inputs.end(),
                        [&](const DoubtInput& in) { return in.path == path && in.what == what; });
  };
  for (const char* path : {"front.motion_ratio", "rear.motion_ratio", "front.tyre_rate_n_per_m", "front.unsprung_kg"}) {
    const auto in = of(path, Doubted::stand_in);
    ASSERT_NE(in, inputs.end()) << path;
    EXPECT_GT(in->own, 0.04 * in->value) << path;
    EXPECT_FALSE(say(in->name).empty());
  }
  EXPECT_NE(of("front.cycle", Doubted::curvature), inputs.end());
  EXPECT_NE(of("rear.cycle", Doubted::damper_curvature), inputs.end());
  EXPECT_EQ(of("front.cycle", Doubted::damper_curvature), inputs.end()) << "the spring is around the damper there";
  // Put in, it is in the drawn car where it was missing.
  std::vector<double> off(inputs.size(), 0);
  const auto ratio = of("front.motion_ratio", Doubted::stand_in);
  off[static_cast<std::size_t>(ratio - inputs.begin())] = 0.05;
  const auto length = of("front.spring_length_m", Doubted::stand_in);
  if (length != inputs.end()) off[static_cast<std::size_t>(length - inputs.begin())] = 0.001;
  off[static_cast<std::size_t>(of("front.cycle", Doubted::curvature) - inputs.begin())] = 0.2;
  const DrawnCar car = drawn_car(b, inputs, off);
  ASSERT_EQ(car.build.ends[0].motion_ratio.values.size(), 1U);
  EXPECT_NEAR(car.build.ends[0].motion_ratio.values[0], ratio->value + 0.05, 1e-12);
  EXPECT_GE(car.build.ends[0].cycle.size(), 5U) << "a map that bends is a sheet";
}

TEST(DoubtFindings, SayHowLikelyAStopIsAndWhatStandsInDoubt) {
  const build::Build& build = test::demo_whole();
  const auto assessed = assess(build, test::demo_shelf());
  Doubt doubt;
  const auto preset = [&](const char* name, double odds) {
    DoubtAnswer a;
    a.name = name, a.value = 0.3, a.odds_inside = odds;
    doubt.answers.push_back(a);
  };
  const auto stops = [](const Findings& all) {
    return std::count_if(all.begin(), all.end(), [](const Finding& f) { return f.severity == Severity::stop; });
  };
  const auto find = [](const Findings& all, std::string_view code, std::string_view in_place) -> const Finding* {
    for (const Finding& f : all)
      if (f.code == code && f.place.find(in_place) != std::string::npos) return &f;
    return nullptr;
  };
  ASSERT_NE(find(assessed.findings, "preset_outside", "presets.2.front"), nullptr);
  EXPECT_EQ(weighed(assessed.findings, build, doubt), assessed.findings) << "nothing is known of it";
  // A ramp preset that is out in most cars, or only in some; a road preset that stands in most.
  preset("front.preset.2.height", 0.3);
  preset("front.preset.1.height", 0.8);
  preset("rear.preset.1.height", 0.99);
  const Findings likely = weighed(assessed.findings, build, doubt);
  EXPECT_EQ(stops(likely), stops(assessed.findings));
  EXPECT_NE(say(find(likely, "preset_outside", "presets.2.front")->reason).find("30 %"), std::string::npos);
  const Finding* thin = find(likely, "stands_in_doubt", "presets.1.front");
  ASSERT_NE(thin, nullptr);
  EXPECT_EQ(thin->severity, Severity::caution);
  EXPECT_EQ(find(likely, "stands_in_doubt", "rear"), nullptr);
  doubt.answers.front().odds_inside = 0.7;
  EXPECT_EQ(stops(weighed(assessed.findings, build, doubt)), stops(assessed.findings) - 1);
  doubt.answers.front().odds_inside = 0.01;
  EXPECT_EQ(find(weighed(assessed.findings, build, doubt), "preset_outside", "presets.2.front")->reason,
            find(assessed.findings, "preset_outside", "presets.2.front")->reason);
}

TEST(DoubtFindings, TellReservesThatAreThinnerThanTheirDoubt) {
  build::Build build = test::demo_whole();
  ASSERT_FALSE(build.variant().brief.grounds.empty());
  const Findings plain;
  const auto weigh = [&](const char* name, double value, double met, bool time = false) {
    Doubt doubt;
    doubt.inputs.resize(1);
    doubt.inputs[0].name = {"the liner’s gap", {}};
    DoubtAnswer a;
    a.name = name, a.value = value, a.sd = 0.4 * value, a.odds_met = met;
    (time ? a.wanted_most : a.wanted_least) = time ? 6 : 0;
    a.carried_by = {{0, 1, 0.3, 0.1}};
    doubt.answers.push_back(a);
    return weighed(plain, build, doubt);
  };
  const struct {
    const char *name, *code, *place;
    double value;
    bool time;
  } rows[] = {{"front.preset.0.clearance", "gap_in_doubt", "brief.presets.0.front", 0.006, false},
              {"ground.0.preset.0", "ground_in_doubt", "brief.grounds.0.over", 0.012, false},
              {"air.rise", "time_in_doubt", "brief.air.rise_s", 5.0, true},
              {"air.ready", "time_in_doubt", "brief.air.ready_s", 5.0, true}};
  for (const auto& row : rows) {
    SCOPED_TRACE(row.name);
    const Findings thin = weigh(row.name, row.value, 0.8, row.time);
    ASSERT_EQ(thin.size(), 1U);
    EXPECT_EQ(thin[0].code, row.code);
    EXPECT_EQ(thin[0].severity, Severity::caution);
    EXPECT_NE(thin[0].place.find(row.place), std::string::npos) << thin[0].place;
    EXPECT_NE(say(thin[0].reason).find(row.time ? "80 %" : "20 %"), std::string::npos) << say(thin[0].reason);
    EXPECT_NE(say(thin[0].way_out).find("liner"), std::string::npos);
    EXPECT_TRUE(weigh(row.name, row.value, 0.96, row.time).empty()) << "thick enough";
    // What is not so on paper already is another finding's.
    EXPECT_TRUE(weigh(row.name, row.time ? 7.0 : -0.001, 0.3, row.time).empty());
  }
}

TEST(DoubtFindings, OfALittleGapSayHowLikelyItIsNone) {
  const build::Build& build = test::demo_whole();
  Findings plain(1);
  plain[0].code = "too_near_at_preset", plain[0].severity = Severity::caution, plain[0].end = End::front;
  plain[0].number = metres(0.002), plain[0].reason = {"Little is left.", {}};
  Doubt doubt;
  DoubtAnswer a;
  a.name = "front.preset.0.clearance", a.value = 0.002, a.sd = 0.002, a.odds_met = 0.8;
  doubt.answers.push_back(a);
  const Findings got = weighed(plain, build, doubt);
  ASSERT_EQ(got.size(), 1U) << "one finding, not two of one gap";
  EXPECT_NE(say(got[0].reason).find("20 %"), std::string::npos);
  doubt.answers[0].name = "rear.preset.0.clearance";
  EXPECT_EQ(weighed(plain, build, doubt).size(), 2U) << "that is of the other end";
}

TEST(DoubtFindings, APresetInDoubtNamesWhatItsEdgeHangsOn) {
  const build::Build& build = test::demo_whole();
  Doubt doubt;
  doubt.inputs.resize(2);
  doubt.inputs[0].name = {"the stop’s gap", {}}, doubt.inputs[1].name = {"the bag’s card", {}};
  const auto edge = [&](const char* name, double value, std::size_t input) {
    DoubtAnswer a;
    a.name = name, a.value = value, a.sd = 0.003, a.carried_by = {{input, 1, 0.2, 0.1}};
    doubt.answers.push_back(a);
  };
  edge("front.reach.low", 0.306, 0);
  edge("front.reach.high", 0.420, 1);
  DoubtAnswer parked;
  parked.name = "front.preset.0.height", parked.value = 0.307, parked.odds_inside = 0.6;
  doubt.answers.push_back(parked);
  const Findings got = weighed({}, build, doubt);
  ASSERT_EQ(got.size(), 1U);
  EXPECT_NE(say(got[0].way_out).find("stop’s gap"), std::string::npos) << say(got[0].way_out);
}

TEST(DoubtFindings, AStopOnTheGroundSaysHowLikelyItIs) {
  const build::Build& build = test::demo_whole();
  Findings plain(1);
  plain[0].code = "meets_ground", plain[0].severity = Severity::stop, plain[0].number = metres(-0.004);
  plain[0].place = "variants." + std::to_string(build.active_variant) + ".brief.grounds.0.over";
  plain[0].reason = {"It is too low.", {}};
  Doubt doubt;
  DoubtAnswer a;
  a.name = "ground.0.preset.1", a.value = -0.004, a.sd = 0.006, a.odds_met = 0.25;
  doubt.answers.push_back(a);
  Findings got = weighed(plain, build, doubt);
  ASSERT_EQ(got.size(), 1U);
  EXPECT_EQ(got[0].severity, Severity::stop);
  EXPECT_NE(say(got[0].reason).find("25 %"), std::string::npos);
  doubt.answers[0].odds_met = 0.6;
  EXPECT_EQ(weighed(plain, build, doubt)[0].severity, Severity::caution);
  doubt.answers[0].odds_met = 0.02;
  EXPECT_EQ(weighed(plain, build, doubt), plain);
  doubt.answers[0].value = 0.02;
  doubt.answers[0].odds_met = 0.6;
  EXPECT_EQ(weighed(plain, build, doubt)[0].severity, Severity::stop) << "that is another preset's";
}

TEST(Doubt, KnowsHowLikelyWhatIsWantedIs) {
  build::Build build = test::demo_whole();
  const auto odds = [&] {
    const auto got = doubt({build, test::demo_shelf(), 60, 1});
    const DoubtAnswer* a = got->find("air.rise");
    return a && a->odds_met ? *a->odds_met : -1;
  };
  const auto got = doubt({build, test::demo_shelf(), 60, 1});
  const DoubtAnswer* rise = got->find("air.rise");
  ASSERT_TRUE(rise && rise->value);
  build.variant().brief.air.rise = 10 * *rise->value;
  EXPECT_EQ(odds(), 1);
  build.variant().brief.air.rise = rise->p50;
  EXPECT_NEAR(odds(), 0.5, 0.1);
  build.variant().brief.air.rise = 0.2 * *rise->value;
  EXPECT_EQ(odds(), 0);
  for (const DoubtAnswer& a : got->answers) {
    if (!a.wanted_least || !a.odds_met || a.vanished > 0) continue;
    if (a.p05 > 0) {
      EXPECT_GE(*a.odds_met, 0.95 - 0.02) << a.name;
    }
    if (a.p95 < 0) {
      EXPECT_LE(*a.odds_met, 0.05 + 0.02) << a.name;
    }
  }
}

TEST(Doubt, OfReadingsThatCantBeStaysAFigure) {
  const build::Build build = demo_without_kit();
  const std::vector<double> off(doubt_inputs(build, test::demo_shelf()).size(), -3.0); // nothing of it can be
  const Doubt got = *doubt({moved(build, off), test::demo_shelf(), 20, 1});
  for (const DoubtAnswer& a : got.answers)
    EXPECT_TRUE(std::isfinite(a.sd) && std::isfinite(a.p05) && std::isfinite(a.p95)) << a.name;
}

TEST(Doubt, IsAnotherQuestionWithAnotherPartOnTheShelf) {
  const DoubtGiven given{test::demo_whole(), test::demo_shelf(), 20, 1};
  DoubtGiven other = given;
  EXPECT_TRUE(given == other);
  ASSERT_FALSE(other.shelf.parts.empty());
  other.shelf.parts[0].part.price = 12345;
  EXPECT_FALSE(given == other) << "what a card says of it may have changed";
}

TEST(Doubt, AsReadTheAirIsWhatAirSays) {
  // Parked lower than it can stand: it lies on its stops, and gets up from there in every drawn car as Air says.
  build::Build build = test::demo_whole();
  for (build::Preset& preset : build.variant().brief.presets)
    if (preset.use == build::PresetUse::parked) {
      preset.parked = build::ParkedHow::held; // aired out it lies on its stops whatever is wished
      preset.wish[0] = build::HeightWish{build::HeightWish::As::height, 0.28, {}};
    }
  const auto got = doubt({build, test::demo_shelf(), 40, 1});
  const DoubtAnswer* rise = got->find("air.rise");
  if (rise) {
    EXPECT_TRUE(rise->value);
    EXPECT_LT(rise->vanished, 1) << "a car that rests on its stops gets up all the same";
  }
  EXPECT_NE(rise, nullptr);
}

TEST(Doubt, NamesTheLimitsWithTheirs) {
  const Doubt got = *doubt({demo_without_kit(), test::demo_shelf(), 60, 1});
  const DoubtAnswer *stop = got.find("front.limit.bump_stop.below"), *low = got.find("front.reach.low");
  ASSERT_TRUE(stop && low && stop->value && low->value);
  EXPECT_NEAR(*stop->value, *low->value, 1e-9) << "the stop governs below";
  EXPECT_GE(low->mean, stop->mean - 1e-9) << "and where something else does, it lies higher";
  EXPECT_GT(stop->sd, 0);
  for (const Message& m : got.trouble)
    EXPECT_EQ(say(m).find("below"), std::string::npos) << "a limit that lies beyond what is known is no trouble";
}

TEST(Doubt, IsSaidPlainlyWhereItIsAllThereIs) {
  build::Build build = test::demo_whole();
  build.doubts.tape = 0.05;
  const auto wild = doubt({build, test::demo_shelf(), 40, 1});
  bool vanishes = false, larger = false;
  for (const Message& m : wild->trouble) {
    vanishes = vanishes || say(m).find("there is none") != std::string::npos;
    larger = larger || say(m).find("larger than what was read") != std::string::npos;
  }
  EXPECT_TRUE(vanishes);
  EXPECT_TRUE(larger);
  build = test::doubted(test::demo_whole(), 0);
  const auto sure = doubt({build, test::demo_shelf(), 20, 1});
  for (const DoubtInput& in : sure->inputs)
    EXPECT_EQ(in.sd(), 0) << in.path;
  for (const DoubtAnswer& a : sure->answers)
    EXPECT_EQ(a.sd, 0) << a.name;
  ASSERT_FALSE(sure->trouble.empty());
  EXPECT_NE(say(sure->trouble.front()).find("without doubt"), std::string::npos);
  const auto nothing = doubt({build::empty_build(), test::demo_shelf(), 20, 1});
  EXPECT_FALSE(nothing->trouble.empty());
}

} // namespace
} // namespace mavrel::assess
