#include "air/added_volume.h"

#include "support.h"

#include <cmath>
#include <numbers>

namespace mavrel::air {
namespace {

constexpr double pi = std::numbers::pi;

SoftenedBag random_softened(double& volume, BagSetting& setting) {
  const BagCard card = test::random_card();
  static thread_local BagCurve curve;
  curve = BagCurve(card);
  const BagSection at = curve.section(std::lerp(curve.lowest(), curve.highest(), test::between(0.1, 0.9)));
  setting.added_volume = test::between(0.2e-3, 8e-3);
  setting.n = test::between(1, 1.4);
  volume = at.volume;
  return softened_bag(at, test::between(1e5, 6e5), setting, std::pow(10, test::between(-9, -5)));
}

TEST(Tube, FollowsTheStandardsFormula) {
  const Restriction r = tube(0.006, 1.5);
  EXPECT_NEAR(r.conductance, 0.029 * 0.006 * 0.006 / std::sqrt(1.5 / std::pow(0.006, 1.25) + 510), 1e-15);
  EXPECT_NEAR(r.critical_ratio, 474 * r.conductance / (0.006 * 0.006), 1e-12);
}

TEST(Flow, ChokesAtTheCriticalRatioAndStopsAtEqualPressure) {
  const Restriction r = tube(0.008, 0.5);
  const double choked = mass_flow(r, 8e5, r.critical_ratio * 8e5, 293.15);
  EXPECT_NEAR(choked, r.conductance * 8e5 * reference_density, 1e-12);
  EXPECT_DOUBLE_EQ(mass_flow(r, 8e5, 1e5, 293.15), choked);
  EXPECT_EQ(mass_flow(r, 8e5, 8e5, 293.15), 0);
  EXPECT_LT(mass_flow(r, 8e5, 7.9e5, 293.15), choked);
}

TEST(Flow, AWiderOrShorterLineBreathesMoreFreely) {
  EXPECT_TRUE(rc::check("conductance grows with bore, falls with length", [] {
    const double bore = test::between(0.002, 0.03), length = test::between(0, 4);
    RC_ASSERT(tube(bore * 1.1, length).conductance > tube(bore, length).conductance);
    RC_ASSERT(tube(bore, length + 0.1).conductance < tube(bore, length).conductance);
    RC_ASSERT(tube(bore, length).critical_ratio < 1);
  }));
}

TEST(Flow, TheSwingPassesAsMuchAsTheLawItself) {
  // The first harmonic of the flow under a sinusoidal pressure difference, by summing the law over a period.
  const Restriction r = tube(0.007, 0.4);
  const double p = 5e5, T = 293.15, swing = 500;
  double work = 0;
  constexpr int steps = 20000;
  for (int i = 0; i < steps; ++i) {
    const double s = std::sin(2 * pi * (i + 0.5) / steps);
    work += mass_flow(r, p + swing * std::abs(s) / 2, p - swing * std::abs(s) / 2, T) * std::abs(s);
  }
  const double harmonic = 2 * work / steps;
  EXPECT_NEAR(swing_conductance(r, p, T, swing) * swing, harmonic, 0.005 * harmonic);
}

TEST(SoftenedBag, IsTheOpenRateWhenSlowAndTheBareOneWhenQuick) {
  EXPECT_TRUE(rc::check("limits over frequency", [] {
    double volume = 0;
    BagSetting setting;
    const SoftenedBag bag = random_softened(volume, setting);
    RC_ASSERT(std::abs(bag.stiffness(bag.begins() * 1e-4).real() - bag.open_rate()) < 1e-4 * std::abs(bag.shut_rate()));
    RC_ASSERT(std::abs(bag.stiffness(bag.ends() * 1e4).real() - bag.shut_rate()) < 1e-4 * std::abs(bag.shut_rate()));
    RC_ASSERT(bag.open_rate() < bag.shut_rate());
  }));
}

TEST(SoftenedBag, StiffensSteadilyAndDampsMostInTheMiddle) {
  EXPECT_TRUE(rc::check("stiffness rises, air's loss peaks at the middle", [] {
    double volume = 0;
    BagSetting setting;
    const SoftenedBag bag = random_softened(volume, setting);
    const auto air = [&](double f) { return bag.stiffness(f) + bag.per_height; };
    double last = 0;
    for (double f = bag.begins() / 100; f < bag.ends() * 100; f *= 1.3) {
      RC_ASSERT(air(f).real() >= last);
      RC_ASSERT(air(f).imag() > 0); // a line only ever takes energy
      RC_ASSERT(std::arg(air(f)) <= std::arg(air(bag.middle())) + 1e-9);
      last = air(f).real();
    }
  }));
}

TEST(SoftenedBag, AWideLineIsOneBigVolumeAndNoLineIsTheBareBag) {
  const BagCard card = test::demo_shelf().find("Osier O-135")->card;
  const BagCurve curve(card);
  const BagSection at = curve.section(0.14);
  BagSetting setting;
  setting.added_volume = 3e-3;
  EXPECT_NEAR(softened_bag(at, 4e5, setting, 1).stiffness(2).real(), sealed_rate(at, 4e5, setting.n, setting), 1);
  BagSetting bare = setting;
  bare.added_volume = 0;
  EXPECT_NEAR(softened_bag(at, 4e5, setting, 1e-15).stiffness(2).real(), sealed_rate(at, 4e5, setting.n, bare), 1);
  EXPECT_DOUBLE_EQ(softened_bag(at, 4e5, setting, 0).stiffness(2).real(),
                   softened_bag(at, 4e5, setting, 0).shut_rate());
}

TEST(SoftenedBag, TheConductanceAskedForPutsTheMiddleThere) {
  EXPECT_TRUE(rc::check("middle where wanted", [] {
    double volume = 0;
    BagSetting setting;
    SoftenedBag bag = random_softened(volume, setting);
    const double wanted = test::between(0.5, 12);
    bag.conductance = bag.conductance_for_middle(wanted);
    RC_ASSERT(std::abs(bag.middle() - wanted) < 1e-9 * wanted);
  }));
}

TEST(SoftenedBag, TheSwingAcrossTheLineIsThatOfTheMiddle) {
  // Pressures of bag and tank from the two mass balances, at the middle of the change.
  const BagCurve curve(test::demo_shelf().find("Osier O-135")->card);
  const BagSection at = curve.section(0.15);
  BagSetting setting;
  setting.added_volume = 2e-3;
  const double p = 3.5e5, stroke = 0.008;
  const SoftenedBag bag = softened_bag(at, p, setting, 3e-8);
  const std::complex<double> s(0, 2 * pi * bag.middle());
  const double RT = gas_constant * setting.ambient.temperature;
  const double drive = (p + setting.ambient.pressure()) * at.volume_slope / RT * stroke;
  // b·s·P1 + s·drive·… : m1' = −G(P1 − P2), m2' = G(P1 − P2)
  const std::complex<double> P1 =
      -drive * (bag.a * s + bag.conductance) / (bag.a * bag.b * s + (bag.a + bag.b) * bag.conductance);
  const std::complex<double> P2 = bag.conductance / (bag.a * s + bag.conductance) * P1;
  EXPECT_NEAR(std::abs(P1 - P2), line_swing(at, p, setting, stroke), 1e-6 * std::abs(P1 - P2));
}

} // namespace
} // namespace mavrel::air
