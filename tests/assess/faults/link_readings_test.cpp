// What a linked car's heights and gauges say of faults.
#include "assess/faults/link_readings.h"

#include "assess/faults/practised.h"

namespace mavrel::assess {
namespace {

LiveLook at_road() {
  LiveLook look;
  for (std::size_t c = 0; c < 4; ++c)
    look.height[c] = practised()->car.target[c], look.pressure[c] = practised()->car.pressure[c];
  return look;
}

TEST(LinkReadings, AreHowFarEachCornerIsOffAtRoadHeight) {
  LiveLook look = at_road();
  *look.height[1] += 0.004;
  *look.pressure[2] -= 20000;
  const auto notes = link_readings(*practised(), look, 99);
  ASSERT_EQ(notes.size(), 8U);
  build::Build build = build::empty_build();
  for (const auto& note : notes)
    build.faults.own().findings.push_back(note);
  const FaultsNoted read = noted(build);
  EXPECT_TRUE(read.trouble.empty()) << "each can be judged by";
  ASSERT_EQ(read.evidence.findings.size(), 8U);
  for (std::size_t c = 0; c < 4; ++c) {
    const auto &height = read.evidence.findings[2 * c], &pressure = read.evidence.findings[2 * c + 1];
    EXPECT_STREQ(height.at.sign->key, "height_off");
    EXPECT_STREQ(pressure.at.sign->key, "pressure_off");
    EXPECT_NEAR(*height.value, c == 1 ? 0.004 : 0, 1e-9);
    EXPECT_NEAR(*pressure.value, c == 2 ? -20000 : 0, 1e-6);
  }
}

TEST(LinkReadings, LeaveOutWhatStandsElsewhereOrIsNotRead) {
  LiveLook look = at_road();
  *look.height[0] += live_near * 1.1;        // it stands at another preset
  *look.height[1] += live_pressure_at * 1.1; // near enough to tell its height, not its pressure
  look.height[2] = std::nullopt;             // no sensor
  look.pressure[3] = std::nullopt;           // no gauge
  const auto notes = link_readings(*practised(), look, 99);
  ASSERT_EQ(notes.size(), 2U);
  EXPECT_EQ(notes[0].sign, "height_off");
  EXPECT_EQ(notes[0].where, "front_right");
  EXPECT_EQ(notes[1].sign, "height_off");
  EXPECT_EQ(notes[1].where, "rear_right");
}

TEST(LinkReadings, AreNoMoreThanThereIsRoomFor) {
  EXPECT_EQ(link_readings(*practised(), at_road(), 3).size(), 3U);
  EXPECT_TRUE(link_readings(*practised(), at_road(), 0).empty());
}

} // namespace
} // namespace mavrel::assess
