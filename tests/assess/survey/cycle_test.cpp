// A cycle sheet in place of one reading and a ratio: windows, tracks and findings follow it.
#include "assess/asked.h"

namespace mavrel::assess {
namespace {

/// The demo estate with a sheet at the front: spring and damper lengths from a curve about the surveyed height.
Build with_sheet(double bend, double reading_off = 0, int rows = 7) {
  return with(test::demo_build(), [&](Build& b) {
    build::EndSurvey& front = b.ends[0];
    const double H = *assess(b, {}).end(End::front).surveyed_height;
    const double ratio = 0.965, seat = 0.1945, eyes = 0.412;
    for (int i = 0; i < rows; ++i) {
      build::CycleRow row;
      row.height = 0.29 + 0.15 * i / (rows - 1);
      const double d = row.height - H;
      row.spring = seat + ratio * d + bend * d * d + (i == 3 ? reading_off : 0);
      row.damper = eyes + ratio * d + bend * d * d;
      front.cycle.push_back(row);
    }
  });
}

TEST(CycleSheet, AStraightOneSaysWhatTheRatioSaid) {
  const Assessment line = assess(test::demo_build(), test::demo_shelf()),
                   sheet = assess(with_sheet(0), test::demo_shelf());
  const Windows &a = line.end(End::front).windows, &b = sheet.end(End::front).windows;
  EXPECT_NEAR(a.reach->low.height, b.reach->low.height, 1e-6);
  EXPECT_NEAR(a.reach->high.height, b.reach->high.height, 1e-6);
  EXPECT_NEAR(a.road->low.height, b.road->low.height, 1e-6);
  EXPECT_NEAR(*line.end(End::front).find(tracks::pressure, 0)->at(0.36),
              *sheet.end(End::front).find(tracks::pressure, 0)->at(0.36), 20);
  EXPECT_EQ(finding(sheet, "cycle_measure_again"), nullptr);
  EXPECT_EQ(finding(sheet, "ratio_doubtful"), nullptr);
}

TEST(CycleSheet, MovesTheWindowsOfItsEndAndOfNoOther) {
  const Assessment line = assess(test::demo_build(), test::demo_shelf()),
                   sheet = assess(with_sheet(1.5), test::demo_shelf());
  EXPECT_GT(
      std::abs(line.end(End::front).windows.reach->high.height - sheet.end(End::front).windows.reach->high.height),
      0.001);
  EXPECT_DOUBLE_EQ(line.end(End::rear).windows.reach->high.height, sheet.end(End::rear).windows.reach->high.height);
  // By hand: the damper is open where eyes + ratio·d + bend·d² reaches its open length.
  const double H = *sheet.end(End::front).surveyed_height;
  const double d = (-0.965 + std::sqrt(0.965 * 0.965 + 4 * 1.5 * (0.466 - 0.412))) / (2 * 1.5);
  bool found = false;
  for (const Stretch& s : sheet.end(End::front).windows.reach_blocked)
    if (s.limit == &limits::damper_open) {
      found = true;
      EXPECT_NEAR(s.from, H + d, 1e-6);
    }
  EXPECT_TRUE(found);
  // A ratio that grows with height shows in the rate: the same bag is softer low down.
  const auto model = end_model(with_sheet(1.5), End::front);
  EXPECT_LT(model.map->at(0.31).motion_ratio, model.map->at(0.40).motion_ratio);
  EXPECT_NEAR(model.map->at(0.40).motion_ratio_slope, 3.0, 1e-6);
}

TEST(CycleSheet, ARowThatTheOthersDoNotBelieveIsGoneToByItsPlace) {
  const Build odd = with_sheet(0.5, 0.02);
  const Assessment a = assess(odd, test::demo_shelf());
  const Finding* f = finding(a, "cycle_measure_again");
  ASSERT_NE(f, nullptr);
  EXPECT_EQ(f->place, "front.cycle.3.spring_m");
  EXPECT_NE(say(f->reason).find("Row 4"), std::string::npos);
}

TEST(CycleSheet, WhatCannotBeUsedIsSaidAndTheSingleReadingStands) {
  Build away = with_sheet(0);
  for (auto& row : away.ends[0].cycle)
    row.height += 0.3; // another car's
  const Assessment a = assess(away, test::demo_shelf());
  EXPECT_NE(finding(a, "cycle_unusable"), nullptr);
  EXPECT_DOUBLE_EQ(a.end(End::front).windows.reach->low.height,
                   assess(test::demo_build(), test::demo_shelf()).end(End::front).windows.reach->low.height);
  Build swapped = test::demo_build();
  for (int i = 0; i < 5; ++i) {
    build::CycleRow row;
    row.height = 0.33 + 0.02 * i;
    row.spring = 0.25 - 0.02 * i;
    swapped.ends[0].cycle.push_back(row);
  }
  EXPECT_NE(finding(assess(swapped, test::demo_shelf()), "cycle_unusable"), nullptr);
}

TEST(CycleSheet, TakesThePlaceOfReadingsNotTaken) {
  Build build = with_sheet(0.5);
  build::EndSurvey& front = build.ends[0];
  front.motion_ratio.values.clear();
  front.spring_length.values.clear();
  front.damper_length.values.clear();
  const Assessment a = assess(build, test::demo_shelf());
  EXPECT_FALSE(a.end(End::front).rough());
  EXPECT_EQ(finding(a, "reading_missing"), nullptr);
}

} // namespace
} // namespace mavrel::assess
