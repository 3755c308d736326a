// A height sensor's linkage: the published cases, the rod that keeps its length, and the lever that reads best.
#include "control/sensor.h"

#include "support.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <numbers>

namespace mavrel::control {
namespace {

using Json = nlohmann::json;
constexpr double degree = std::numbers::pi / 180;

SensorLinkage read(const Json& in) {
  SensorLinkage s;
  s.pivot = {in["pivot_m"][0], in["pivot_m"][1]}, s.pickup = {in["pickup_m"][0], in["pickup_m"][1]};
  s.lever = in["lever_m"], s.rod = in["rod_m"], s.pickup_ratio = in["pickup_ratio"];
  s.crossing = in["side"] == "below" ? Crossing::below : Crossing::above;
  return s;
}

TEST(Sensor, AnswersThePublishedCases) {
  const Json cases = Json::parse(test::text_of(test::data("reference/sensor-cases.json")));
  ASSERT_GE(cases.size(), 3U);
  for (const Json& c : cases) {
    const SensorLinkage s =
        read(Json::parse(test::text_of(test::data("reference/sensor/" + c["input"].get<std::string>()))));
    bool flips = false;
    for (const Json& at : c["expect"]["at"]) {
      const auto pose = sensor_pose(s, at["dh_m"]);
      ASSERT_TRUE(pose) << say(pose.error());
      EXPECT_NEAR(pose->angle / degree, at["angle_deg"].get<double>(), 0.01) << c["input"];
      EXPECT_NEAR(pose->slope / degree * 1e-3, at["deg_per_mm"].get<double>(), 1e-4);
      EXPECT_NEAR(pose->from_in_line / degree, at["from_in_line_deg"].get<double>(), 0.01);
      flips = flips || pose->from_in_line < may_flip;
    }
    EXPECT_EQ(flips, c["expect"]["flips"].get<bool>());
  }
}

/// One that reaches as surveyed, and a little either way.
SensorLinkage random_linkage() {
  SensorLinkage s;
  s.pivot = {test::between(-0.1, 0.5), test::between(0.2, 0.5)};
  s.lever = test::between(0.04, 0.15), s.rod = test::between(0.06, 0.2);
  const double lever = test::between(-3, 3), apart = test::between(0.5, 2.6);
  s.pickup = {s.pivot.x + s.lever * std::cos(lever) + s.rod * std::cos(lever + apart),
              s.pivot.z + s.lever * std::sin(lever) + s.rod * std::sin(lever + apart)};
  s.pickup_ratio = test::between(0.2, 1);
  s.crossing = test::between(0, 1) < 0.5 ? Crossing::above : Crossing::below;
  return s;
}

TEST(Sensor, LeverAndRodKeepTheirLengthsAndTheSlopeIsTheAnglesOwn) {
  EXPECT_TRUE(rc::check([] {
    const SensorLinkage s = random_linkage();
    const double dh = test::between(-0.004, 0.004), step = 1e-6;
    const auto at = sensor_pose(s, dh), next = sensor_pose(s, dh + step);
    RC_PRE(at && next && at->from_in_line > 0.02);
    RC_ASSERT(std::abs(std::hypot(at->joint.x - s.pivot.x, at->joint.z - s.pivot.z) - s.lever) < 1e-9);
    RC_ASSERT(std::abs(std::hypot(at->joint.x - at->pickup.x, at->joint.z - at->pickup.z) - s.rod) < 1e-9);
    const double turned = std::remainder(next->angle - at->angle, 2 * std::numbers::pi) / step;
    RC_ASSERT(std::abs(turned - at->slope) < 1e-3 * std::abs(at->slope) + 1e-3);
    // Of both crossings the one that was asked for.
    SensorLinkage other = s;
    other.crossing = s.crossing == Crossing::above ? Crossing::below : Crossing::above;
    const auto there = sensor_pose(other, dh);
    RC_ASSERT(there.has_value());
    RC_ASSERT((at->joint.z >= there->joint.z - 1e-12) == (s.crossing == Crossing::above) ||
              std::abs(at->joint.z - there->joint.z) < 1e-9);
  }));
}

TEST(Sensor, AMirrorImageReadsTheSameTheOtherWayRound) {
  EXPECT_TRUE(rc::check([] {
    const SensorLinkage s = random_linkage();
    SensorLinkage mirror = s;
    mirror.pivot.x = -s.pivot.x, mirror.pickup.x = -s.pickup.x;
    const double dh = test::between(-0.004, 0.004);
    const auto left = sensor_pose(s, dh), right = sensor_pose(mirror, dh);
    RC_ASSERT(left.has_value() == right.has_value());
    RC_PRE(left.has_value());
    RC_ASSERT(std::abs(left->joint.x + right->joint.x) < 1e-12 && std::abs(left->joint.z - right->joint.z) < 1e-12);
    RC_ASSERT(std::abs(left->slope + right->slope) < 1e-9 * std::abs(left->slope) + 1e-12);
    RC_ASSERT(std::abs(left->from_in_line - right->from_in_line) < 1e-12);
  }));
}

TEST(Sensor, SaysWhereTheRodDoesNotReach) {
  const SensorLinkage s{{0, 0.4}, {0.06, 0.27}, 0.07, 0.105, 0.8, Crossing::above};
  const auto far = sensor_pose(s, 0.2);
  ASSERT_FALSE(far);
  EXPECT_NE(say(far.error()).find("200.0 mm"), std::string::npos) << say(far.error());
  EXPECT_NE(say(far.error()).find("175.0 mm"), std::string::npos) << "lever and rod together: " << say(far.error());
  // Just inside the reach it is nearly in line, and says so by its angle.
  double low = 0, high = 0.2;
  while (high - low > 1e-9)
    (sensor_pose(s, (low + high) / 2) ? low : high) = (low + high) / 2;
  const auto last = sensor_pose(s, low - 1e-6);
  ASSERT_TRUE(last);
  EXPECT_LT(last->from_in_line, may_flip);
}

TEST(Sensor, TheBestLeverReadsWellAndNoOtherOfWholeMillimetresTurnsFurther) {
  const SensorLinkage placed{{0.40, 0.40}, {0.50, 0.235}, 0.1, 0.14, 0.62, Crossing::above};
  const double low = -0.06, high = 0.05, range = 80 * degree;
  const auto best = best_levers(placed, low, high, range);
  ASSERT_FALSE(best.empty());
  const auto does = [&](const SensorLinkage& s) {
    double least = 1e9, most = -1e9, off = 0, angle = 0, before = 0;
    for (int i = 0; i <= 200; ++i) {
      const auto pose = sensor_pose(s, low + (high - low) * i / 200);
      if (!pose) return std::pair{0.0, 9.0};
      if (i > 0) angle += std::remainder(pose->angle - before, 2 * std::numbers::pi);
      before = pose->angle;
      least = std::min(least, angle), most = std::max(most, angle);
      off = std::max(off, std::numbers::pi / 2 - pose->from_in_line);
    }
    return std::pair{most - least, off};
  };
  for (const LeverChoice& choice : best) {
    const auto [sweep, off] = does(choice.linkage);
    EXPECT_NEAR(sweep, choice.sweep, 1e-3);
    EXPECT_LE(off, reads_well + 1e-3);
    EXPECT_LE(sweep, range);
    SensorLinkage shorter = choice.linkage;
    shorter.lever -= 0.002;
    const auto [more, worse] = does(shorter);
    EXPECT_TRUE(worse > reads_well || more > range || more <= sweep + 1e-6) << "a shorter lever would turn further";
  }
  EXPECT_TRUE(best_levers({{0, 0.4}, {0.03, 0.39}, 0.1, 0.1, 0.9, Crossing::above}, -0.1, 0.1, range).empty())
      << "so near to its shaft no lever follows the pickup";
}

} // namespace
} // namespace mavrel::control
