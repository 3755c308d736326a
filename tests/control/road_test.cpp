// Roads: their density by class, both tracks alike at long waves and apart at short ones, the same from the same seed.
#include "control/road.h"

#include "support.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>

namespace mavrel::control {
namespace {

using Wave = std::complex<double>;

/// One wave of a road, taken over all of it: amplitude and turn of left and right at k waves a length.
std::array<Wave, 2> wave_of(const Road& road, int k, double step) {
  std::array<Wave, 2> out{};
  const auto n = static_cast<int>(std::lround(road.length() / step));
  for (int i = 0; i < n; ++i) {
    const auto z = road.at(i * step);
    const Wave turn = std::polar(2.0 / n, -2 * std::numbers::pi * k * i / n);
    out[0] += z[0] * turn, out[1] += z[1] * turn;
  }
  return out;
}

/// Density of both tracks and their coherence, over waves from `low` to `high` cycles a metre.
struct Band {
  double left = 0, right = 0, coherence = 0; // of the class's density; squared
};
Band band_of(RoadClass kind, double low, double high) {
  Band out;
  Wave cross = 0;
  double l = 0, r = 0, want = 0;
  for (const std::uint64_t seed : {1, 2, 3}) {
    const double length = 1000;
    const Road road = Road::rough(kind, length, seed);
    const int from = static_cast<int>(std::ceil(low * length)), to = static_cast<int>(high * length);
    const int stride = std::max(1, (to - from) / 40);
    for (int k = from; k <= to; k += stride) {
      const auto w = wave_of(road, k, 0.1);
      l += std::norm(w[0]) / 2 * length, r += std::norm(w[1]) / 2 * length;
      cross += w[0] * std::conj(w[1]) / 2.0 * length;
      want += roughness(kind, k / length);
    }
  }
  out.left = l / want, out.right = r / want, out.coherence = std::norm(cross) / (l * r);
  return out;
}

TEST(Road, HasItsClassesDensityOnBothTracks) {
  EXPECT_NEAR(roughness(RoadClass::a, 0.1), 16e-6, 1e-12);
  EXPECT_NEAR(roughness(RoadClass::h, 0.1), 16e-6 * 16384, 1e-9);
  EXPECT_NEAR(roughness(RoadClass::c, 0.2), 256e-6 / 4, 1e-12);
  for (const RoadClass kind : {RoadClass::a, RoadClass::d})
    for (const auto& [low, high] : {std::pair{0.02, 0.08}, {0.1, 0.5}, {0.5, 2.0}}) {
      const Band band = band_of(kind, low, high);
      EXPECT_NEAR(band.left, 1, 0.2) << low;
      EXPECT_NEAR(band.right, 1, 0.2) << low;
    }
}

TEST(Road, TracksAreAlikeAtLongWavesAndApartAtShortOnes) {
  EXPECT_GT(band_of(RoadClass::c, 0.002, 0.02).coherence, 0.8);
  EXPECT_LT(band_of(RoadClass::c, 1.0, 2.0).coherence, 0.5);
  // A narrower track sees more of the same waves.
  const auto apart = [](double track) {
    const Road road = Road::rough(RoadClass::c, 2000, 5, track);
    double sum = 0;
    for (int i = 0; i < 20000; ++i) {
      const auto z = road.at(i * 0.1);
      sum += (z[0] - z[1]) * (z[0] - z[1]);
    }
    return sum;
  };
  EXPECT_LT(apart(1.2), apart(1.9));
}

TEST(Road, IsTheSameFromTheSameSeedAndComesRoundAgain) {
  const Road one = Road::rough(RoadClass::c, 500, 7), again = Road::rough(RoadClass::c, 500, 7),
             other = Road::rough(RoadClass::c, 500, 8);
  double differs = 0;
  for (double x = 0; x < 500; x += 1.7) {
    EXPECT_EQ(one.at(x), again.at(x));
    EXPECT_NEAR(one.at(x)[0], one.at(x + 500)[0], 1e-9);
    differs = std::max(differs, std::abs(one.at(x)[0] - other.at(x)[0]));
  }
  EXPECT_GT(differs, 1e-3);
  // Four times the density is twice the height, wave by wave.
  const Road rougher = Road::rough(RoadClass::d, 500, 7);
  EXPECT_NEAR(rougher.at(123.4)[1], 2 * one.at(123.4)[1], 1e-12);
}

TEST(Road, AFlatOneIsFlat) {
  EXPECT_EQ(Road::flat().at(3.7)[0], 0);
}

TEST(Chance, IsEvenNormalAndTheSameOnEveryMachine) {
  Chance chance(42);
  EXPECT_NEAR(chance.next(), 0.7415648787718233, 1e-15) << "SplitMix64 of 42";
  double sum = 0, squares = 0;
  for (int i = 0; i < 100000; ++i) {
    const double z = chance.normal();
    sum += z, squares += z * z;
  }
  EXPECT_NEAR(sum / 100000, 0, 0.01);
  EXPECT_NEAR(squares / 100000, 1, 0.02);
}

} // namespace
} // namespace mavrel::control
