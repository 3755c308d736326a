#include "curve/line.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <vector>

namespace mavrel::curve {
namespace {

using Readings = std::vector<std::pair<double, double>>;

TEST(Line, TwoReadingsAndReadingsOfOneMomentAreNone) {
  EXPECT_FALSE(line_through(Readings{{0, 1}, {1, 2}}));
  EXPECT_FALSE(line_through(Readings{{4, 1}, {4, 2}, {4, 3}}));
}

TEST(Line, ItsDoubtIsWhatTheReadingsSpreadBy) {
  // By hand: x 0 1 2 3, y 0 2 1 3: slope 0.8, squares left 1.8, xx 5.
  const auto line = line_through(Readings{{0, 0}, {1, 2}, {2, 1}, {3, 3}});
  ASSERT_TRUE(line);
  EXPECT_NEAR(line->slope, 0.8, 1e-12);
  EXPECT_NEAR(line->slope_sd, std::sqrt(1.8 / 2 / 5), 1e-12);
  EXPECT_NEAR(line->at(1.5), 1.5, 1e-12);
}

RC_GTEST_PROP(LineProperty, WhatLiesOnALineIsThatLine, ()) {
  const double slope = *rc::gen::inRange(-1000, 1000) / 100.0, at_zero = *rc::gen::inRange(-1000, 1000) / 10.0;
  const int count = *rc::gen::inRange(3, 40);
  Readings readings;
  for (int i = 0; i < count; ++i)
    readings.emplace_back(i * 7.0, at_zero + slope * i * 7.0);
  const auto line = line_through(readings);
  RC_ASSERT(line.has_value());
  RC_ASSERT(std::abs(line->slope - slope) < 1e-9);
  RC_ASSERT(std::abs(line->at(-3) - (at_zero - 3 * slope)) < 1e-7);
  RC_ASSERT(line->slope_sd < 1e-7);
}

} // namespace
} // namespace mavrel::curve
