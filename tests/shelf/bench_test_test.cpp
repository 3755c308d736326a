#include "shelf/bench_test.h"

#include "air/bag.h"
#include "support.h"

namespace mavrel::shelf {
namespace {

/// Readings as a press would give them of a bag whose card is known.
std::vector<BenchReading> readings_of(const air::BagCard& card, const std::vector<double>& heights,
                                      const std::vector<double>& bars, double noise = 0) {
  const air::BagCurve curve(card);
  std::vector<BenchReading> out;
  for (const double h : heights)
    for (const double bar : bars) {
      const double wobble = 1 + noise * ((out.size() % 2 == 0) ? 1 : -1);
      out.push_back({h, air::bag_force(curve.section(h), bar * 1e5).force * wobble, bar * 1e5, {}});
    }
  out.front().volume = curve.section(out.front().height).volume;
  return out;
}

const air::BagCard& known() {
  return test::demo_shelf().find("Osier O-135")->card;
}

TEST(BenchTest, FindsTheBagBackFromAFewReadings) {
  const auto answer = fit_bench_test(readings_of(known(), {0.065, 0.1, 0.135, 0.17, 0.212}, {2, 5, 8}), known());
  ASSERT_TRUE(answer.fit && answer.fit->card);
  EXPECT_LT(answer.fit->rms, 0.005);
  EXPECT_TRUE(answer.wanted.empty());
  const air::BagCurve fitted(*answer.fit->card), real(known());
  for (double h = 0.07; h < 0.21; h += 0.01) {
    EXPECT_NEAR(air::bag_force(fitted.section(h), 4e5).force / air::bag_force(real.section(h), 4e5).force, 1, 0.01)
        << h;
    EXPECT_NEAR(fitted.section(h).volume / real.section(h).volume, 1, 0.05) << h;
  }
}

TEST(BenchTest, NoiseIsShownAsError) {
  const auto clean = fit_bench_test(readings_of(known(), {0.065, 0.1, 0.135, 0.17, 0.212}, {2, 5, 8}), known());
  const auto noisy = fit_bench_test(readings_of(known(), {0.065, 0.1, 0.135, 0.17, 0.212}, {2, 5, 8}, 0.02), known());
  EXPECT_GT(noisy.fit->rms, clean.fit->rms + 0.005);
}

TEST(BenchTest, AMisreadLoadIsAskedForAgain) {
  auto readings = readings_of(known(), {0.065, 0.1, 0.135, 0.17, 0.212}, {2, 5, 8});
  readings[7].load *= 1.25;
  const auto answer = fit_bench_test(readings, known());
  ASSERT_TRUE(answer.fit);
  EXPECT_EQ(answer.fit->worst_reading, 7U);
  EXPECT_NE(say(answer.wanted.front()).find("Reading 8 again"), std::string::npos);
}

TEST(BenchTest, AsksForWhatIsMissing) {
  const auto wanted = [](std::vector<BenchReading> readings) {
    std::string out;
    for (const Message& m : fit_bench_test(readings, known()).wanted)
      out += say(m) + "\n";
    return out;
  };
  EXPECT_NE(wanted({}).find("three heights"), std::string::npos);
  auto one_pressure = readings_of(known(), {0.07, 0.12, 0.16, 0.21}, {4});
  EXPECT_NE(wanted(one_pressure).find("another pressure"), std::string::npos);
  auto low_only = readings_of(known(), {0.07, 0.09, 0.11}, {2, 6});
  EXPECT_NE(wanted(low_only).find("A reading near"), std::string::npos);
  auto dry = readings_of(known(), {0.07, 0.12, 0.16, 0.21}, {2, 6});
  dry.front().volume.reset();
  EXPECT_NE(wanted(dry).find("1 kg is 1 l"), std::string::npos);
  EXPECT_FALSE(fit_bench_test(dry, known()).fit->card);
  auto wrong = dry;
  wrong[2].load = -5;
  EXPECT_NE(wanted(wrong).find("Reading 3"), std::string::npos);
}

TEST(BenchTest, NeverACardThatIsNoBag) {
  EXPECT_TRUE(rc::check("random readings", [] {
    std::vector<BenchReading> readings;
    const int n = *rc::gen::inRange(0, 12);
    for (int i = 0; i < n; ++i)
      readings.push_back(
          {test::between(0.05, 0.3), test::between(10, 20000), test::between(1e4, 1e6), test::between(1e-4, 5e-3)});
    const auto answer = fit_bench_test(readings, known());
    if (!answer.fit || !answer.fit->card) return;
    const auto& card = *answer.fit->card;
    for (std::size_t i = 0; i < card.heights.size(); ++i) {
      RC_ASSERT(std::isfinite(card.volumes[i]) && card.volumes[i] > 0);
      for (const auto& column : card.loads)
        RC_ASSERT(std::isfinite(column[i]) && column[i] > 0);
    }
  }));
}

} // namespace
} // namespace mavrel::shelf
