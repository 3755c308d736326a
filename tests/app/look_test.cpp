// The look holds its promises: contrast in both themes, labels kept apart.
#include "app/kit/height_scale.h"
#include "app/theme/look.h"

#include <gtest/gtest.h>

#include <cmath>

namespace mavrel::app {
namespace {

double luminance(const QColor& colour) {
  const auto linear = [](double c) { return c <= 0.03928 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
}
double contrast(const QColor& a, const QColor& b) {
  const double la = luminance(a), lb = luminance(b);
  return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

TEST(Look, WordsStandOutInBothThemes) {
  for (const Theme theme : {Theme::primer, Theme::night_bay}) {
    const Tokens& t = tokens_of(theme);
    for (const QColor& ground : {t.ground, t.panel})
      for (const QColor& ink : {t.ink, t.second, t.front, t.rear, t.stop, t.caution, t.good})
        EXPECT_GE(contrast(ink, ground), 4.5) << ink.name().toStdString() << " on " << ground.name().toStdString();
  }
}

TEST(Scale, GoesBothWays) {
  const HeightScale s{0.28, 0.45, 60, 700};
  EXPECT_DOUBLE_EQ(s.y(0.45), 60);
  EXPECT_NEAR(s.H(s.y(0.333)), 0.333, 1e-12);
}

TEST(Scale, LabelsArePushedApartInOrder) {
  const auto y = spread_apart({100, 101, 102, 300}, 14, 0, 400);
  for (std::size_t i = 1; i < y.size(); ++i)
    EXPECT_GE(y[i] - y[i - 1], 14 - 1e-9);
  EXPECT_NEAR(y[3], 300, 1e-9);
}

} // namespace
} // namespace mavrel::app
