#include "motion/cycle_fit.h"

#include "curve/linear.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace mavrel::motion {

namespace {

constexpr double significance = 0.05; // over all readings together
constexpr double exact = 1e-9;        // m: residuals below are rounding

std::size_t distinct_heights(std::span<const CycleReading> readings) {
  std::vector<double> heights;
  for (const CycleReading& reading : readings)
    heights.push_back(reading.height);
  std::sort(heights.begin(), heights.end());
  std::size_t out = heights.empty() ? 0 : 1;
  for (std::size_t i = 1; i < heights.size(); ++i)
    out += heights[i] - heights[i - 1] > least_between_heights;
  return out;
}

/// Powers of u up to the degree, and of their slope by u.
std::vector<double> powers(double u, int degree) {
  std::vector<double> out;
  double p = 1;
  for (int k = 0; k <= degree; ++k, p *= u)
    out.push_back(p);
  return out;
}
std::vector<double> slopes(double u, int degree) {
  std::vector<double> out{0};
  double p = 1;
  for (int k = 1; k <= degree; ++k, p *= u)
    out.push_back(k * p);
  return out;
}

double dot(std::span<const double> a, std::span<const double> b) {
  return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}

/// xᵀ·M·x. @param M  symmetric, as many rows as x has numbers
double squared_by(std::span<const double> M, std::span<const double> x) {
  double out = 0;
  for (std::size_t k = 0; k < x.size(); ++k)
    out += x[k] * dot(M.subspan(k * x.size(), x.size()), x);
  return out;
}

/// Readings that the curve through the others rejects.
/// @param leverage  of each reading on its own fitted value
std::vector<std::size_t> rejected(std::span<const double> residual, std::span<const double> leverage, int unknowns,
                                  double least) {
  std::vector<std::size_t> out;
  const auto n = static_cast<double>(residual.size());
  const double left = n - unknowns - 1; // degrees of freedom without the one asked about
  if (left < 1) return out;
  const double bound = curve::student_quantile(left, significance / (2.0 * n));
  const double sum = dot(residual, residual);
  for (std::size_t i = 0; i < residual.size(); ++i) {
    const double spare = 1 - leverage[i];
    if (spare < 1e-9) continue;                        // the curve goes through it whatever it is: nobody can tell
    const double away = std::abs(residual[i]) / spare; // from the curve fitted without it
    if (away <= least) continue;
    const double others = std::max(0.0, (sum - residual[i] * residual[i] / spare) / left);
    const double t = std::abs(residual[i]) / std::sqrt(std::max(others, exact * exact) * spare);
    if (t > bound) out.push_back(i);
  }
  return out;
}

} // namespace

std::optional<double> CycleFit::slope_sd(double H) const {
  if (!reading_sd) return std::nullopt;
  const auto d = slopes((H - length.x0) / half_range, degree);
  return *reading_sd * std::sqrt(std::max(0.0, squared_by(inverse, d))) / half_range;
}

Expected<CycleFit> fit_cycle(std::span<const CycleReading> readings, double least) {
  for (const CycleReading& reading : readings)
    if (!std::isfinite(reading.height) || !std::isfinite(reading.length))
      return refuse(words("A reading of the sheet is no number."));
  const std::size_t distinct = distinct_heights(readings);
  if (readings.size() < 2) return refuse(words("A cycle sheet needs two readings at least; five to nine are usual."));
  if (distinct < 2) return refuse(words("All readings are of one height: jack the wheel through its travel."));

  CycleFit out;
  const std::size_t n = readings.size();
  out.degree = std::min({3, std::max(1, static_cast<int>(n - 1) / 2), static_cast<int>(distinct) - 1});
  const auto [low, high] =
      std::minmax_element(readings.begin(), readings.end(),
                          [](const CycleReading& a, const CycleReading& b) { return a.height < b.height; });
  out.lowest = low->height;
  out.highest = high->height;
  out.length.x0 = 0.5 * (out.lowest + out.highest);
  out.half_range = 0.5 * (out.highest - out.lowest);

  const int unknowns = out.degree + 1;
  const auto at = [&](std::size_t i) {
    return powers((readings[i].height - out.length.x0) / out.half_range, out.degree);
  };
  std::vector<double> X(n * static_cast<std::size_t>(unknowns)), y;
  for (std::size_t i = 0; i < n; ++i) {
    const auto row = at(i);
    for (std::size_t k = 0; k < row.size(); ++k)
      X[k * n + i] = row[k];
    y.push_back(readings[i].length);
  }
  const curve::LinearFit fit = curve::least_squares_fit({X, n, static_cast<std::size_t>(unknowns)}, y);
  if (fit.rank < static_cast<std::size_t>(unknowns))
    return refuse(words("The heights of the sheet lie too close together for a curve."));
  double scale = 1;
  for (const double c : fit.c) {
    out.length.c.push_back(c / scale);
    scale *= out.half_range;
  }
  out.inverse = fit.inverse; // a few unknowns in [−1, 1]: well conditioned
  std::vector<double> residual, leverage;
  for (std::size_t i = 0; i < n; ++i) {
    residual.push_back(y[i] - dot(at(i), fit.c));
    leverage.push_back(squared_by(fit.inverse, at(i)));
  }
  if (n > static_cast<std::size_t>(unknowns))
    out.reading_sd = std::sqrt(dot(residual, residual) / static_cast<double>(n - static_cast<std::size_t>(unknowns)));
  out.measure_again = rejected(residual, leverage, unknowns, least);
  return out;
}

} // namespace mavrel::motion
