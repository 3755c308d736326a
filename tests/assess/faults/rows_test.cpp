// The rows of causes, signs and tests hang together; and how one car answers to each cause.
#include "assess/faults/practised.h"

#include <cmath>
#include <set>

namespace mavrel::assess {
namespace {

TEST(FaultRows, AreNamedOnceAndSayAllOfThemselves) {
  std::set<std::string> keys;
  for (const FaultCause& cause : fault_causes()) {
    EXPECT_TRUE(keys.insert(cause.key).second) << cause.key;
    EXPECT_GT(cause.often, 0) << cause.key;
    EXPECT_GT(cause.hours, 0) << cause.key;
    // The plan's reason keeps 200 letters, its job's name 80.
    EXPECT_LT(std::string_view(cause.mend).size() + std::string_view(cause.parts).size(), 180U) << cause.key;
    EXPECT_LT(std::string_view(cause.name).size(), 50U) << cause.key;
    for (const char* text : {cause.name, cause.seen, cause.mend})
      EXPECT_GT(std::string_view(text).size(), 3U) << cause.key;
    std::istringstream proofs(cause.proofs);
    for (std::string id; proofs >> id;)
      EXPECT_TRUE(row_of_check(id).first || row_of_check("front." + id).first) << cause.key << " " << id;
  }
  EXPECT_GE(keys.size(), 25U);
  keys.clear();
  for (const FaultSign& sign : fault_signs()) {
    EXPECT_TRUE(keys.insert(sign.key).second) << sign.key;
    EXPECT_EQ(sign.reads != nullptr, sign.kind.has_value()) << sign.key;
    EXPECT_TRUE(sign.kind || (sign.base > 0 && sign.base < 0.2)) << sign.key;
  }
  for (const FaultTest& test : fault_tests()) {
    EXPECT_GT(test.minutes, 0) << test.key;
    for (std::size_t place = 0; place < places_of(test.places); ++place)
      EXPECT_FALSE(told_by(test, place).empty()) << test.key;
  }
}

TEST(FaultRows, KeysOfPlacesAreReadAgain) {
  for (const FaultCause& cause : fault_causes())
    for (std::size_t place = 0; place < places_of(cause.places); ++place) {
      const FaultAt fault{&cause, place};
      EXPECT_EQ(*fault_of(fault_key(fault)), fault);
    }
  for (const FaultTest& test : fault_tests())
    for (std::size_t place = 0; place < places_of(test.places); ++place)
      EXPECT_EQ(*test_of(test_key({&test, place})), (TestAt{&test, place}));
  EXPECT_FALSE(fault_of("pinched"));
  EXPECT_FALSE(fault_of("pinched:rear"));
  EXPECT_FALSE(fault_of("worn:front"));
  EXPECT_FALSE(fault_of("gremlins"));
}

TEST(FaultRows, EveryCauseShowsInATestThatCanBeDone) {
  const FaultTable& table = practised()->table;
  for (std::size_t f = 0; f < table.faults().size(); ++f) {
    if (is_nothing(*table.faults()[f].cause)) continue;
    bool shows = false;
    for (const FaultTest& test : fault_tests()) {
      if (!can_do(table.car().parts, test)) continue;
      for (std::size_t place = 0; place < places_of(test.places); ++place)
        for (const SignAt& at : told_by(test, place))
          shows = shows || table.touches(f, *table.column(at));
    }
    EXPECT_TRUE(shows) << fault_key(table.faults()[f]);
  }
}

TEST(FaultRows, WhatIsReadOfAWellCarIsBelievable) {
  const FaultTable& table = practised()->table;
  for (std::size_t c = 0; c < table.columns().size(); ++c) {
    const SignAt& at = table.columns()[c];
    if (!at.sign->kind) continue;
    const auto [least, most] = believable(table.car(), *at.sign, at.place);
    EXPECT_GT(table.well(c), least - 1e-12) << at.sign->key;
    EXPECT_LT(table.well(c), most) << at.sign->key;
  }
}

TEST(FaultCar, AnswersAsTheSimulatedCarDoes) {
  const PracticeShop& shop = *practised();
  const FaultCar& car = shop.table.car();
  // At shares that are in no table.
  for (const std::size_t circuit : {0U, 3U})
    for (const double share : {0.17, 0.5, 0.8}) {
      const std::size_t corner = car.circuits[circuit].front();
      control::Condition narrow;
      narrow.corners[corner].fill = narrow.corners[corner].vent = share;
      const TimedCorner took = time_corner(shop.car, narrow, circuit, 60);
      ASSERT_TRUE(took.fill && took.vent);
      EXPECT_NEAR(*took.fill / car.fill[corner].at(share), 1, 0.06) << share;
      EXPECT_NEAR(*took.vent / car.vent[corner].at(share), 1, 0.06) << share;
    }
}

TEST(FaultCar, LeaksAndSharesAreEachOthersInverse) {
  const FaultCar& car = practised()->table.car();
  for (const double share : {0.001, 0.03, 0.4, 0.9}) {
    EXPECT_NEAR(car.hourly(2, car.conductance(2, share)), share, 1e-9);
    EXPECT_NEAR(car.tank_hourly(car.tank_conductance(share)), share, 1e-9);
  }
  for (std::size_t c = 0; c < 4; ++c) {
    EXPECT_EQ(car.sunk(c, 0), 0);
    for (double s = 0; s < 1; s += 0.05)
      EXPECT_LE(car.sunk(c, s), car.sunk(c, s + 0.05)) << s;
  }
}

TEST(FaultCar, AHoleTakesFromTheSimulatedBagWhatTheFormulaSays) {
  // An hour's loss by the formula, against five minutes of the car's own air.
  const PracticeShop& shop = *practised();
  const FaultCar& car = shop.table.car();
  LearnedCar leaky = shop.car;
  control::Condition hole;
  hole.corners[1].leak_line = car.conductance(1, 0.5);
  control::put_in(leaky.parts, leaky.circuits, hole);
  control::RollingCar rolls(leaky.parts);
  const std::size_t bag = leaky.parts.network.bodies.front().legs[1].volume;
  const double before = rolls.air().mass(bag);
  for (double t = 0; t < 300; t += control::RollingCar::longest_step)
    rolls.step(control::RollingCar::longest_step, {}, {});
  const double lost = 1 - rolls.air().mass(bag) / before;
  EXPECT_NEAR(lost, 1 - std::pow(0.5, 300.0 / 3600), 0.15 * lost);
}

/// The demo estate on one pair of valves an axle.
const std::shared_ptr<const PracticeShop>& by_axle() {
  static const auto shop = [] {
    build::Build build = test::demo_whole();
    build.variant().air.circuits = build::Circuits::per_axle;
    return **practice_shop({leveling_given(build, fit_up_of(build).air(), 0)}, {});
  }();
  return shop;
}

TEST(FaultCar, WhatATeeJoinsAnswersTogether) {
  const PracticeShop& shop = *by_axle();
  const FaultCar& car = shop.table.car();
  ASSERT_EQ(car.circuits.size(), 2U);
  // One side's line, or a valve that both sides share, as the rolling car feels it.
  const auto agree = [&](const control::Condition& condition, std::size_t corner, double within) {
    const TimedCorner took = time_corner(shop.car, condition, corner / 2, 90);
    ASSERT_TRUE(took.fill && took.vent);
    EXPECT_NEAR(*took.fill / fault_sign("fill_time")->reads(car, condition, corner), 1, within);
    EXPECT_NEAR(*took.vent / fault_sign("vent_time")->reads(car, condition, corner), 1, within);
    EXPECT_EQ(fault_sign("fill_time")->reads(car, condition, corner),
              fault_sign("fill_time")->reads(car, condition, corner ^ 1U));
  };
  control::Condition line, vents;
  line.corners[0].fill = line.corners[0].vent = 0.3;
  agree(line, 0, 0.3);
  for (control::CornerCondition& c : vents.corners)
    c.vent = 0.4;
  agree(vents, 2, 0.15);
  control::Condition leak;
  leak.corners[3].leak_line = car.conductance(3, 0.3);
  EXPECT_DOUBLE_EQ(fault_sign("hold_loss")->reads(car, leak, 2), fault_sign("hold_loss")->reads(car, leak, 3));
  EXPECT_LT(fault_sign("hold_loss")->reads(car, leak, 3), 0.3) << "two bags' air lasts longer";
}

TEST(FaultCar, OnOnePairOfValvesAnAxleTheCauseIsFoundToo) {
  int first = 0;
  constexpr int cars = 24;
  for (std::uint64_t seed = 1; seed <= cars; ++seed) {
    PracticeCar car(by_axle(), {seed, PracticeLevel::plain});
    FaultEvidence evidence = car.evidence();
    go_on(car, *by_axle(), evidence, {}, [](const TestDone&) {});
    first +=
        fault_key(FaultWeighing(by_axle()->table, evidence).diagnosis().sets.front().faults) == fault_key(car.reveal());
  }
  EXPECT_GE(first, 0.8 * cars);
}

TEST(Condition, OfNothingChangesNothingAndTwoComeTogether) {
  const PracticeShop& shop = *practised();
  LearnedCar same = shop.car;
  control::put_in(same.parts, same.circuits, {});
  ASSERT_EQ(same.parts.network.lines.size(), shop.car.parts.network.lines.size());
  for (std::size_t i = 0; i < same.parts.network.lines.size(); ++i)
    EXPECT_EQ(same.parts.network.lines[i].through.conductance, shop.car.parts.network.lines[i].through.conductance);
  control::Condition a, b;
  a.corners[0].fill = 0.5, a.leak_tank = 1e-11, a.cut_shift = 1e5;
  b.corners[0].fill = 0.4, b.leak_tank = 2e-11, b.corners[2].sensor_flipped = true;
  a.add(b);
  EXPECT_DOUBLE_EQ(a.corners[0].fill, 0.2);
  EXPECT_DOUBLE_EQ(a.leak_tank, 3e-11);
  EXPECT_TRUE(a.corners[2].sensor_flipped);
  EXPECT_DOUBLE_EQ(a.cut_shift, 1e5);
}

TEST(Condition, SwappedSensorsReadEachOther) {
  control::Condition swapped;
  swapped.corners[0].sensor_of = 1, swapped.corners[1].sensor_of = 0;
  const std::array<double, 4> H = {0.30, 0.31, 0.32, 0.33};
  EXPECT_EQ(control::sensed(H, H, 0, swapped), 0.31);
  EXPECT_EQ(control::sensed(H, H, 1, swapped), 0.30);
  EXPECT_EQ(control::sensed(H, H, 2, swapped), 0.32);
}

} // namespace
} // namespace mavrel::assess
