#include "curve/learning.h"

#include <rapidcheck/gtest.h>

#include <cmath>
#include <random>

namespace mavrel::curve {
namespace {

TEST(Learning, WithNothingObservedThePriorsStay) {
  const auto out = learn([](const std::vector<double>&) { return std::vector<double>{}; }, {}, {{2, 0.5}, {-1, 0.1}});
  ASSERT_TRUE(out);
  EXPECT_EQ(out->mean, (std::vector<double>{2, -1}));
  EXPECT_NEAR(out->sd[0], 0.5, 1e-12);
  EXPECT_NEAR(out->sd[1], 0.1, 1e-12);
}

TEST(Learning, OneFigureReadStraightIsTheWeightedMeanOfBoth) {
  const auto out =
      learn([](const std::vector<double>& x) { return std::vector<double>{x[0]}; }, {{3, 0.2}}, {{2, 0.4}});
  ASSERT_TRUE(out);
  const double w = 1 / 0.04, v = 1 / 0.16;
  EXPECT_NEAR(out->mean[0], (3 * w + 2 * v) / (w + v), 1e-6);
  EXPECT_NEAR(out->sd[0], 1 / std::sqrt(w + v), 1e-6);
  EXPECT_DOUBLE_EQ(out->before[0], 2);
}

TEST(Learning, WhatOnlyEntersAsAProductIsNotToldApart) {
  const auto out = learn([](const std::vector<double>& x) { return std::vector<double>{std::exp(x[0] + x[1])}; },
                         {{std::exp(0.1), 0.001}}, {{0, 0.05}, {0, 0.05}});
  ASSERT_TRUE(out);
  EXPECT_NEAR(out->mean[0], 0.05, 1e-3); // shared as the doubts are
  EXPECT_NEAR(out->mean[1], 0.05, 1e-3);
  EXPECT_LT(out->together[0][1], -0.95);
  EXPECT_GT(out->sd[0], 0.03);
}

TEST(Learning, AModelWithoutAnAnswerIsSaid) {
  EXPECT_FALSE(
      learn([](const std::vector<double>&) { return std::optional<std::vector<double>>(); }, {{1, 1}}, {{0, 1}}));
}

RC_GTEST_PROP(Learning, PlantedFiguresOfASlightlyBentModelAreFoundWithinTheirDoubt, (std::uint16_t seed)) {
  std::mt19937 chance(seed);
  std::normal_distribution<double> normal;
  const std::vector<Prior> priors{{1, 0.2}, {0.5, 0.3}, {-2, 0.5}};
  std::vector<double> truth;
  for (const Prior& p : priors)
    truth.push_back(p.mean + p.sd * std::clamp(normal(chance), -2.0, 2.0));
  const auto at = [](const std::vector<double>& x, double t) {
    return x[0] * t + x[1] * std::exp(0.3 * t) + x[2] * 0.2 * t * t;
  };
  std::vector<Observed> seen;
  for (int i = 0; i < 30; ++i)
    seen.push_back({at(truth, i * 0.1) + 0.01 * normal(chance), 0.01});
  const auto out = learn(
      [&](const std::vector<double>& x) {
        std::vector<double> said;
        for (int i = 0; i < 30; ++i)
          said.push_back(at(x, i * 0.1));
        return said;
      },
      seen, priors);
  RC_ASSERT(out.has_value());
  for (std::size_t i = 0; i < 3; ++i) {
    RC_ASSERT(std::abs(out->mean[i] - truth[i]) < 4.5 * out->sd[i]);
    RC_ASSERT(out->sd[i] < priors[i].sd);
  }
}

} // namespace
} // namespace mavrel::curve
