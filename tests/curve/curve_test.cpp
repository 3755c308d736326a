#include "curve/pchip.h"
#include "curve/polynomial.h"
#include "curve/readings.h"
#include "curve/root.h"

#include "support.h"

#include <boost/math/interpolators/pchip.hpp>

#include <cmath>

namespace mavrel::curve {
namespace {

TEST(Pchip, AgreesWithBoostGivenTheSameEndSlopes) {
  EXPECT_TRUE(rc::check("against boost", [] {
    const int n = *rc::gen::inRange(4, 12);
    std::vector<double> x{0}, y{test::between(-1, 1)};
    for (int i = 1; i < n; ++i) {
      x.push_back(x.back() + test::between(0.05, 1));
      y.push_back(y.back() + test::between(-1, 1));
    }
    const auto slopes = pchip_slopes(x, y);
    const PchipTable table(x, {y});
    auto bx = x, by = y;
    const boost::math::interpolators::pchip<std::vector<double>> oracle(std::move(bx), std::move(by), slopes.front(),
                                                                        slopes.back());
    for (int k = 0; k < 20; ++k) {
      const double at = test::between(x.front(), x.back());
      RC_ASSERT(std::abs(table.read(at, 0).value - oracle(at)) < 1e-9);
      RC_ASSERT(std::abs(table.read(at, 0).slope - oracle.prime(at)) < 1e-7);
    }
  }));
}

TEST(Pchip, EndSlopesFollowTheRule) {
  // Three-point formula where it keeps the data's direction.
  const std::vector<double> x{0, 1, 3}, y{0, 1, 2};
  EXPECT_NEAR(pchip_slopes(x, y)[0], ((2 * 1 + 2) * 1.0 - 1 * 0.5) / 3, 1e-15);
  // 0 where its sign differs from the first interval's.
  EXPECT_DOUBLE_EQ(pchip_slopes(std::vector<double>{0, 1, 2}, std::vector<double>{0, 0.1, 5})[0], 0);
  // Three times the first slope where the data turn and the formula overshoots.
  EXPECT_DOUBLE_EQ(pchip_slopes(std::vector<double>{0, 1, 2}, std::vector<double>{0, 1, -9})[0], 3);
  EXPECT_DOUBLE_EQ(pchip_slopes(std::vector<double>{0, 1, 2}, std::vector<double>{0, 1, -9})[1], 0) << "flat at a turn";
}

TEST(Pchip, NeverLeavesTheDataBetweenTwoPoints) {
  EXPECT_TRUE(rc::check("monotone", [] {
    std::vector<double> x{0}, y{0};
    for (int i = 0; i < 7; ++i)
      x.push_back(x.back() + test::between(0.01, 1)), y.push_back(y.back() + test::between(0, 1));
    const PchipTable table(x, {y});
    double last = -1e-12;
    for (int i = 0; i <= 300; ++i) {
      const double v = table.read(std::min(x.back(), x.back() * i / 300), 0).value;
      RC_ASSERT(v >= last - 1e-12);
      last = v;
    }
  }));
}

TEST(Polynomial, ReadsValueSlopeAndCurvature) {
  const Polynomial p{2, {1, -3, 0.5, 2}}; // 1 − 3d + d²/2 + 2d³ about 2
  const auto at = p.read(3.5);
  EXPECT_DOUBLE_EQ(at.value, 1 - 4.5 + 0.5 * 2.25 + 2 * 3.375);
  EXPECT_DOUBLE_EQ(at.slope, -3 + 1.5 + 6 * 2.25);
  EXPECT_DOUBLE_EQ(p.curvature(3.5), 1 + 12 * 1.5);
  EXPECT_DOUBLE_EQ(Polynomial{}.read(5).value, 0);
}

TEST(Root, FindsTheCrossingOrSaysThereIsNone) {
  const auto cube = [](double x) { return x * x * x; };
  EXPECT_NEAR(crossing(cube, 0, 3, 8).value_or(0), 2, 1e-9);
  EXPECT_EQ(crossing(cube, 0, 1, 8), std::nullopt);
  EXPECT_DOUBLE_EQ(crossing(cube, 2, 3, 8).value_or(0), 2) << "an end that is the root";
  EXPECT_EQ(crossing([](double) { return NAN; }, 0, 1), std::nullopt);
}

TEST(Readings, MeanSpreadAndTheOddOne) {
  const std::vector<double> good{343, 344, 343.5}, odd{343, 344, 361};
  EXPECT_DOUBLE_EQ(*mean(good), 343.5);
  EXPECT_DOUBLE_EQ(spread(odd), 18);
  EXPECT_EQ(odd_one_out(odd), 2U);
  EXPECT_EQ(odd_one_out(good), std::nullopt);
  EXPECT_EQ(odd_one_out(std::vector<double>{1, 9}), std::nullopt) << "with two nobody can tell";
  EXPECT_EQ(mean({}), std::nullopt);
  EXPECT_DOUBLE_EQ(spread(std::vector<double>{5}), 0);
}

} // namespace
} // namespace mavrel::curve
