#include "control/road.h"

#include <unsupported/Eigen/FFT>

#include <cmath>
#include <complex>
#include <numbers>

namespace mavrel::control {

namespace {

constexpr double reference_wave = 0.1, longest_waves = 0.01; // cycles/m
/// Coherence of left and right falls as exp(−n/n_c), n_c by the track: alike at long waves, apart at short ones.
constexpr double alike = 0.75; // cycles, n_c times the track
constexpr double points_a_metre = 20;

/// The next size that the transform takes apart quickly: of twos, threes and fives.
std::size_t quick_size(std::size_t least) {
  for (std::size_t n = least;; ++n) {
    std::size_t rest = n;
    for (const std::size_t p : {2U, 3U, 5U})
      while (rest % p == 0)
        rest /= p;
    if (rest == 1 && n % 2 == 0) return n;
  }
}

} // namespace

double Chance::next() {
  // SplitMix64: every seed a row of its own, whatever the machine.
  std::uint64_t z = (state_ += 0x9e3779b97f4a7c15ULL);
  z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
  z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
  return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1.0p-53;
}

double Chance::normal() {
  const double u = 1 - next(), v = next();
  return std::sqrt(-2 * std::log(u)) * std::cos(2 * std::numbers::pi * v);
}

double roughness(RoadClass road, double n) {
  const double ratio = reference_wave / std::fmax(n, longest_waves);
  return 16e-6 * std::pow(4.0, static_cast<int>(road)) * ratio * ratio;
}

Road::Road(std::vector<std::array<double, 2>> points, double length)
    : points_(std::move(points)), length_(length), per_metre_(static_cast<double>(points_.size()) / length) {}

Road Road::rough(RoadClass road, double length, std::uint64_t seed, double track) {
  const std::size_t N = quick_size(static_cast<std::size_t>(std::ceil(length * points_a_metre)) + 4);
  using Wave = std::complex<double>;
  std::vector<Wave> both(N / 2 + 1), apart(N / 2 + 1);
  Chance chance(seed);
  const double dn = 1 / length;
  for (std::size_t k = 1; k <= N / 2; ++k) {
    const double n = static_cast<double>(k) * dn;
    const double turn = 2 * std::numbers::pi * chance.next(), other = 2 * std::numbers::pi * chance.next();
    if (n > finest) break;
    // Half the sum and half the difference of both tracks, so that each has the class's density and the two the
    // coherence wanted.
    const double likeness = std::exp(-n * track / alike), G = roughness(road, n);
    const double half = static_cast<double>(N) / 2; // of a cosine's amplitude, in the transform
    both[k] = std::polar(half * std::sqrt(2 * G * dn * (1 + likeness) / 2), turn);
    apart[k] = std::polar(half * std::sqrt(2 * G * dn * (1 - likeness) / 2), other);
  }
  Eigen::FFT<double> transform;
  transform.SetFlag(Eigen::FFT<double>::HalfSpectrum);
  std::vector<double> sum(N), difference(N);
  transform.inv(sum, both, static_cast<Eigen::Index>(N));
  transform.inv(difference, apart, static_cast<Eigen::Index>(N));
  std::vector<std::array<double, 2>> points(N);
  for (std::size_t i = 0; i < N; ++i)
    points[i] = {sum[i] + difference[i], sum[i] - difference[i]};
  return {std::move(points), length};
}

Road Road::flat() {
  return {{{0, 0}, {0, 0}}, 1};
}

std::array<double, 2> Road::at(double x) const {
  const double place = std::fmod(x, length_) * per_metre_;
  const auto i = static_cast<std::size_t>(place);
  const double t = place - static_cast<double>(i);
  const std::size_t N = points_.size();
  const auto point = [&](std::size_t k) -> const std::array<double, 2>& { return points_[k < N ? k : k - N]; };
  const auto &a = point(i + N - 1), &b = point(i), &c = point(i + 1), &d = point(i + 2);
  // A cubic with the slopes of the neighbours on either side.
  const double t2 = t * t, t3 = t2 * t;
  const double wa = (-t + 2 * t2 - t3) / 2, wb = (2 - 5 * t2 + 3 * t3) / 2, wc = (t + 4 * t2 - 3 * t3) / 2,
               wd = (t3 - t2) / 2;
  return {wa * a[0] + wb * b[0] + wc * c[0] + wd * d[0], wa * a[1] + wb * b[1] + wc * c[1] + wd * d[1]};
}

} // namespace mavrel::control
