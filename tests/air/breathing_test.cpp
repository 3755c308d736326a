// Lines that breathe: flow and pressure difference worked out together, and what lies beyond a card.
#include "air/added_volume.h"
#include "air/bag.h"
#include "air/flow.h"

#include "support.h"

#include <cmath>
#include <numbers>

namespace mavrel::air {
namespace {

TEST(Flow, IsLaminarNearEqualPressuresAndMeetsTheStandardsLaw) {
  const Restriction line = tube(0.006, 1);
  const double p = 7e5, T = 293.15;
  const double at_edge = mass_flow(line, p, 0.999 * p, T);
  EXPECT_NEAR(mass_flow(line, p, (1 - 0.0005) * p, T), at_edge / 2, 1e-12) << "in proportion";
  EXPECT_EQ(mass_flow(line, p, p, T), 0);
  EXPECT_NEAR(mass_flow(line, p, 0.999 * p * (1 - 1e-9), T), at_edge, 1e-6 * at_edge) << "no step";
  const double r = 0.9, x = (r - line.critical_ratio) / (1 - line.critical_ratio);
  EXPECT_NEAR(mass_flow(line, p, r * p, T), line.conductance * p * reference_density * std::sqrt(1 - x * x), 1e-12);
}

TEST(Breathing, TheConductanceIsTheOneItsOwnSwingGives) {
  EXPECT_TRUE(rc::check("solved together", [] {
    const BagCard card = test::random_card();
    const BagCurve curve(card);
    const BagSection at = curve.section(std::lerp(curve.lowest(), curve.highest(), test::between(0.1, 0.9)));
    const double p = test::between(2e5, 8e5), f = test::between(0.3, 20), stroke = test::between(0.002, 0.08);
    const BagSetting setting{test::between(0.2e-3, 8e-3), 1.38, {}};
    const Restriction line = tube(test::between(0.001, 0.05), test::between(0.05, 4));
    const double G = breathing_conductance(at, p, setting, line, stroke, f);
    RC_ASSERT(std::isfinite(G) && G > 0);
    // The pressure difference that this stroke drives through that conductance.
    const double RT = gas_constant * setting.ambient.temperature, p_abs = p + setting.ambient.pressure();
    const double a = setting.added_volume / (setting.n * RT), b = at.volume / (setting.n * RT);
    const double omega = 2 * std::numbers::pi * f;
    const double swing = stroke * p_abs * at.volume_slope / RT * a * omega / std::hypot(a * b * omega, (a + b) * G);
    RC_ASSERT(std::abs(swing_conductance(line, p_abs, setting.ambient.temperature, swing) / G - 1) < 1e-6);
  }));
}

TEST(Breathing, AHarderOrQuickerStrokeBreathesLessFreely) {
  const BagCard card = test::demo_shelf().find("Osier O-150")->card;
  const BagCurve curve(card);
  const BagSection at = curve.section(0.14);
  const BagSetting setting{3e-3, 1.38, {}};
  const Restriction line = tube(0.008, 0.5);
  const auto G = [&](double stroke, double f) { return breathing_conductance(at, 4e5, setting, line, stroke, f); };
  EXPECT_LT(G(0.05, 1.3), G(0.01, 1.3));
  EXPECT_LT(G(0.01, 10), G(0.01, 1.3));
  EXPECT_EQ(breathing_conductance(at, 4e5, {0, 1.38, {}}, line, 0.01, 1), 0) << "nothing to breathe into";
}

TEST(Breathing, AWideLineHardlyDampsAtBodyBounce) {
  // Taken at the middle of its change, as it once was, a wide line seemed to damp many times more than it does.
  const BagCurve curve(test::demo_shelf().find("Osier O-150")->card);
  const BagSection at = curve.section(0.14);
  const BagSetting setting{3e-3, 1.38, {}};
  const double f = 1.3, stroke = 0.01, p = 4e5;
  const Restriction wide = tube(0.025, 0.4);
  const double G = breathing_conductance(at, p, setting, wide, stroke, f);
  const double at_middle = swing_conductance(wide, p + setting.ambient.pressure(), setting.ambient.temperature,
                                             line_swing(at, p, setting, stroke));
  const double loss = softened_bag(at, p, setting, G).stiffness(f).imag(),
               once = softened_bag(at, p, setting, at_middle).stiffness(f).imag();
  EXPECT_GT(loss, 0);
  EXPECT_LT(loss, once / 2);
}

TEST(Beyond, NamesTheGravestThatAPressureLiesBeyond) {
  const BagCard& card = test::demo_shelf().find("Osier O-135")->card; // columns to 8 bar, 0.4 to 10 bar
  EXPECT_EQ(beyond(card, 0.39e5), Beyond::under_minimum);
  EXPECT_EQ(beyond(card, 0.4e5), Beyond::nothing);
  EXPECT_EQ(beyond(card, 8.0e5), Beyond::nothing);
  EXPECT_EQ(beyond(card, 8.1e5), Beyond::last_column);
  EXPECT_EQ(beyond(card, 10.1e5), Beyond::maximum);
  EXPECT_STREQ(beyond_key(Beyond::maximum), "max_pressure");
  EXPECT_STREQ(beyond_key(Beyond::nothing), "");
}

TEST(Bag, AHeightJustOutsideTheCardIsToldFromItsEdge) {
  const auto& bag = *test::demo_shelf().find("Osier O-135");
  const auto refused = bag_under_load(bag.curve, bag.curve.lowest() - 2e-5, 3000, {});
  ASSERT_FALSE(refused);
  EXPECT_NE(say(refused.error()).find("61.98 mm"), std::string::npos) << say(refused.error());
  EXPECT_NE(say(refused.error()).find("62.00 mm"), std::string::npos) << say(refused.error());
}

} // namespace
} // namespace mavrel::air
