// Bodies on bags: heights where forces and moments balance, whatever the air.
#include "air/carriage.h"
#include "air/gas.h"

#include "support.h"

#include <cmath>

namespace mavrel::air {
namespace {

/// A body of four corners on random bags, each with its own air.
struct Random {
  Body body;
  std::vector<double> y;
};
Random random_body(int legs) {
  Random out;
  for (int i = 0; i < legs; ++i) {
    const BagCard card = test::random_card();
    Leg leg;
    leg.volume = static_cast<std::size_t>(i);
    leg.curve = BagCurve(card);
    leg.lowest = leg.curve.lowest(), leg.highest = leg.curve.highest();
    leg.height = std::lerp(leg.lowest, leg.highest, test::between(0.2, 0.8));
    leg.forward = i < 2 ? 1.3 : -1.4, leg.left = i % 2 ? -0.7 : 0.7;
    const BagSection at = leg.curve.section(leg.height);
    const double load = test::between(1500, 6000);
    const double p = pressure_for_load(at, load) * test::between(0.3, 1.8); // not what it carries: it must move
    out.y.push_back(at.volume * std::pow(p + sea_level, 1 / isentropic));
    out.body.legs.push_back(std::move(leg));
    out.body.loads.push_back(load);
  }
  return out;
}

TEST(Carriage, AnyBodyFindsItsBalanceWithinItsStops) {
  for (const int legs : {1, 2, 4})
    EXPECT_TRUE(rc::check("balance", [&] {
      const Random r = random_body(legs);
      Carriage carriage(r.body, sea_level);
      RC_ASSERT(carriage.settle(r.y.data()));
      double sum = 0, pitch = 0, roll = 0, weight = 0;
      for (std::size_t i = 0; i < r.body.legs.size(); ++i) {
        const LegState& at = carriage.legs()[i];
        const double more = at.wheel_force - r.body.loads[i];
        sum += more, pitch += more * r.body.legs[i].forward, roll += more * r.body.legs[i].left;
        weight += r.body.loads[i];
        RC_ASSERT(at.height >= r.body.legs[i].lowest - 1e-12 && at.height <= r.body.legs[i].highest + 1e-12);
        // A stop pushes only where the leg stands on it.
        if (at.stop_force > 1) RC_ASSERT(at.height == r.body.legs[i].lowest);
        if (at.stop_force < -1) RC_ASSERT(at.height == r.body.legs[i].highest);
      }
      RC_ASSERT(std::abs(sum) < 1e-6 * weight);
      if (legs > 1) RC_ASSERT(std::abs(roll) < 1e-6 * weight);
      if (legs > 2) RC_ASSERT(std::abs(pitch) < 1e-6 * weight);
    }));
}

TEST(Carriage, MoreAirLiftsTheCornerAndNeverLowersIt) {
  EXPECT_TRUE(rc::check("more air", [] {
    Random r = random_body(4);
    Carriage carriage(r.body, sea_level);
    RC_ASSERT(carriage.settle(r.y.data()));
    const double before = carriage.legs()[1].height;
    r.y[1] *= 1.05;
    RC_ASSERT(carriage.settle(r.y.data()));
    RC_ASSERT(carriage.legs()[1].height >= before - 1e-9);
  }));
}

TEST(Carriage, WhereItComesFromIsNoMatter) {
  EXPECT_TRUE(rc::check("same balance", [] {
    const Random r = random_body(4);
    Carriage straight(r.body, sea_level), round(r.body, sea_level);
    RC_ASSERT(straight.settle(r.y.data()));
    std::vector<double> other = r.y;
    for (double& y : other)
      y *= test::between(0.7, 1.4);
    RC_ASSERT(round.settle(other.data()));
    RC_ASSERT(round.settle(r.y.data()));
    for (std::size_t i = 0; i < 4; ++i)
      RC_ASSERT(std::abs(round.legs()[i].height - straight.legs()[i].height) < 1e-6);
  }));
}

} // namespace
} // namespace mavrel::air
