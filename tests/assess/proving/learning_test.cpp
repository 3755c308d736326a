#include "assess/proving/learning.h"

#include "assess/proving/proved_cars.h"

#include <random>

namespace mavrel::assess {
namespace {

const LearnedFigure& figure(const Learning& l, const std::string& key) {
  for (const LearnedFigure& f : l.figures)
    if (f.key == key) return f;
  throw std::runtime_error("no figure " + key);
}
Expected<Learning> learned(const Build& build) {
  return *learn_from({build, test::demo_shelf()}, {});
}

TEST(LearningOfACar, NothingMeasuredTeachesNothingAndSaysSo) {
  const Build b = fresh_estate();
  const auto out = learned(b);
  ASSERT_FALSE(out);
  EXPECT_NE(say(out.error()).find("teaches"), std::string::npos);
}

TEST(LearningOfACar, WhatWasPlantedIsFoundWithinItsDoubt) {
  const Build b = fresh_estate();
  Build truth = b;
  truth.variant().fit[1].learned_area = 1.05;
  truth.variant().fit[1].learned_friction = 190;
  truth.variant().air.learned_flow[2] = 0.75;
  std::mt19937 chance(3);
  std::normal_distribution<double> normal;
  Build m = measured_on(b, truth, "pressures", [&](const AskedFigure&) { return 1500 * normal(chance); });
  m = measured_on(m, truth, "times");
  const auto out = learned(m);
  ASSERT_TRUE(out) << say(out.error());
  const LearnedFigure& friction = figure(*out, "rear.friction");
  EXPECT_TRUE(friction.told);
  EXPECT_NEAR(friction.is, 190, 2.5 * friction.is_sd);
  EXPECT_GT(friction.is, friction.designed);
  const LearnedFigure& area = figure(*out, "rear.area");
  EXPECT_NEAR(area.is, 1.05, 2.5 * area.is_sd);
  const LearnedFigure& flow = figure(*out, "rear_left.flow");
  EXPECT_TRUE(flow.told);
  EXPECT_NEAR(flow.is, 0.75, 2.5 * flow.is_sd);
  EXPECT_NEAR(figure(*out, "rear_right.flow").is, 1, 0.12); // its twin, but for what the area takes of its times
  EXPECT_NEAR(figure(*out, "front_left.flow").is, 1, 0.08);
  // After it, what is predicted lies nearer to what was measured.
  double before = 0, after = 0;
  for (const LearnedFrom& f : out->from) {
    const double scale = f.kind == Kind::time ? 0.3 : 5e3;
    before += std::pow((f.before - f.measured) / scale, 2), after += std::pow((f.after - f.measured) / scale, 2);
  }
  EXPECT_LT(after, 0.5 * before);
}

TEST(LearningOfACar, TheRatioIsToldByTheBagsHeightAtTheStopAndThenApartFromTheArea) {
  const Build b = fresh_half_ton();
  Build truth = b;
  truth.variant().fit[1].learned_ratio = 1.025;
  const FitUpGiven given = fit_up_of(b);
  Build m = measured_on(b, truth, "pressures");
  const auto blurred = learned(m);
  ASSERT_TRUE(blurred) << say(blurred.error());
  m = measured_on(m, truth, "rear.stop_first");
  const auto out = learned(m);
  ASSERT_TRUE(out);
  EXPECT_LE(figure(*out, "rear.ratio").is_sd, figure(*blurred, "rear.ratio").is_sd);
  const LearnedFigure& ratio = figure(*out, "rear.ratio");
  EXPECT_NEAR(ratio.is, 1.025, 2.5 * ratio.is_sd);
}

TEST(LearningOfACar, APinchedLineIsNoLessonButAFault) {
  const Build b = fresh_estate();
  Build truth = b;
  truth.variant().air.learned_flow[0] = 0.25;
  const auto out = learned(measured_on(b, truth, "times"));
  ASSERT_TRUE(out);
  const LearnedFigure& flow = figure(*out, "front_left.flow");
  EXPECT_TRUE(flow.too_far);
  const Build after = with_learned(b, *out, {"front_left.flow"}, "Tamsin", "2026-12-10");
  EXPECT_FALSE(after.variant().air.learned_flow[0]);
  EXPECT_TRUE(after.variant().proving->learned.empty());
}

TEST(LearningOfACar, PredictionsThenFollowThisCarAndCanBeForgotten) {
  const Build b = fresh_estate();
  Build truth = b;
  truth.variant().fit[0].learned_friction = 200;
  Build m = measured_on(b, truth, "pressures");
  const auto out = learned(m);
  ASSERT_TRUE(out);
  const Build after = with_learned(m, *out, {"front.friction"}, "Tamsin", "2026-12-10 11:00");
  ASSERT_TRUE(after.variant().fit[0].learned_friction);
  EXPECT_FALSE(after.variant().fit[0].learned_area); // nobody agreed to that
  ASSERT_EQ(after.variant().proving->learned.size(), 1U);
  EXPECT_EQ(after.variant().proving->learned[0].by, "Tamsin");
  const auto spread = [](const Build& car) {
    const auto points = hold_points(fit_up_of(car));
    double up = 0, down = 0;
    for (const AskedFigure& f : point_in(points, "pressures").figures)
      if (f.key == "up_front_left")
        up = *f.designed;
      else if (f.key == "down_front_left")
        down = *f.designed;
    return up - down;
  };
  EXPECT_GT(spread(after), 1.2 * spread(m));
  EXPECT_NEAR(spread(after) / spread(truth), 1, 0.15);
  // Learned twice it is not learned more: the design is what it is learned against.
  const auto again = learned(after);
  ASSERT_TRUE(again);
  EXPECT_NEAR(figure(*again, "front.friction").is, figure(*out, "front.friction").is, 1e-6);
  const Build forgotten = without_learned(after);
  EXPECT_FALSE(has_learned(forgotten.variant()));
  EXPECT_DOUBLE_EQ(spread(forgotten), spread(m));
}

TEST(LearningOfACar, SignedChecksStandThoughPredictionsLearned) {
  Build b = fresh_estate();
  b = signed_off(b, "rear.top_out");
  b = signed_off(b, "times");
  b.variant().fit[1].learned_area = 1.03;
  b.variant().fit[1].learned_ratio = 0.99;
  b.variant().air.learned_flow[1] = 0.9;
  EXPECT_EQ(state_of(b, "rear.top_out"), CheckState::passed);
  EXPECT_EQ(state_of(b, "times"), CheckState::passed);
}

} // namespace
} // namespace mavrel::assess
