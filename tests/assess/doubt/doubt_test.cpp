// Doubt carried to the answers: closed forms on straight lines, repeats, what is shared, the same figures on any number
// of threads, and bands that hold what is true.
#include "assess/assess.h"
#include "assess/doubt/doubt_findings.h"
#include "assess/fit_up/cars.h"

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
  rc::check("sd to 2 % at 4,000 draws", [] {
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
  });
}

TEST(Doubt, OfAMeanShrinksWithItsReadings) {
  EXPECT_DOUBLE_EQ(doubt_of_mean({0.4}, 0.002), 0.002) << "one reading says nothing of its spread";
  // Many alternating readings: the spread is known, and √n comes out.
  const auto of = [](std::size_t n) {
    std::vector<double> readings;
    for (std::size_t i = 0; i < n; ++i)
      readings.push_back(i % 2 ? 0.401 : 0.399);
    return doubt_of_mean(readings, 0.0015);
  };
  EXPECT_NEAR(of(160) / of(40), 0.5, 0.015);
  EXPECT_NEAR(of(40), 0.001 * std::sqrt(40.0 / 39) / std::sqrt(40), 2e-5);
  // Two readings alike are no proof: at least a fifth of the tool's own over √2.
  EXPECT_NEAR(doubt_of_mean({0.4, 0.4}, 0.0015), 0.0003 / std::sqrt(2), 1e-12);
  // Of two, Student's factor stands in for what nobody knows.
  EXPECT_GT(doubt_of_mean({0.399, 0.401}, 0.0015), 0.0014 * 1.7 / std::sqrt(2));
}

TEST(Doubt, DrawsAreEvenNormalAndTheirSeedsOwn) {
  const NormalDraws a(2000, 40, 5), b(2000, 40, 5), other(2000, 40, 6);
  double worst_mean = 0, worst_sd = 0;
  bool differs = false;
  for (std::size_t d = 0; d < 40; ++d) {
    double sum = 0, squares = 0;
    for (std::size_t i = 0; i < 2000; ++i) {
      EXPECT_EQ(a.row(i)[d], b.row(i)[d]);
      differs = differs || a.row(i)[d] != other.row(i)[d];
      sum += a.row(i)[d], squares += a.row(i)[d] * a.row(i)[d];
    }
    worst_mean = std::max(worst_mean, std::abs(sum / 2000));
    worst_sd = std::max(worst_sd, std::abs(std::sqrt(squares / 2000) - 1));
  }
  EXPECT_TRUE(differs);
  EXPECT_LT(worst_mean, 0.01) << "chance alone would be off by 0.02 and more";
  EXPECT_LT(worst_sd, 0.02);
}

TEST(DoubtInputs, AreTheReadingsOfTheBuildByTheirTools) {
  build::Build build = test::demo_whole();
  const auto inputs = doubt_inputs(build);
  const auto find = [&](std::string_view path) -> const DoubtInput* {
    for (const DoubtInput& in : inputs)
      if (in.path == path) return &in;
    return nullptr;
  };
  const DoubtInput* height = find("front.left.height_m");
  ASSERT_NE(height, nullptr);
  EXPECT_EQ(height->tool, Tool::tape);
  EXPECT_GT(height->own, 0);
  const DoubtInput* mass = find("rear.right.mass_kg");
  ASSERT_NE(mass, nullptr);
  EXPECT_EQ(mass->shared_with, "scale");
  EXPECT_NE(find("front.bag_card"), nullptr);
  EXPECT_FALSE(say(height->name).empty());
  // What it is moved by lands there and nowhere else.
  std::vector<double> off(inputs.size() - 2, 0.0);
  off[static_cast<std::size_t>(height - inputs.data())] = 0.003;
  const build::Build other = moved(build, off);
  EXPECT_NEAR(other.end(build::End::front).corners[0].height.values[0],
              build.end(build::End::front).corners[0].height.values[0] + 0.003, 1e-12);
  EXPECT_EQ(other.end(build::End::rear), build.end(build::End::rear));
  EXPECT_EQ(moved(build, std::vector<double>(inputs.size() - 2, 0.0)), build);
  // A figure of another car is less sure, and the tool's doubt is set in one place.
  build.doubts.tape = 0.004;
  const auto coarser = doubt_inputs(build);
  bool more = false;
  for (std::size_t i = 0; i < inputs.size(); ++i)
    more = more || (inputs[i].tool == Tool::tape && inputs[i].count == 1 && coarser[i].own > 2 * inputs[i].own);
  EXPECT_TRUE(more);
}

