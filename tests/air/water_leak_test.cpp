// Water in the tank, and air that a closed volume loses.
#include "air/leak.h"
#include "air/water.h"

#include "support.h"

namespace mavrel::air {
namespace {

TEST(Water, SaturationIsWhatTablesSay) {
  EXPECT_NEAR(saturation_pressure(ice_point), 611.2, 1e-9);
  EXPECT_NEAR(saturation_pressure(ice_point + 20), 2339, 15);
  EXPECT_NEAR(saturation_pressure(ice_point + 50), 12350, 120);
}

TEST(Water, WhatComesInStaysOrFallsOut) {
  EXPECT_TRUE(rc::check("balance", [] {
    const double air = test::between(250, 320), tank = test::between(260, 330), humidity = test::between(0, 1),
                 pressure = test::between(0, 12e5);
    const auto b = water_in_tank({0, air}, humidity, pressure, tank);
    RC_ASSERT(b.liquid >= 0);
    RC_ASSERT(b.kept >= 0);
    RC_ASSERT(std::abs(b.kept + b.liquid - b.taken_in) < 1e-12);
    // More pressure and a colder tank hold less.
    RC_ASSERT(water_in_tank({0, air}, humidity, pressure + 1e5, tank).liquid >= b.liquid - 1e-12);
    RC_ASSERT(water_in_tank({0, air}, humidity, pressure, tank - 5).liquid >= b.liquid - 1e-12);
  }));
  EXPECT_EQ(water_in_tank({0, 293.15}, 0, 9e5, 293.15).liquid, 0) << "dry air has none";
  const auto boiling = water_in_tank({3000, 303.15}, 0.7, 0, 273.15 + 96);
  EXPECT_EQ(boiling.liquid, 0) << "water would boil in that tank";
  EXPECT_EQ(boiling.kept, boiling.taken_in);
}

std::vector<LeakReading> held(double loss_per_hour, double night) {
  std::vector<LeakReading> out;
  const double volume = 2e-3, mass = air_mass(6e5 + sea_level, volume, 293.15);
  for (int i = 0; i < 13; ++i) {
    const double t = 3600.0 * i, T = 293.15 - night * i / 12;
    out.push_back({t, (mass - loss_per_hour * i) * gas_constant * T / volume - sea_level, T});
  }
  return out;
}

TEST(Leak, AColdNightIsNoLeak) {
  const auto cold = find_leak(held(0, 18), 2e-3);
  ASSERT_TRUE(cold);
  EXPECT_NEAR(cold->loss, 0, 1e-12);
  EXPECT_FALSE(cold->leaks());
}

TEST(Leak, ALossIsFoundThroughTheNight) {
  const auto leak = find_leak(held(1.5e-4, 18), 2e-3);
  ASSERT_TRUE(leak);
  EXPECT_NEAR(leak->loss * 3600, 1.5e-4, 1e-9);
  EXPECT_TRUE(leak->leaks());
  // So little that nobody would mind is none.
  EXPECT_FALSE(find_leak(held(1e-5, 0), 2e-3)->leaks());
}

TEST(Leak, ItsLineGoesThroughWhatWasRead) {
  const auto readings = held(1.5e-4, 18);
  const auto leak = find_leak(readings, 2e-3);
  ASSERT_TRUE(leak);
  for (const LeakReading& r : readings)
    EXPECT_NEAR(leak->mass_at(r.time), held_mass(r, 2e-3, 0), 1e-9) << "a loss that is even lies on its line";
  EXPECT_NEAR(leak->mass_at(readings.front().time), leak->mass, 1e-9);
}

TEST(Leak, TooFewReadingsOrNoTimeAreRefused) {
  const auto all = held(0, 0);
  EXPECT_FALSE(find_leak(std::span(all).first(2), 2e-3));
  std::vector<LeakReading> at_once(4, all[0]);
  EXPECT_FALSE(find_leak(at_once, 2e-3));
}

} // namespace
} // namespace mavrel::air
