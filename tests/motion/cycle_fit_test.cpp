// A wheel jacked through its travel: the curve, its slope with its doubt, and the readings nobody believes.
#include "motion/cycle_fit.h"

#include "build/cycle_csv.h"
#include "support.h"

#include <nlohmann/json.hpp>

namespace mavrel::motion {
namespace {

std::vector<CycleReading> readings_of(const std::string& sheet) {
  std::vector<CycleReading> out;
  const auto rows = build::read_cycle_csv(test::text_of(test::data("reference/cycle-sheets/" + sheet)));
  for (const build::CycleRow& row : rows.value())
    out.push_back({row.height, *row.spring});
  return out;
}

TEST(CycleFit, AgreesWithTheReference) {
  const auto cases = nlohmann::json::parse(test::text_of(test::data("reference/cycle-cases.json")));
  ASSERT_EQ(cases.size(), 2U);
  for (const auto& one : cases) {
    const auto fit = fit_cycle(readings_of(one["sheet"]));
    ASSERT_TRUE(fit);
    EXPECT_EQ(fit->degree, one["expect"]["degree"].get<int>());
    for (const auto& at : one["expect"]["at"]) {
      const auto read = fit->length.read(at["height_m"]);
      EXPECT_NEAR(read.value, at["spring_length_m"].get<double>(), 1e-7);
      EXPECT_NEAR(read.slope, at["motion_ratio"].get<double>(), 1e-6);
      EXPECT_NEAR(*fit->slope_sd(at["height_m"]), at["motion_ratio_sd"].get<double>(), 1e-6);
    }
    std::vector<std::size_t> again;
    for (const std::size_t i : fit->measure_again)
      again.push_back(i + 1);
    EXPECT_EQ(again, one["expect"]["measure_again"].get<std::vector<std::size_t>>());
  }
}

/// Readings of a known curve, without noise.
std::vector<CycleReading> of_curve(int count, double a, double b, double c, double d) {
  std::vector<CycleReading> out;
  for (int i = 0; i < count; ++i) {
    const double u = -1 + 2.0 * i / (count - 1);
    out.push_back({0.36 + 0.08 * u, a + b * u + c * u * u + d * u * u * u});
  }
  return out;
}

TEST(CycleFit, FindsACurveItCanCarryExactly) {
  EXPECT_TRUE(rc::check("cubics come back", [] {
    const int count = *rc::gen::inRange(7, 15);
    const double a = test::between(0.1, 0.3), b = test::between(0.03, 0.08), c = test::between(-0.01, 0.01),
                 d = test::between(-0.004, 0.004);
    const auto fit = fit_cycle(of_curve(count, a, b, c, d));
    RC_ASSERT(fit.has_value());
    RC_ASSERT(fit->degree == 3);
    RC_ASSERT(fit->measure_again.empty());
    for (double u = -1; u <= 1; u += 0.25) {
      const auto read = fit->length.read(0.36 + 0.08 * u);
      RC_ASSERT(std::abs(read.value - (a + b * u + c * u * u + d * u * u * u)) < 1e-9);
      RC_ASSERT(std::abs(read.slope - (b + 2 * c * u + 3 * d * u * u) / 0.08) < 1e-7);
      RC_ASSERT(*fit->slope_sd(0.36 + 0.08 * u) < 1e-6);
    }
  }));
}

TEST(CycleFit, TheOrderOfRowsIsNoMatterAndHeightsMayRepeat) {
  auto readings = of_curve(9, 0.19, 0.05, 0.006, 0);
  for (std::size_t i = 0; i < readings.size(); ++i)
    readings[i].length += static_cast<double>(i % 3) * 4e-4;
  readings.push_back(readings[2]);
  const auto a = fit_cycle(readings);
  std::reverse(readings.begin(), readings.end());
  std::swap(readings[1], readings[6]);
  const auto b = fit_cycle(readings);
  ASSERT_TRUE(a && b);
  for (const double H : {0.29, 0.33, 0.40})
    EXPECT_NEAR(a->length.read(H).slope, b->length.read(H).slope, 1e-9);
  EXPECT_NEAR(*a->slope_sd(0.33), *b->slope_sd(0.33), 1e-12);
}

TEST(CycleFit, ARowMistypedByTenOrInTheWrongUnitIsNamed) {
  for (const double factor : {10.0, 0.1, 25.4, 1 / 25.4})
    for (std::size_t at = 0; at < 8; ++at) {
      auto readings = of_curve(8, 0.19, 0.05, 0.006, 0.001);
      for (std::size_t i = 0; i < readings.size(); ++i)
        readings[i].length += i % 2 == 0 ? 3e-4 : -3e-4; // a tape
      readings[at].length *= factor;
      const auto fit = fit_cycle(readings);
      ASSERT_TRUE(fit);
      EXPECT_EQ(fit->measure_again, std::vector<std::size_t>{at}) << factor << " at " << at;
    }
}

TEST(CycleFit, ATapeAloneIsBelieved) {
  // Among honest sheets one reading in twenty sheets may be doubted, and only where it lies over 1.5 mm away.
  int doubted = 0;
  EXPECT_TRUE(rc::check("noise", [&] {
    auto readings = of_curve(*rc::gen::inRange(5, 10), 0.19, 0.05, 0.006, 0.001);
    for (CycleReading& reading : readings)
      reading.length += test::between(-5e-4, 5e-4);
    const auto fit = fit_cycle(readings);
    RC_ASSERT(fit.has_value());
    doubted += static_cast<int>(fit->measure_again.size());
  }));
  EXPECT_LE(doubted, 5);
}

TEST(CycleFit, ADoubtedReadingLiesFarFromTheCurveWithoutIt) {
  auto readings = of_curve(8, 0.19, 0.05, 0.006, 0.001);
  for (std::size_t i = 0; i < readings.size(); ++i)
    readings[i].length += i % 2 == 0 ? 3e-4 : -3e-4;
  readings[3].length += 0.012;
  const auto fit = fit_cycle(readings);
  ASSERT_EQ(fit->measure_again, std::vector<std::size_t>{3});
  auto without = readings;
  without.erase(without.begin() + 3);
  const auto others = fit_cycle(without);
  EXPECT_GT(std::abs(others->length.read(readings[3].height).value - readings[3].length), least_misreading);
  EXPECT_TRUE(others->measure_again.empty());
}

TEST(CycleFit, TooLittleIsSaidAndNeverBent) {
  EXPECT_FALSE(fit_cycle({}));
  EXPECT_FALSE(fit_cycle(std::vector<CycleReading>{{0.3, 0.2}}));
  const auto one_height = fit_cycle(std::vector<CycleReading>{{0.3, 0.2}, {0.3, 0.201}, {0.30005, 0.2}});
  ASSERT_FALSE(one_height);
  EXPECT_NE(say(one_height.error()).find("one height"), std::string::npos);
  EXPECT_FALSE(fit_cycle(std::vector<CycleReading>{{0.3, std::nan("")}, {0.4, 0.2}}));
  const auto two = fit_cycle(std::vector<CycleReading>{{0.30, 0.20}, {0.40, 0.27}});
  ASSERT_TRUE(two);
  EXPECT_EQ(two->degree, 1);
  EXPECT_NEAR(two->length.read(0.35).slope, 0.7, 1e-12);
  EXPECT_FALSE(two->slope_sd(0.35)) << "nobody can say how well";
  // Many rows, two heights: a straight line, whatever their number.
  std::vector<CycleReading> pairs;
  for (int i = 0; i < 12; ++i)
    pairs.push_back({i % 2 == 0 ? 0.30 : 0.40, i % 2 == 0 ? 0.20 : 0.27});
  EXPECT_EQ(fit_cycle(pairs)->degree, 1);
}

} // namespace
} // namespace mavrel::motion
