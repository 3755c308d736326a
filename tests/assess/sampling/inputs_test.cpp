// Readings with how sure they are: by repeats, by tool, by what they share.
#include "assess/fit_up/cars.h"
#include "assess/sampling/draws.h"
#include "build/care.h"

#include <cmath>

namespace mavrel::assess {
namespace {

const DoubtInput* input(const std::vector<DoubtInput>& inputs, std::string_view path) {
  for (const DoubtInput& in : inputs)
    if (in.path == path) return &in;
  return nullptr;
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

TEST(DoubtInputs, AreTheReadingsOfTheBuildByTheirTools) {
  build::Build build = test::demo_whole();
  const auto inputs = doubt_inputs(build, test::demo_shelf());
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
  std::vector<double> off(inputs.size(), 0.0);
  off[static_cast<std::size_t>(height - inputs.data())] = 0.003;
  const build::Build other = moved(build, off);
  EXPECT_NEAR(other.end(build::End::front).corners[0].height.values[0],
              build.end(build::End::front).corners[0].height.values[0] + 0.003, 1e-12);
  EXPECT_EQ(other.end(build::End::rear), build.end(build::End::rear));
  EXPECT_EQ(moved(build, std::vector<double>(inputs.size(), 0.0)), build);
  // A figure of another car is less sure, and the tool's doubt is set in one place.
  build.doubts.tape = 0.004;
  const auto coarser = doubt_inputs(build, test::demo_shelf());
  bool more = false;
  for (std::size_t i = 0; i < inputs.size(); ++i)
    more = more || (inputs[i].tool == Tool::tape && inputs[i].count == 1 && coarser[i].own > 2 * inputs[i].own);
  EXPECT_TRUE(more);
}

TEST(DoubtInputs, WhatNobodyCouldReadIsFoldedBack) {
  const build::Build build = test::demo_whole();
  const auto inputs = doubt_inputs(build, test::demo_shelf());
  std::vector<double> off(inputs.size(), 0.0);
  std::size_t gap = 0;
  while (inputs[gap].path != "front.bump_stop_gap_m")
    ++gap;
  off[gap] = -inputs[gap].value - 0.002; // two millimetres less than nothing
  const build::Build other = moved(build, off);
  EXPECT_NEAR(other.end(build::End::front).bump_stop_gap.values.front(), 0.002, 1e-9);
  for (double& o : off)
    o = -3; // nothing of it can be
}

TEST(DoubtInputs, GoByTheToolThatSomebodyTookThemWith) {
  build::Build build = test::demo_whole();
  const auto sd = [&](const char* path) {
    const auto all = doubt_inputs(build, test::demo_shelf());
    const DoubtInput* in = input(all, path);
    return in ? in->own : -1;
  };
  EXPECT_EQ(taken_place("front.cycle.12.gaps.0.value_m"), "front.cycle.gaps.value_m");
  EXPECT_EQ(taken_place("front.left.height_m"), "front.left.height_m");
  // Of a sheet all rows, and of that field alone.
  const double taped = sd("front.cycle.3.spring_m"), other = sd("front.cycle.3.height_m");
  build.doubts.taken_with.push_back({"front.cycle.spring_m", Tool::calliper, {}});
  EXPECT_NEAR(sd("front.cycle.3.spring_m"), build.doubts.calliper, 1e-12);
  EXPECT_EQ(sd("front.cycle.0.spring_m"), sd("front.cycle.5.spring_m"));
  EXPECT_LT(sd("front.cycle.3.spring_m"), taped);
  EXPECT_EQ(sd("front.cycle.3.height_m"), other);
  // An estimate is a share of the figure, but of next to nothing no surer than the tape.
  build.doubts.taken_with = {{"front.left.height_m", Tool::estimate, {}},
                             {"front.cycle.camber_rad", Tool::estimate, {}}};
  const auto all = doubt_inputs(build, test::demo_shelf());
  EXPECT_NEAR(input(all, "front.left.height_m")->own,
              doubt_of_mean(build.end(build::End::front).corners[0].height.values,
                            build.doubts.estimate * input(all, "front.left.height_m")->value),
              1e-12);
  for (const DoubtInput& in : all) {
    if (taken_place(in.path) == "front.cycle.camber_rad") {
      EXPECT_GE(in.own, build.doubts.angle);
    }
  }
  // What was weighed is no estimate any more, and shares what the scale is off by.
  build.doubts.taken_with = {{"front.unsprung_kg", Tool::scale, {}}};
  const auto weighed = doubt_inputs(build, test::demo_shelf());
  ASSERT_NE(input(weighed, "front.unsprung_kg"), nullptr);
  EXPECT_EQ(input(weighed, "front.unsprung_kg")->shared_with, "scale");
  EXPECT_NEAR(input(weighed, "front.unsprung_kg")->own, build.doubts.scale, 1e-12);
  EXPECT_TRUE(wrong_tools(build.doubts, doubt_inputs(build, test::demo_shelf())).empty());
  // One more reading of a mean, reading what was estimated, and what can't be read.
  build.doubts.taken_with.clear();
  build.doubts.estimate = 0.2;
  const auto plain = doubt_inputs(build, test::demo_shelf());
  const DoubtInput* height = input(plain, "front.left.height_m");
  EXPECT_NEAR(height->again / height->own,
              std::sqrt(static_cast<double>(height->count) / static_cast<double>(height->count + 1)), 1e-12);
  EXPECT_EQ(input(plain, "front.unsprung_kg")->again, build.doubts.scale) << "on the scale";
  EXPECT_GT(input(plain, "front.unsprung_kg")->minutes, height->minutes);
  for (const DoubtInput& in : plain) {
    if (in.kind != Kind::stiffness) continue;
    EXPECT_EQ(in.again, in.own) << in.path << ": an estimate made again is no reading";
  }
  // No scale reads a height: the tape stands, and it is said.
  build.doubts.taken_with = {{"front.left.height_m", Tool::scale, {}}};
  EXPECT_EQ(input(doubt_inputs(build, test::demo_shelf()), "front.left.height_m")->tool, Tool::tape);
  ASSERT_EQ(wrong_tools(build.doubts, doubt_inputs(build, test::demo_shelf())).size(), 1U);
  EXPECT_NE(say(wrong_tools(build.doubts, doubt_inputs(build, test::demo_shelf())).front()).find("front.left.height_m"),
            std::string::npos);
  build.doubts.taken_with = {{"front.bag_card", Tool::scale, {}}};
  EXPECT_EQ(wrong_tools(build.doubts, doubt_inputs(build, test::demo_shelf())).size(), 1U) << "nor a card";
}

TEST(DoubtInputs, KnowWhatTheAirKitsCardsSay) {
  build::Build build = test::demo_whole();
  const auto all = doubt_inputs(build, test::demo_shelf());
  for (const char* path : {"air.compressor_card", "air.tank_card", "front.air_way", "rear.air_way"}) {
    ASSERT_NE(input(all, path), nullptr) << path;
    EXPECT_EQ(input(all, path)->own, build.doubts.part);
    EXPECT_FALSE(say(input(all, path)->name).empty());
  }
  ASSERT_NE(input(all, "air.pressure_switch"), nullptr);
  EXPECT_EQ(input(all, "air.pressure_switch")->tool, Tool::gauge);
  EXPECT_EQ(input(all, "air.pressure_switch")->own, build.doubts.gauge);
  build.variant().air.learned_flow = {1.1, 0.9, std::nullopt, 1.0};
  const auto timed = doubt_inputs(build, test::demo_shelf());
  EXPECT_LT(input(timed, "front.air_way")->own, build.doubts.part / 2) << "both corners of it were timed";
  EXPECT_EQ(input(timed, "rear.air_way")->own, build.doubts.part);
  build.variant().air = {};
  for (const DoubtInput& in : doubt_inputs(build, test::demo_shelf()))
    EXPECT_FALSE(in.what == Doubted::compressor || in.what == Doubted::tank || in.what == Doubted::pressure_switch ||
                 in.what == Doubted::way)
        << in.path;
  // One card at both ends is off alike.
  build.variant().fit[1].bag = build.variant().fit[0].bag;
  const auto alike = doubt_inputs(build, test::demo_shelf());
  EXPECT_EQ(input(alike, "front.bag_card")->shared_with, "card");
  EXPECT_EQ(input(alike, "front.bag_card")->own, 0);
}

TEST(DoubtInputs, OfAnotherCarAreLessSure) {
  build::Build build = test::demo_whole();
  const double before = input(doubt_inputs(build, test::demo_shelf()), "front.track_m")->own;
  build.origin.own().car = "Sorrel Wayfare estate";
  build.origin.own().taken.push_back({"front.track_m", "", {}});
  const auto all = doubt_inputs(build, test::demo_shelf());
  EXPECT_TRUE(input(all, "front.track_m")->another_car);
  EXPECT_NEAR(input(all, "front.track_m")->own, build.doubts.other_car * before, 1e-12);
  EXPECT_FALSE(input(all, "rear.track_m")->another_car);
  // A usual figure is no car's: as sure as an estimate.
  build.origin.own().car.clear();
  const auto usual = doubt_inputs(build, test::demo_shelf());
  EXPECT_NEAR(input(usual, "front.track_m")->own, build.doubts.estimate * input(usual, "front.track_m")->value, 1e-12);
}

} // namespace
} // namespace mavrel::assess
