// Linkages against an independent calculation.
#include "motion/linkage/geometries.h"

namespace mavrel::motion {
namespace {

constexpr double near_length = 1e-7, near_angle = 1e-5; // m, degrees: the same arithmetic to rounding

void corner_agrees(const Geometry& g, const nlohmann::json& expect) {
  const CornerLinkage linkage(g);
  for (const auto& e : expect) {
    const auto pose = linkage.solve(e["dh_m"]);
    ASSERT_TRUE(pose) << e["dh_m"];
    EXPECT_NEAR(pose->camber / deg, e["camber_deg"].get<double>(), near_angle);
    EXPECT_NEAR(pose->toe / deg, e["toe_deg"].get<double>(), near_angle);
    if (e.contains("caster_deg")) {
      EXPECT_NEAR(*pose->caster / deg, e["caster_deg"].get<double>(), near_angle);
      EXPECT_NEAR(*pose->kingpin / deg, e["kingpin_deg"].get<double>(), near_angle);
    }
    EXPECT_NEAR(pose->wheel_shift.x, e["wheel_shift_m"][0].get<double>(), near_length);
    EXPECT_NEAR(pose->wheel_shift.y, e["wheel_shift_m"][1].get<double>(), near_length);
    EXPECT_NEAR(pose->wheel_shift.z, e["wheel_shift_m"][2].get<double>(), near_length);
    EXPECT_NEAR(pose->spring->length, e["spring_length_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->damper->length, e["damper_length_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->spring->ratio, e["motion_ratio"].get<double>(), 1e-6);
  }
}

void axle_agrees(const Geometry& g, const nlohmann::json& expect) {
  const AxleLinkage linkage(g);
  for (const auto& e : expect) {
    const auto pose = linkage.solve(e["dh_m"]);
    ASSERT_TRUE(pose) << e["dh_m"];
    EXPECT_NEAR(pose->shift.x, e["axle_shift_m"][0].get<double>(), near_length);
    EXPECT_NEAR(pose->shift.y, e["axle_shift_m"][1].get<double>(), near_length);
    EXPECT_NEAR(pose->shift.z, e["axle_shift_m"][2].get<double>(), near_length);
    EXPECT_NEAR(pose->pinion / deg, e["pinion_change_deg"].get<double>(), near_angle);
    EXPECT_NEAR(pose->roll / deg, e["roll_deg"].get<double>(), 2e-4) << "about which of its axes is a matter of taste";
    EXPECT_NEAR(pose->misfit, e["misfit_m"].get<double>(), 1e-9);
    EXPECT_NEAR(pose->springs[0]->length, e["spring_length_left_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->springs[1]->length, e["spring_length_right_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->dampers[0]->length, e["damper_length_left_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->dampers[1]->length, e["damper_length_right_m"].get<double>(), near_length);
    EXPECT_NEAR(pose->springs[0]->ratio, e["motion_ratio"].get<double>(), 1e-5);
  }
}

TEST(Linkage, AgreesWithTheReference) {
  const auto cases = nlohmann::json::parse(test::text_of(test::data("reference/linkage-cases.json")));
  ASSERT_EQ(cases.size(), 5U);
  for (const auto& one : cases) {
    std::string name = one["geometry"];
    name.resize(name.size() - 5); // .json
    SCOPED_TRACE(name);
    const Geometry g = reference(name);
    EXPECT_FALSE(mistake_in(g));
    if (g.shape == Shape::solid_axle)
      axle_agrees(g, one["expect"]);
    else
      corner_agrees(g, one["expect"]);
  }
}

} // namespace
} // namespace mavrel::motion
