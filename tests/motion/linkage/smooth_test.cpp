// One curve through many poses.
#include "motion/linkage/smooth.h"

#include "support.h"

#include <cmath>

namespace mavrel::motion {
namespace {

TEST(Smooth, APolynomialIsFoundAgain) {
  EXPECT_TRUE(rc::check("cubic", [] {
    const double a = test::between(0.1, 0.4), b = test::between(0.3, 1.2), c = test::between(-1, 1),
                 d = test::between(-3, 3), x0 = test::between(0.3, 0.5);
    std::vector<double> x, y;
    for (int i = 0; i <= 30; ++i) {
      const double u = -0.15 + 0.01 * i;
      x.push_back(x0 + u);
      y.push_back(a + b * u + c * u * u + d * u * u * u);
    }
    const Smooth s = smooth_through(x, y);
    RC_ASSERT(s.off < 1e-10);
    const auto at = s.curve.read(x0 + 0.033);
    RC_ASSERT(std::abs(at.value - (a + b * 0.033 + c * 0.033 * 0.033 + d * std::pow(0.033, 3))) < 1e-10);
    RC_ASSERT(std::abs(at.slope - (b + 2 * c * 0.033 + 3 * d * 0.033 * 0.033)) < 1e-8);
  }));
}

TEST(Smooth, SaysHowFarItIsOffWhatNoPolynomialFollows) {
  std::vector<double> x, y;
  for (int i = 0; i <= 30; ++i) {
    x.push_back(0.01 * i);
    y.push_back(std::sqrt(0.01 * i)); // as lengths go at the end of a linkage
  }
  const Smooth s = smooth_through(x, y);
  EXPECT_GT(s.off, 1e-3);
  double worst = 0;
  for (std::size_t i = 0; i < x.size(); ++i)
    worst = std::max(worst, std::abs(s.curve.read(x[i]).value - y[i]));
  EXPECT_NEAR(s.off, worst, 1e-9);
}

TEST(Smooth, AFewPosesMakeALine) {
  const std::vector<double> x{0.3, 0.35, 0.4}, y{0.1, 0.15, 0.2};
  const Smooth s = smooth_through(x, y);
  EXPECT_NEAR(s.curve.read(0.36).slope, 1, 1e-9);
  EXPECT_LT(s.off, 1e-12);
}

} // namespace
} // namespace mavrel::motion
