// Times of the air carried from simulated cars to all draws.
#include "assess/doubt/air_times.h"
#include "assess/doubt/doubt.h"
#include "assess/fit_up/cars.h"

#include <cmath>

namespace mavrel::assess {
namespace {

constexpr std::size_t rise = static_cast<std::size_t>(AirTime::rise);

/// Made-up cars whose time is known; the first 36 are simulated.
std::vector<AirDrawn> cars_of(const std::function<std::optional<double>(const std::vector<double>&)>& time) {
  const NormalDraws draws(200, 4, 3);
  std::vector<AirDrawn> out(200);
  for (std::size_t i = 0; i < out.size(); ++i) {
    out[i].goes_by.assign(draws.row(i), draws.row(i) + 4);
    out[i].goes_by.push_back(7); // never changes
    if (i >= simulated_cars) continue;
    out[i].simulated = true;
    out[i].times[rise] = time(out[i].goes_by);
  }
  return out;
}

TEST(AirTimes, AreCarriedWhereAPlaneHoldsThem) {
  const auto time = [](const std::vector<double>& x) { return std::exp(1 + 0.1 * x[0] - 0.05 * x[1] + 0.2 * x[3]); };
  auto cars = cars_of(time);
  EXPECT_TRUE(carry_times(cars).empty());
  for (const AirDrawn& car : cars) {
    ASSERT_TRUE(car.times[rise]);
    EXPECT_NEAR(*car.times[rise], time(car.goes_by), 2e-3 * time(car.goes_by));
  }
}

TEST(AirTimes, ThatTurnSharplyAreThoseOfTheNearestAndItIsSaid) {
  auto cars = cars_of([](const std::vector<double>& x) { return x[0] * x[1] > 0 ? 3.0 : 9.0; });
  const auto not_held = carry_times(cars);
  ASSERT_EQ(not_held.size(), 1U);
  EXPECT_EQ(not_held.front(), AirTime::rise);
  for (const AirDrawn& car : cars)
    EXPECT_TRUE(*car.times[rise] == 3.0 || *car.times[rise] == 9.0) << "nothing that no car took";
}

TEST(AirTimes, OfCarsThatNeverGetThereAreNone) {
  const auto there = [](const std::vector<double>& x) { return x[0] < 0.3; };
  auto cars = cars_of(
      [&](const std::vector<double>& x) { return there(x) ? std::optional(std::exp(0.1 * x[1])) : std::nullopt; });
  (void)carry_times(cars);
  std::size_t right = 0;
  for (const AirDrawn& car : cars)
    right += car.times[rise].has_value() == there(car.goes_by);
  EXPECT_GE(right, 150U) << "of 200: the nearest is a fair judge";
  for (const AirDrawn& car : cars)
    EXPECT_FALSE(car.times[static_cast<std::size_t>(AirTime::fill)]) << "nobody simulated that";
  std::vector<AirDrawn> none(5);
  EXPECT_TRUE(carry_times(none).empty());
}

TEST(AirTimes, CarriedAreWhatASimulationSays) {
  const build::Build& build = test::demo_whole();
  const shelf::Shelf& shelf = test::demo_shelf();
  const auto inputs = doubt_inputs(build, shelf);
  constexpr std::size_t cars = simulated_cars + 14;
  const DoubtDraws draws(inputs, cars, 5);
  std::vector<AirDrawn> carried(cars), whole(cars);
  for (std::size_t i = 0; i < cars; ++i) {
    const DrawnCar car = drawn_car(build, inputs, draws.off(i));
    const shelf::Shelf off = shelf_of(build.variant(), shelf, car.card);
    whole[i] = air_of(car, off, ask_ends(car.build, off), AirLook::simulated, {});
    carried[i] = whole[i];
    if (i >= simulated_cars) carried[i].simulated = false, carried[i].times = {};
  }
  EXPECT_TRUE(carry_times(carried).empty());
  for (std::size_t which = 0; which < air_times; ++which) {
    double mean = 0, spread = 0, off = 0;
    int n = 0;
    for (std::size_t i = 0; i < cars; ++i)
      if (whole[i].times[which]) mean += *whole[i].times[which], ++n;
    ASSERT_GT(n, 40) << which;
    mean /= n;
    int asked = 0;
    for (std::size_t i = 0; i < cars; ++i) {
      if (!whole[i].times[which]) continue;
      spread += std::pow(*whole[i].times[which] - mean, 2) / n;
      if (i < simulated_cars || !carried[i].times[which]) continue;
      off += std::pow(*carried[i].times[which] - *whole[i].times[which], 2), ++asked;
    }
    ASSERT_GT(asked, 8) << which;
    EXPECT_LT(off / asked, 0.15 * spread) << "time " << which << ": a fraction of what they differ by";
  }
}

TEST(AirTimes, AreAsSureAsTheCardsOfTheKit) {
  build::Build build = test::demo_whole();
  const auto sd = [&](const char* name) {
    const auto got = doubt({build, test::demo_shelf(), 60, 1});
    const DoubtAnswer* a = got->find(name);
    return a && a->value ? a->sd / *a->value : -1;
  };
  const double fill = sd("air.fill");
  EXPECT_GT(fill, 0.05);
  EXPECT_LT(fill, 0.25);
  EXPECT_GT(sd("air.rise"), 0.01);
  build.doubts.part = 0.01;
  EXPECT_LT(sd("air.fill"), fill / 3);
  build.variant().air.compressor.clear();
  const auto without = doubt({build, test::demo_shelf(), 40, 1});
  const DoubtAnswer* a = without->find("air.fill");
  EXPECT_TRUE(!a || !a->value) << "nothing fills it";
}

} // namespace
} // namespace mavrel::assess
