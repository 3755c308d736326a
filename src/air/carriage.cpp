#include "air/carriage.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace mavrel::air {

namespace {

/// A stop gives way so little that its height stays: 5 µm under 5 kN.
constexpr double stop_rate = 1e9; // N/m

/// A symmetric positive system of up to three unknowns, by Cholesky. @returns false where it is not positive
bool solve(std::array<std::array<double, 3>, 3> a, std::array<double, 3>& x, std::size_t n) {
  for (std::size_t j = 0; j < n; ++j) {
    for (std::size_t k = 0; k < j; ++k)
      a[j][j] -= a[j][k] * a[j][k];
    if (!(a[j][j] > 0)) return false;
    a[j][j] = std::sqrt(a[j][j]);
    for (std::size_t i = j + 1; i < n; ++i) {
      for (std::size_t k = 0; k < j; ++k)
        a[i][j] -= a[i][k] * a[j][k];
      a[i][j] /= a[j][j];
    }
  }
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < i; ++k)
      x[i] -= a[i][k] * x[k];
    x[i] /= a[i][i];
  }
  for (std::size_t i = n; i-- > 0;) {
    for (std::size_t k = i + 1; k < n; ++k)
      x[i] -= a[k][i] * x[k];
    x[i] /= a[i][i];
  }
  return true;
}

} // namespace

Carriage::Carriage(Body body, double ambient) : body_(std::move(body)), ambient_(ambient), states_(body_.legs.size()) {
  const std::size_t n = body_.legs.size();
  assert(n == body_.loads.size() && (n == 1 || n == 2 || n == 4));
  freedoms_ = n == 1 ? 1 : n == 2 ? 2 : 3;
  // Levers are measured from the middle of the legs and over their spread, so that all freedoms are metres.
  double x = 0, y = 0, spread_x = 0, spread_y = 0;
  for (const Leg& leg : body_.legs)
    x += leg.forward / static_cast<double>(n), y += leg.left / static_cast<double>(n);
  for (const Leg& leg : body_.legs) {
    spread_x = std::fmax(spread_x, std::abs(leg.forward - x));
    spread_y = std::fmax(spread_y, std::abs(leg.left - y));
  }
  for (std::size_t i = 0; i < n; ++i) {
    const Leg& leg = body_.legs[i];
    const double along = spread_x > 0 ? (leg.forward - x) / spread_x : 0,
                 across = spread_y > 0 ? (leg.left - y) / spread_y : 0;
    if (n == 2)
      levers_.push_back({1, spread_y > 0 ? across : along, 0});
    else
      levers_.push_back({1, along, across});
    weight_ += body_.loads[i];
    for (std::size_t k = 0; k < freedoms_; ++k)
      load_[k] += levers_[i][k] * body_.loads[i];
  }
}

double Carriage::height(std::size_t leg, const std::array<double, 3>& q) const {
  double H = body_.legs[leg].height;
  for (std::size_t k = 0; k < freedoms_; ++k)
    H += levers_[leg][k] * q[k];
  return H;
}

Carriage::Push Carriage::push(std::size_t i, double H, double y, LegState* out) const {
  const Leg& leg = body_.legs[i];
  // Past a stop the body rests on it, and the bag is read where the stop holds it.
  const double at = std::clamp(H, leg.lowest, leg.highest);
  double bag_height = at, ratio = 1, other = 0, other_slope = 0, ratio_slope = 0;
  if (leg.travel) {
    const auto place = leg.travel->place(at);
    const auto length = leg.travel->read(place, 0);
    const auto held = leg.travel->read(place, 1);
    const auto motion = leg.travel->read(place, 2);
    bag_height = length.value, ratio = motion.value, ratio_slope = motion.slope;
    other = held.value, other_slope = held.slope;
  }
  const BagSection section = leg.curve.section(std::clamp(bag_height, leg.curve.lowest(), leg.curve.highest()));
  const double V = section.volume + leg.added_volume;
  const double p_abs = std::pow(y / V, isentropic);
  const BagForce force = bag_force(section, p_abs - ambient_);
  const double bag_slope = force.per_height - force.per_pressure * isentropic * p_abs * section.volume_slope / V;
  Push push{force.force * ratio + other, bag_slope * ratio * ratio + force.force * ratio_slope + other_slope};
  double stop = 0;
  if (H < leg.lowest) stop = stop_rate * (leg.lowest - H);
  if (H > leg.highest) stop = stop_rate * (leg.highest - H);
  if (at != H) push.slope = -stop_rate;
  push.force += stop;
  if (out) *out = {at, bag_height, V, push.force, stop};
  return push;
}

