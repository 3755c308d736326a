// A car's battery: what old, cold, quick and empty make of it.
#include "air/battery.h"

#include <gtest/gtest.h>

namespace mavrel::air {
namespace {

constexpr double year = 365.25 * 86400;

TEST(Battery, NewWarmAndSlowItHoldsWhatItSays) {
  const Battery b;
  EXPECT_DOUBLE_EQ(charge_of(b), 216000);
  EXPECT_DOUBLE_EQ(charge_at(b, 3), 216000) << "60 A·h over twenty hours are three amperes";
  EXPECT_NEAR(resistance(b, 1), 5.5e-3, 0.05e-3);
  EXPECT_NEAR(rest_voltage(b, 1), 12.75, 1e-9);
  EXPECT_NEAR(rest_voltage(b, 0), 11.8, 1e-9);
}

TEST(Battery, AgeColdAndHasteTakeFromIt) {
  Battery old, cold;
  old.age = 5 * year, cold.temperature = 263.15;
  EXPECT_NEAR(charge_of(old), 216000 * 0.8, 1);
  EXPECT_NEAR(charge_of(cold), 216000 * (1 - 0.008 * 35), 1);
  // Peukert: 30 A of what 3 A would get out.
  EXPECT_NEAR(charge_at({}, 30), 216000 * std::pow(0.1, 0.15), 1);
  for (const double I : {1.0, 5.0, 20.0, 80.0})
    EXPECT_GE(charge_at({}, I), charge_at({}, 2 * I));
}

TEST(Battery, TheColderOlderAndEmptierTheLowerItsVoltage) {
  for (const double age : {0.0, 4.0})
    for (const double T : {253.15, 273.15, 298.15}) {
      Battery b, older;
      b.temperature = older.temperature = T;
      b.age = age * year, older.age = (age + 2) * year;
      Battery colder = b;
      colder.temperature -= 10;
      for (const double state : {0.2, 0.6, 1.0}) {
        EXPECT_LT(loaded_voltage(older, state, 100), loaded_voltage(b, state, 100));
        EXPECT_LT(loaded_voltage(colder, state, 100), loaded_voltage(b, state, 100));
        EXPECT_LT(loaded_voltage(b, state - 0.1, 100), loaded_voltage(b, state, 100));
      }
      EXPECT_GE(starts_from(colder), starts_from(b));
      EXPECT_GE(starts_from(older), starts_from(b));
    }
}

TEST(Battery, CrankingAtTheStateItStartsFromPullsItToNineVolts) {
  Battery b;
  b.temperature = 268.15, b.age = 3 * year;
  const double state = starts_from(b);
  ASSERT_GT(state, 0.3);
  ASSERT_LT(state, 1);
  EXPECT_NEAR(loaded_voltage(b, state, cranking_current(b)), 9, 1e-9);
  // Two of twelve volts in a row start as one does.
  Battery lorry = b;
  lorry.volts = 24;
  EXPECT_NEAR(starts_from(lorry), state, 1e-9);
}

} // namespace
} // namespace mavrel::air
