// Cars as they may be: even draws, and every reading and card where a draw says.
#include "air/bag.h"
#include "assess/fit_up/cars.h"
#include "assess/sampling/draws.h"

#include <cmath>

namespace mavrel::assess {
namespace {

TEST(Doubt, DrawsAreEvenNormalAndTheirSeedsOwn) {
  const NormalDraws a(2000, 40, 5), b(2000, 40, 5), other(2000, 40, 6);
  double worst_mean = 0, worst_sd = 0;
  bool differs = false;
  for (std::size_t d = 0; d < 40; ++d) {
    double sum = 0, squares = 0;
    for (std::size_t i = 0; i < 2000; ++i) {
      EXPECT_EQ(a.row(i)[d], b.row(i)[d]);
      differs = differs || a.row(i)[d] != other.row(i)[d];
      sum += a.row(i)[d], squares += a.row(i)[d] * a.row(i)[d];
    }
    worst_mean = std::max(worst_mean, std::abs(sum / 2000));
    worst_sd = std::max(worst_sd, std::abs(std::sqrt(squares / 2000) - 1));
  }
  EXPECT_TRUE(differs);
  EXPECT_LT(worst_mean, 0.01) << "chance alone would be off by 0.02 and more";
  EXPECT_LT(worst_sd, 0.02);
}

TEST(Doubt, DrawsGoOnWhereTheSequenceEnds) {
  const std::size_t many = 5000; // a car of as many readings as its file holds
  const NormalDraws a(60, many, 5), b(60, many, 5);
  double sum = 0, squares = 0;
  for (std::size_t i = 0; i < 60; ++i)
    for (std::size_t d = 4000; d < many; ++d) {
      ASSERT_EQ(a.row(i)[d], b.row(i)[d]);
      ASSERT_TRUE(std::isfinite(a.row(i)[d]));
      sum += a.row(i)[d], squares += a.row(i)[d] * a.row(i)[d];
    }
  EXPECT_NEAR(sum / 60e3, 0, 0.02);
  EXPECT_NEAR(squares / 60e3, 1, 0.03);
  EXPECT_NE(a.row(0)[4500], a.row(1)[4500]);
  EXPECT_NE(a.row(0)[4500], a.row(0)[4501]);
}

TEST(DrawnCar, LiesOffByWhatItsDrawSays) {
  const build::Build build = test::demo_whole();
  const auto inputs = doubt_inputs(build, test::demo_shelf());
  std::vector<double> off(inputs.size(), 0.0);
  for (std::size_t i = 0; i < inputs.size(); ++i)
    if (inputs[i].what != Doubted::reading && inputs[i].what != Doubted::stand_in &&
        inputs[i].what != Doubted::curvature && inputs[i].what != Doubted::damper_curvature &&
        inputs[i].what != Doubted::tyre_size)
      off[i] = 0.01 * static_cast<double>(i);
  const DrawnCar car = drawn_car(build, inputs, off);
  EXPECT_EQ(car.build, build) << "no reading lies off";
  for (std::size_t i = 0; i < inputs.size(); ++i)
    if (inputs[i].what == Doubted::tyre_size) {
      std::vector<double> larger(inputs.size(), 0.0);
      larger[i] = 0.003;
      EXPECT_NEAR(drawn_car(build, inputs, larger).build.variant().brief.rooms.tyre_growth,
                  build.variant().brief.rooms.tyre_growth + 0.003, 1e-12);
    }
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    const std::size_t e = build::at(inputs[i].end);
    if (inputs[i].what == Doubted::bag_card) {
      EXPECT_EQ(car.card[e].load, off[i]);
    }
    if (inputs[i].what == Doubted::bag_volume) {
      EXPECT_EQ(car.card[e].volume, off[i]);
    }
    if (inputs[i].what == Doubted::way) {
      EXPECT_EQ(car.way[e], off[i]);
    }
    if (inputs[i].what == Doubted::compressor) {
      EXPECT_EQ(car.compressor, off[i]);
    }
    if (inputs[i].what == Doubted::pressure_switch) {
      EXPECT_EQ(car.pressure_switch, off[i]);
    }
  }
}

TEST(DrawnCar, HasItsBagsCardsOffAndAllParts) {
  const build::Build build = test::demo_whole();
  const shelf::Shelf& shelf = test::demo_shelf();
  const shelf::Shelf off = shelf_of(build.variant(), shelf, {CardOff{0.05, 0, 0}, CardOff{-0.05, 0, 0}});
  ASSERT_EQ(off.bags.size(), 2U);
  EXPECT_EQ(off.parts, shelf.parts);
  const std::string& front = build.variant().fit[0].bag;
  const auto load = [&](const shelf::Shelf& s, const std::string& name) {
    return air::bag_force(s.find(name)->curve.section(s.find(name)->card.collapsed_height + 0.05), 3e5).force;
  };
  EXPECT_NEAR(load(off, front) / load(shelf, front), std::exp(0.05), 1e-9);
  // A bag's card that is right is the card itself.
  EXPECT_EQ(with_card_off(*shelf.find(front), {}).card, shelf.find(front)->card);
}

TEST(HoldingCars, AreTheSameWheneverTheyAreAsked) {
  const HoldingCars a(test::demo_whole(), test::demo_shelf()), b(test::demo_whole(), test::demo_shelf());
  EXPECT_EQ(a.car(7).build, b.car(7).build);
  EXPECT_EQ(a.car(7).card, b.car(7).card);
  EXPECT_FALSE(a.car(7).build == a.car(8).build);
}

} // namespace
} // namespace mavrel::assess