bool Carriage::settle(const double* y) {
  const std::size_t n = body_.legs.size();
  std::array<double, 3> q = q_;
  for (int round = 0; round < 200; ++round) {
    std::array<double, 3> rest = load_;
    for (double& r : rest)
      r = -r;
    std::array<std::array<double, 3>, 3> slope{};
    for (std::size_t i = 0; i < n; ++i) {
      const Push p = push(i, height(i, q), y[body_.legs[i].volume], &states_[i]);
      // Where a bag is slack or folds, force may grow with height: then the step is made as over a soft spring.
      const double stiff = std::fmax(-p.slope, 100);
      for (std::size_t k = 0; k < freedoms_; ++k) {
        rest[k] += levers_[i][k] * p.force;
        for (std::size_t l = 0; l <= k; ++l)
          slope[k][l] += levers_[i][k] * levers_[i][l] * stiff;
      }
    }
    imbalance_ = 0;
    for (std::size_t k = 0; k < freedoms_; ++k)
      imbalance_ = std::fmax(imbalance_, std::abs(rest[k]) / weight_);
    if (!std::isfinite(imbalance_)) return false;
    std::array<double, 3> step = rest;
    if (!solve(slope, step, freedoms_)) return false;
    double longest = 0;
    for (std::size_t k = 0; k < freedoms_; ++k)
      longest = std::fmax(longest, std::abs(step[k]));
    if (imbalance_ < 1e-10 || longest < 1e-15) {
      q_ = q;
      return true;
    }
    // A long step may run over a stop and back: along it the work done falls, then rises; its least is looked for.
    const auto along = [&](double t) {
      std::array<double, 3> there = q;
      for (std::size_t k = 0; k < freedoms_; ++k)
        there[k] += t * step[k];
      double work = 0;
      for (std::size_t i = 0; i < n; ++i) {
        const double force = push(i, height(i, there), y[body_.legs[i].volume], nullptr).force;
        for (std::size_t k = 0; k < freedoms_; ++k)
          work += step[k] * levers_[i][k] * force;
      }
      for (std::size_t k = 0; k < freedoms_; ++k)
        work -= step[k] * load_[k];
      return work;
    };
    double t = 1;
    if (longest > 1e-7) {
      const double at_start = [&] {
        double work = 0;
        for (std::size_t k = 0; k < freedoms_; ++k)
          work += step[k] * rest[k];
        return work;
      }();
      double lo = 0, hi = 1, at_lo = at_start, at_hi = along(1);
      for (int look = 0; look < 60 && at_hi < -0.5 * at_start; ++look) {
        const double mid = lo + (hi - lo) * std::clamp(at_lo / (at_lo - at_hi), 0.1, 0.9);
        const double at_mid = along(mid);
        if (at_mid > 0)
          lo = mid, at_lo = at_mid;
        else
          hi = mid, at_hi = at_mid;
        t = hi;
        if (std::abs(at_mid) < 0.1 * at_start) {
          t = mid;
          break;
        }
      }
    }
    for (std::size_t k = 0; k < freedoms_; ++k)
      q[k] += t * step[k];
  }
  return false;
}

} // namespace mavrel::air
