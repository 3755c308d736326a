#include "curve/pchip.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace mavrel::curve {

namespace {

bool differ_in_sign(double a, double b) {
  return (a > 0 && b < 0) || (a < 0 && b > 0);
}

/// Three-point slope at an end; h0, m0 belong to the end interval, h1, m1 to the next.
double end_slope(double h0, double h1, double m0, double m1) {
  const double s = ((2 * h0 + h1) * m0 - h0 * m1) / (h0 + h1);
  if (differ_in_sign(s, m0) || m0 == 0) return 0;
  if (differ_in_sign(m0, m1) && std::abs(s) > 3 * std::abs(m0)) return 3 * m0;
  return s;
}

} // namespace

std::vector<double> pchip_slopes(std::span<const double> x, std::span<const double> y) {
  assert(x.size() == y.size() && x.size() >= 2);
  const std::size_t n = x.size();
  std::vector<double> h(n - 1), m(n - 1), s(n);
  for (std::size_t i = 0; i + 1 < n; ++i) {
    h[i] = x[i + 1] - x[i];
    m[i] = (y[i + 1] - y[i]) / h[i];
  }
  if (n == 2) return {m[0], m[0]};
  s.front() = end_slope(h[0], h[1], m[0], m[1]);
  s.back() = end_slope(h[n - 2], h[n - 3], m[n - 2], m[n - 3]);
  for (std::size_t i = 1; i + 1 < n; ++i) {
    if (m[i - 1] * m[i] <= 0) continue;
    const double w0 = 2 * h[i] + h[i - 1];
    const double w1 = h[i] + 2 * h[i - 1];
    s[i] = (w0 + w1) / (w0 / m[i - 1] + w1 / m[i]);
  }
  return s;
}

PchipTable::PchipTable(std::vector<double> x, const std::vector<std::vector<double>>& columns)
    : x_(std::move(x)), columns_(columns.size()), y_(x_.size() * columns.size()), s_(y_.size()) {
  for (std::size_t c = 0; c < columns_; ++c) {
    const std::vector<double> slopes = pchip_slopes(x_, columns[c]);
    for (std::size_t r = 0; r < x_.size(); ++r) {
      y_[r * columns_ + c] = columns[c][r];
      s_[r * columns_ + c] = slopes[r];
    }
  }
}

PchipTable::Place PchipTable::place(double x) const {
  assert(contains(x));
  const auto above = std::upper_bound(x_.begin() + 1, x_.end() - 1, x);
  const auto row = static_cast<std::size_t>(above - x_.begin()) - 1;
  const double h = x_[row + 1] - x_[row];
  const double t = (x - x_[row]) / h;
  const double u = 1 - t;
  return {row,           u * u * (1 + 2 * t), t * t * (3 - 2 * t), h * t * u * u, -h * t * t * u,
          6 * t * u / h, u * (1 - 3 * t),     t * (3 * t - 2)};
}

ValueSlope PchipTable::read(const Place& at, std::size_t column) const {
  const std::size_t i = at.row * columns_ + column;
  const std::size_t j = i + columns_;
  return {at.v0 * y_[i] + at.v1 * y_[j] + at.s0 * s_[i] + at.s1 * s_[j],
          at.dv * (y_[j] - y_[i]) + at.d0 * s_[i] + at.d1 * s_[j]};
}

} // namespace mavrel::curve