TEST(DoubtInputs, WhatNobodyCouldReadIsFoldedBack) {
  const build::Build build = test::demo_whole();
  const auto inputs = doubt_inputs(build);
  std::vector<double> off(inputs.size() - 2, 0.0);
  std::size_t gap = 0;
  while (inputs[gap].path != "front.bump_stop_gap_m")
    ++gap;
  off[gap] = -inputs[gap].value - 0.002; // two millimetres less than nothing
  const build::Build other = moved(build, off);
  EXPECT_NEAR(other.end(build::End::front).bump_stop_gap.values.front(), 0.002, 1e-9);
  for (double& o : off)
    o = -3; // nothing of it can be
  const Doubt got = *doubt({moved(build, off), test::demo_shelf(), 20, 1}, nullptr);
  for (const DoubtAnswer& a : got.answers)
    EXPECT_TRUE(std::isfinite(a.sd) && std::isfinite(a.p05) && std::isfinite(a.p95)) << a.name;
}

TEST(Doubt, IsTheSameOnAnyNumberOfThreads) {
  const DoubtGiven given{test::demo_whole(), test::demo_shelf(), 40, 3};
  const auto one = doubt(given, nullptr, 1), four = doubt(given, nullptr, 4);
  ASSERT_EQ(one->answers.size(), four->answers.size());
  for (std::size_t a = 0; a < one->answers.size(); ++a) {
    EXPECT_EQ(one->answers[a].sd, four->answers[a].sd) << one->answers[a].name;
    EXPECT_EQ(one->answers[a].p05, four->answers[a].p05);
    EXPECT_EQ(one->answers[a].odds_inside, four->answers[a].odds_inside);
  }
  std::atomic<bool> stop = true;
  EXPECT_FALSE(doubt(given, &stop));
}

TEST(Doubt, TheMiddleOfTheDrawsIsThePlainAnswer) {
  const auto got = doubt({test::demo_whole(), test::demo_shelf(), 300, 1}, nullptr);
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

TEST(Doubt, BandsHoldWhatIsTrueInAboutNineCarsOfTen) {
  // Cars that were measured with known errors: the demo car is the truth, what was read of it lies off.
  const build::Build& truth = test::demo_build();
  const DoubtGiven plain{truth, test::demo_shelf(), 20, 1};
  const auto right = doubt(plain, nullptr);
  const auto inputs = doubt_inputs(truth);
  std::size_t cards = 0;
  for (const DoubtInput& in : inputs)
    cards += in.tool == Tool::card;
  constexpr std::size_t cars = 50;
  const DoubtDraws errors(inputs, cars, 99);
  int held = 0, asked = 0;
  for (std::size_t i = 0; i < cars; ++i) {
    auto off = errors.off(i);
    off.resize(off.size() - cards); // the cards are right
    build::Build measured = moved(truth, off);
    measured.doubts.card = 0;
    const auto got = doubt({measured, test::demo_shelf(), 80, 7 + i}, nullptr);
    for (const char* name : {"front.preset.1.pressure", "rear.preset.1.pressure"}) {
      const DoubtAnswer *a = got->find(name), *b = right->find(name);
      if (!a || !b || !b->value || a->vanished > 0.1) continue;
      ++asked;
      held += *b->value >= a->p05 && *b->value <= a->p95;
    }
  }
  ASSERT_GE(asked, 80);
  EXPECT_GE(held, 0.82 * asked);
  EXPECT_LE(held, 0.97 * asked);
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

TEST(Doubt, IsSaidPlainlyWhereItIsAllThereIs) {
  build::Build build = test::demo_whole();
  build.doubts.tape = 0.05;
  const auto wild = doubt({build, test::demo_shelf(), 40, 1}, nullptr);
  bool vanishes = false, larger = false;
  for (const Message& m : wild->trouble) {
    vanishes = vanishes || say(m).find("there is none") != std::string::npos;
    larger = larger || say(m).find("larger than what was read") != std::string::npos;
  }
  EXPECT_TRUE(vanishes);
  EXPECT_TRUE(larger);
  const auto nothing = doubt({build::empty_build(), test::demo_shelf(), 20, 1}, nullptr);
  EXPECT_FALSE(nothing->trouble.empty());
}

} // namespace
} // namespace mavrel::assess
